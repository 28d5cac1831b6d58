'use client';

import { Button, Group, Modal, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useEffect, useState } from 'react';
import type { Problem, Shop } from 'wattograph-core';
import { readAuthor } from '../../client/author';
import { request, RequestError } from '../../client/request';
import type { JobEffect, ShopPreview } from '../../server/shop';
import { ProblemList } from '../../ui/ProblemList';
import styles from './Shop.module.css';
import { TABLE_NAMES } from './tableNames';

const MOST = 8;

/** What a draft of the shop would change, in its tables and in every job, before it is taken. */
export function TakeDialog({ base, draft, onClose, onTaken }: { base: number; draft: Shop; onClose: () => void; onTaken: () => void }) {
  const [preview, setPreview] = useState<ShopPreview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [note, setNote] = useState('');
  const [busy, setBusy] = useState(false);
  const [id] = useState(() => crypto.randomUUID());
  const tell = (error: unknown) => {
    if (error instanceof RequestError) setProblems(error.problems);
    else throw error;
  };
  useEffect(() => {
    let left = false;
    request<ShopPreview>('/api/shop/preview', { document: draft })
      .then((made) => {
        if (!left) setPreview(made);
      })
      .catch((error: unknown) => {
        if (!left) tell(error);
      });
    return () => {
      left = true;
    };
  }, [draft]);
  const orphans = preview?.jobs.filter((job) => job.problems.length > 0) ?? [];
  const take = async () => {
    setBusy(true);
    try {
      const { version } = await request<{ version: number }>('/api/shop', { id, base, author: readAuthor(), note, document: draft });
      notifications.show({ title: `Version ${version} of the shop`, message: 'Every job is planned with it from now on.', color: 'sea' });
      onTaken();
    } catch (error) {
      tell(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Modal opened onClose={onClose} title={`Make version ${base + 1} of the shop`} size="xl">
      {problems.length > 0 && <ProblemList title="Not taken; nothing is changed" problems={problems} />}
      {!preview && problems.length === 0 && <p>Comparing it with every job …</p>}
      {preview && (
        <>
          <h3 className={styles.part}>In the shop</h3>
          {preview.differences.length === 0 && <p className="faint">Nothing differs from version {base}.</p>}
          <ul className={styles.differences}>
            {preview.differences.map(({ table, added, changed, gone }) => (
              <li key={table}>
                <b>{TABLE_NAMES[table]}</b>
                <ul>
                  {changed.slice(0, MOST).map((one) => (
                    <li key={one.id}>
                      {one.name}: {one.fields.slice(0, MOST).join(', ')}
                    </li>
                  ))}
                  {added.slice(0, MOST).map((one) => (
                    <li key={one.id}>new: {one.name}</li>
                  ))}
                  {gone.slice(0, MOST).map((one) => (
                    <li key={one.id}>gone: {one.name}</li>
                  ))}
                  {[changed, added, gone].some((list) => list.length > MOST) && (
                    <li className="faint">
                      in all {changed.length} changed, {added.length} new, {gone.length} gone
                    </li>
                  )}
                </ul>
              </li>
            ))}
          </ul>
          <h3 className={styles.part}>In the jobs</h3>
          <ul className={styles.differences}>
            {preview.jobs.map((job) => (
              <li key={job.id}>
                <b>{job.name}</b>: {sayEffect(job)}
                {job.stops.length > 0 && (
                  <ul>
                    {job.stops.slice(0, MOST).map((sentence) => (
                      <li key={sentence} className={styles.stop}>
                        ⬣ {sentence}
                      </li>
                    ))}
                  </ul>
                )}
              </li>
            ))}
            {preview.jobs.length === 0 && <li className="faint">There are none.</li>}
          </ul>
          {orphans.length > 0 && (
            <ProblemList
              title={`${orphans.length === 1 ? 'A job uses' : `${orphans.length} jobs use`} what this shop would not have`}
              problems={orphans.flatMap((job) =>
                job.problems.slice(0, MOST).map(({ path, message }) => ({ path: `${job.name} ${path}`, message })),
              )}
            />
          )}
          <p className="faint">Revisions that are released stay what they are.</p>
          <TextInput
            label="Note"
            description="what is new, for who plans with it"
            maxLength={2000}
            value={note}
            onChange={(event) => setNote(event.currentTarget.value)}
          />
        </>
      )}
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          Leave it
        </Button>
        <Button loading={busy} disabled={!preview || preview.differences.length === 0 || orphans.length > 0} onClick={() => void take()}>
          Take it
        </Button>
      </Group>
    </Modal>
  );
}

function sayEffect({ problems, cuts, sleeves, massG, stops }: JobEffect): string {
  if (problems.length > 0) return 'cannot be planned with it';
  if (cuts + sleeves + stops.length === 0 && Math.abs(massG) < 0.5) return 'stays as it is';
  const mass = Math.abs(massG) < 0.5 ? '' : `, ${massG > 0 ? '+' : '−'}${Math.abs(massG).toFixed(0)} g`;
  return `${cuts} wires cut otherwise, ${sleeves} sleeves${mass}${stops.length > 0 ? `, ${stops.length} more to stop for` : ''}`;
}
