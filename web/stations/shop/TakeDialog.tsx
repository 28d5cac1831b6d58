'use client';

import { Button, Group, Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useEffect, useState } from 'react';
import type { Problem, Shop } from 'wattograph-core';
import { request, RequestError, type Progress } from '../../client/request';
import type { ShopPreview } from '../../server/shop';
import { ProblemList } from '../../ui/findings/ProblemList';
import { Effect, ShopDifferences } from '../../ui/shop/ShopEffect';
import styles from './Shop.module.css';

const MOST = 8;

/** What a draft of the shop changes in its tables, and what it would change in each job that is brought up to it, before it is taken. */
export function TakeDialog({ base, draft, onClose, onTaken }: { base: number; draft: Shop; onClose: () => void; onTaken: () => void }) {
  const [preview, setPreview] = useState<ShopPreview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [progress, setProgress] = useState<Progress | null>(null);
  const form = useForm({ initialValues: { note: '' } });
  const [busy, setBusy] = useState(false);
  const [id] = useState(() => crypto.randomUUID());
  const tell = (error: unknown) => {
    if (error instanceof RequestError) setProblems(error.problems);
    else throw error;
  };
  useEffect(() => {
    const left = new AbortController();
    request<ShopPreview>('/api/shop/preview', { document: draft }, { signal: left.signal, onProgress: setProgress })
      .then(setPreview)
      .catch((error: unknown) => {
        if (!left.signal.aborted) tell(error);
      });
    return () => left.abort();
  }, [draft]);
  const orphans = preview?.jobs.filter((job) => job.problems.length > 0) ?? [];
  const take = form.onSubmit(async ({ note }) => {
    setBusy(true);
    try {
      const { version } = await request<{ version: number }>('/api/shop', { id, base, note, document: draft });
      notifications.show({
        title: `Version ${version} of the shop`,
        message: 'Jobs are planned with it when they are brought up to it.',
        color: 'sea',
      });
      onTaken();
    } catch (error) {
      tell(error);
    } finally {
      setBusy(false);
    }
  });
  return (
    <Modal opened onClose={onClose} title={`Make version ${base + 1} of the shop`} size="xl">
      <form onSubmit={take}>
        {problems.length > 0 && <ProblemList title="Not taken; nothing is changed" problems={problems} />}
        {!preview && problems.length === 0 && (
          <p>Comparing it with every job{progress && progress.of > 0 ? `: ${progress.done} of ${progress.of}` : ''} …</p>
        )}
        {preview && (
          <>
            <h3 className={styles.part}>In the shop</h3>
            {preview.differences.length === 0 && <p className="faint">Nothing differs from version {base}.</p>}
            <ShopDifferences differences={preview.differences} />
            <h3 className={styles.part}>In the jobs, when they are brought up to it</h3>
            <ul className={styles.differences}>
              {preview.jobs.map((job) => (
                <li key={job.id}>
                  <b>{job.name}</b>: <Effect effect={job} />
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
            <p className="faint">
              Each job goes on with the version it has until it is brought up; revisions that are released stay what they are.
            </p>
            <TextInput label="Note" description="what is new, for who plans with it" maxLength={2000} {...form.getInputProps('note')} />
          </>
        )}
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" loading={busy} disabled={!preview || preview.differences.length === 0 || orphans.length > 0}>
            Take it
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
