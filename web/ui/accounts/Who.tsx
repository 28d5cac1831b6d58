'use client';

import { Button, Group, Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDisclosure } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { Link } from '../Link';
import { useEffect, useState } from 'react';
import { toUrl } from '../../client/base';
import { askToKeep, readStorage, type DeviceStorage } from '../../client/outbox/deviceStorage';
import { usePerson } from '../../client/person';
import { request, RequestError } from '../../client/request';
import { mayDo, ROLE_WORDS } from '../../server/accounts/rights';
import styles from './Accounts.module.css';
import { Faces, useFaces } from './Faces';

/** The page as the server has it for whoever is signed in now. */
const openAgain = (path?: string) => (path === undefined ? window.location.reload() : window.location.assign(toUrl(path)));

const tell = (error: unknown) => {
  if (!(error instanceof RequestError)) throw error;
  notifications.show({ color: 'flame', title: 'Not done', message: error.message });
};

/** Who works at this device; opens to hand it to somebody else. */
export function Who() {
  const person = usePerson();
  const [opened, dialog] = useDisclosure(false);
  return (
    <>
      <button type="button" className={styles.who} title={`${person.name}, ${person.role}: hand over or sign out`} onClick={dialog.open}>
        {person.name}
      </button>
      {opened && (
        <Modal opened onClose={dialog.close} title="Who is working" size="lg">
          <HandOver />
        </Modal>
      )}
    </>
  );
}

function HandOver() {
  const person = usePerson();
  const faces = useFaces();
  const signOut = () => request('/api/accounts/sign-out', {}).then(() => openAgain('/sign-in'), tell);
  return (
    <>
      <p style={{ marginTop: 0 }}>
        Signed in as <b>{person.name}</b>, {person.role}: {ROLE_WORDS[person.role]}. What is still waiting to be sent stays on this device
        and is signed by who made it.
      </p>
      <Room />
      {faces && faces.length > 0 && <Faces faces={faces} onIn={() => openAgain()} />}
      {faces?.length === 0 && mayDo(person.role, 'plan') && <AddDevice />}
      <Group justify="space-between" mt="md">
        {mayDo(person.role, 'people') ? (
          <Link href="/people" className={styles.link}>
            People and devices
          </Link>
        ) : (
          <span />
        )}
        <Button variant="default" onClick={() => void signOut()}>
          Sign out
        </Button>
      </Group>
    </>
  );
}

/** What room the browser gives this installation, and whether it keeps what waits here. */
function Room() {
  const [room, setRoom] = useState<DeviceStorage | null>(null);
  useEffect(() => {
    void readStorage().then(setRoom);
  }, []);
  if (!room) return null;
  return (
    <p className="faint" style={{ margin: '0 0 10px' }}>
      This device: {Math.ceil(room.usedMb)} of {Math.floor(room.quotaMb)} MB used.{' '}
      {room.isKept ? (
        'Its browser keeps what waits here until it is sent.'
      ) : (
        <>
          Its browser may clear what waits here when the disk gets full.{' '}
          <Button size="compact-xs" variant="subtle" onClick={() => void askToKeep().then(setRoom)}>
            Ask it to keep that
          </Button>
        </>
      )}
    </p>
  );
}

/** On a device of the shop several people work, each with their digits. */
function AddDevice() {
  const form = useForm({ initialValues: { name: '' }, validate: { name: (name) => (name.trim().length < 2 ? 'expected a name' : null) } });
  const add = form.onSubmit(({ name }) => {
    request('/api/accounts/device', { name: name.trim() }).then(() => openAgain(), tell);
  });
  return (
    <form onSubmit={add}>
      <TextInput
        label="Make this a device of the shop"
        description="then people change on it with their digits, and what they do is signed by each"
        placeholder="tablet at the crimp bench"
        maxLength={80}
        {...form.getInputProps('name')}
      />
      <Button type="submit" variant="default" mt="xs">
        Make it one
      </Button>
    </form>
  );
}
