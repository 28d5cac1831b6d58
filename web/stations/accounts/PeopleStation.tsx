'use client';

import { Button, Group, Modal, Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { Link } from '../../ui/Link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { toCount } from 'wattograph-core';
import { toUrl } from '../../client/base';
import { setPerson } from '../../client/person';
import { request, RequestError } from '../../client/request';
import type { AuditLine, DeviceLine, PersonLine } from '../../server/accounts/people';
import { ROLE_WORDS, ROLES, type Person, type Role } from '../../server/accounts/rights';
import styles from '../../ui/accounts/Accounts.module.css';
import { DialogEnd } from '../../ui/DialogEnd';
import { Pick } from '../../ui/fields/Pick';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';

const day = (at: string | null) => at?.slice(0, 10) ?? '';
const sayIn = ({ leftAt, hasPin, username, sessions }: PersonLine): string => {
  if (leftAt !== null) return `left on ${day(leftAt)}`;
  const ways = [hasPin && 'digits', username && `password as ${username}`].filter(Boolean).join(', ');
  return [ways, sessions > 0 && `signed in on ${toCount(sessions, 'device')}`].filter(Boolean).join('; ') || 'a new code only';
};

/** Who works here, what each may do, on which devices; the owner's page. */
export function PeopleStation({
  person,
  people,
  jobs,
  devices,
  audit,
}: {
  person: Person;
  people: PersonLine[];
  jobs: { id: string; name: string }[];
  devices: DeviceLine[];
  audit: AuditLine[];
}) {
  useState(() => setPerson(person));
  const router = useRouter();
  const [inviting, setInviting] = useState<Inviting | null>(null);
  const act = (work: Promise<unknown>) =>
    work.then(
      () => router.refresh(),
      (error: unknown) => {
        if (!(error instanceof RequestError)) throw error;
        notifications.show({ color: 'flame', title: 'Not done', message: error.message });
      },
    );
  const change = (id: string, body: object) => void act(request(`/api/accounts/people/${id}`, body));
  const columns = useMemo((): Column<PersonLine>[] => {
    const again = ({ name, role, id, jobId }: PersonLine) => setInviting({ name, role, jobId, personId: id });
    return [
      { id: 'name', head: 'Name', value: ({ name }) => name },
      {
        id: 'role',
        head: 'Role',
        value: ({ role }) => role,
        cell: ({ id, name, role, leftAt }) =>
          leftAt === null && role !== 'customer' ? (
            <Pick
              label={`Role of ${name}`}
              value={role}
              options={ROLES.filter((one) => one !== 'customer')}
              onChange={(next) => next && next !== role && change(id, { role: next })}
            />
          ) : (
            <span className="faint">{role}</span>
          ),
      },
      {
        id: 'may',
        head: 'May',
        value: ({ role, leftAt, jobName }) =>
          leftAt !== null
            ? 'nothing; what was signed stays signed'
            : role === 'customer'
              ? `sees how ${jobName ?? 'a job that is gone'} stands, answers what is asked`
              : ROLE_WORDS[role],
      },
      { id: 'in', head: 'Comes in by', value: sayIn },
      { id: 'seen', head: 'Last seen', value: ({ seenAt }) => day(seenAt) },
      {
        id: 'do',
        head: '',
        cell: (line) => (
          <Group gap="xs" wrap="nowrap">
            <Button size="compact-xs" variant="subtle" onClick={() => again(line)}>
              {line.leftAt === null ? 'New code' : 'Let in again'}
            </Button>
            {line.sessions > 0 && (
              <Button size="compact-xs" variant="subtle" onClick={() => change(line.id, { endSessions: true })}>
                Sign out everywhere
              </Button>
            )}
            {line.leftAt === null && line.id !== person.id && (
              <Button size="compact-xs" variant="subtle" color="flame" onClick={() => change(line.id, { hasLeft: true })}>
                End access
              </Button>
            )}
          </Group>
        ),
      },
    ];
    // change acts on the page as it is
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [person.id]);
  return (
    <main className={`${styles.page} ${styles.wide}`}>
      <header className={styles.head}>
        <h1>
          <Link href="/">Wattograph</Link> · people and devices
        </h1>
        <div className={styles.tools}>
          <Button onClick={() => setInviting({ name: '', role: 'crew', jobId: null, personId: null })}>Let somebody in</Button>
        </div>
      </header>
      <DataTable name="people" label="People" rows={people} columns={columns} keyOf={({ id }) => id} />
      <section className={styles.part} aria-label="Devices of the shop">
        <h2>Devices of the shop</h2>
        {devices.length === 0 && <p className="faint">None. On a tablet, sign in with a password, press your name and make it one.</p>}
        <ul className={styles.audit}>
          {devices.map(({ id, name, addedBy, addedAt }) => (
            <li key={id}>
              <b>{name}</b>{' '}
              <span className="faint">
                by {addedBy}, {day(addedAt)}
              </span>{' '}
              <Button size="compact-xs" variant="subtle" color="flame" onClick={() => void act(remove(id))}>
                Take out
              </Button>
            </li>
          ))}
        </ul>
      </section>
      <section className={styles.part} aria-label="What was decided">
        <h2>What was decided</h2>
        {audit.length === 0 && <p className="faint">Nothing yet: who was let in, whose access ended and which role changed stands here.</p>}
        <ul className={styles.audit}>
          {audit.map(({ at, person: who, what, about }) => (
            <li key={`${at} ${what} ${about}`}>
              <span className="mono faint">{at.slice(0, 16).replace('T', ' ')}</span> <b>{who}</b> {what}: {about}
            </li>
          ))}
        </ul>
      </section>
      {inviting && <InviteDialog start={inviting} jobs={jobs} onClose={() => setInviting(null)} onMade={() => router.refresh()} />}
    </main>
  );
}

interface Inviting {
  name: string;
  role: Role;
  /** of a customer */
  jobId: string | null;
  personId: string | null;
}

const remove = (id: string) => request(`/api/accounts/device/${id}`, undefined, { method: 'DELETE' });

/** Makes a code and shows it once. */
function InviteDialog({
  start,
  jobs,
  onClose,
  onMade,
}: {
  start: Inviting;
  jobs: { id: string; name: string }[];
  onClose: () => void;
  onMade: () => void;
}) {
  const [code, setCode] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const isAgain = start.personId !== null;
  const form = useForm({
    initialValues: { name: start.name, role: start.role, jobId: start.jobId },
    validate: {
      name: (name) => (name.trim().length < 2 ? 'expected a name' : null),
      jobId: (jobId, { role }) => (role === 'customer' && jobId === null ? 'expected the job that is theirs' : null),
    },
  });
  const make = form.onSubmit(async ({ name, role, jobId }) => {
    setProblem(null);
    try {
      const body = { name: name.trim(), role, personId: start.personId, jobId: role === 'customer' ? jobId : null };
      setCode((await request<{ code: string }>('/api/accounts/invites', body)).code);
      onMade();
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error.message);
    }
  });
  return (
    <Modal opened onClose={onClose} title={isAgain ? `A new code for ${start.name}` : 'Let somebody in'} size="lg">
      {code ? (
        <>
          <p style={{ marginTop: 0 }}>
            Tell {form.values.name} this code, or send the link. It lets one person in, once, within a week, and is not shown again.
          </p>
          <p className={styles.code}>{code}</p>
          <p>
            <a
              className={styles.link}
              href={toUrl(`/welcome?code=${code}`)}
            >{`${window.location.origin}${toUrl(`/welcome?code=${code}`)}`}</a>
          </p>
          <Group justify="flex-end">
            <Button onClick={onClose}>Done</Button>
          </Group>
        </>
      ) : (
        <form onSubmit={make}>
          <TextInput
            label="Name"
            description="it signs what they do"
            disabled={isAgain}
            maxLength={80}
            data-autofocus
            {...form.getInputProps('name')}
          />
          <Select
            label="Role"
            mt="sm"
            disabled={isAgain}
            allowDeselect={false}
            data={ROLES.map((role) => ({ value: role, label: `${role}: ${ROLE_WORDS[role]}` }))}
            {...form.getInputProps('role')}
          />
          {form.values.role === 'customer' && (
            <Select
              label="Their job"
              mt="sm"
              description="they see how it stands, and answer what is asked of them there; nothing else"
              disabled={isAgain}
              searchable
              data={jobs.map(({ id, name }) => ({ value: id, label: name }))}
              {...form.getInputProps('jobId')}
            />
          )}
          {problem && (
            <p className={styles.wrong} role="alert">
              {problem}
            </p>
          )}
          <DialogEnd onClose={onClose} words="Make a code" isReady={form.isValid()} />
        </form>
      )}
    </Modal>
  );
}
