'use client';

import { Button, FileButton, Group, Modal, TextInput } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { createJob, fromJsonText, type Problem } from 'wattograph-core';
import { readAuthor, setPeople } from '../../client/author';
import { request, RequestError } from '../../client/request';
import type { JobLine } from '../../server/jobLines';
import { ProblemList } from '../../ui/ProblemList';
import styles from './Jobs.module.css';

const MOST_BYTES = 8 * 1024 * 1024;

/** The shop's wall: jobs in work, what is next for each, and a way to begin another. */
export function JobsStation({ jobs, people }: { jobs: JobLine[]; people: string[] }) {
  useState(() => setPeople(people));
  const router = useRouter();
  const [opened, dialog] = useDisclosure(false);
  const [name, setName] = useState('');
  const [customer, setCustomer] = useState('');
  const [problems, setProblems] = useState<{ title: string; list: Problem[] } | null>(null);
  const [busy, setBusy] = useState(false);

  const store = async (title: string, document: unknown) => {
    setBusy(true);
    setProblems(null);
    try {
      const { id } = await request<{ id: string }>('/api/jobs', { id: crypto.randomUUID(), author: readAuthor(), document });
      router.push(`/jobs/${id}/bundle`);
    } catch (error) {
      setProblems({ title, list: error instanceof RequestError ? error.problems : [{ path: '', message: String(error) }] });
    } finally {
      setBusy(false);
    }
  };
  const open = async (file: File | null) => {
    if (!file) return;
    const title = `${file.name} was not imported; nothing was stored`;
    if (file.size > MOST_BYTES) {
      setProblems({ title, list: [{ path: '', message: `expected at most 8 MB, got ${(file.size / 1024 / 1024).toFixed(0)} MB` }] });
      return;
    }
    const parsed = fromJsonText(await file.text());
    if (parsed.ok) await store(title, parsed.value);
    else setProblems({ title, list: parsed.problems });
  };
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <h1>Wattograph</h1>
        <span className="faint">jobs in work</span>
        <div className={styles.tools}>
          <Button variant="default" component={Link} href="/shop">
            Shop
          </Button>
          <FileButton onChange={(file) => void open(file)} accept=".json,application/json">
            {(props) => (
              <Button variant="default" loading={busy} {...props}>
                Import a job
              </Button>
            )}
          </FileButton>
          <Button onClick={dialog.open}>New job</Button>
        </div>
      </header>
      {problems && <ProblemList title={problems.title} problems={problems.list} onClose={() => setProblems(null)} />}
      {jobs.length === 0 && (
        <p className={styles.empty}>
          No jobs yet. Begin one with a name and a customer; it opens with an empty loom and its datum, to which you add ends, breakouts and
          circuits. Or import a job from a file.
        </p>
      )}
      <ul className={styles.wall}>
        {jobs.map((job) => (
          <li key={job.id} className={styles.job}>
            <div>
              <h2>
                <Link href={`/jobs/${job.id}/bundle`}>{job.name}</Link>
              </h2>
              <span className="faint">
                {job.customer || 'no customer named'}
                {job.promisedOn ? `, promised ${job.promisedOn}` : ''}
              </span>
            </div>
            <div>
              <span className={styles.next}>{job.next}</span>
              <br />
              <span className={job.stops ? styles.stop : 'faint'}>{job.stops ? `⬣ ${job.stops} stop` : 'no stop findings'}</span>
              <span className="faint">, {job.checks} to check</span>
            </div>
            <div className="faint">
              {job.looms} {job.looms === 1 ? 'loom' : 'looms'}, {job.wires} wires
              <br />
              {job.revision ? `revision ${job.revision}${job.editsSince ? `, ${job.editsSince} edits since` : ''}` : 'not released'}
            </div>
            <div className={styles.go}>
              <Link href={`/jobs/${job.id}/brief`}>Brief</Link>
              <Link href={`/jobs/${job.id}/survey`}>Survey</Link>
              <Link href={`/jobs/${job.id}/bundle`}>Plan</Link>
              <Link href={`/jobs/${job.id}/sheets`}>Sheets</Link>
              {job.revision > 0 && <Link href={`/jobs/${job.id}/floor`}>Floor</Link>}
            </div>
          </li>
        ))}
      </ul>
      <Modal opened={opened} onClose={dialog.close} title="New job">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) void store('The job was not stored', createJob(name.trim(), customer.trim()));
          }}
        >
          <TextInput
            label="Name"
            description="the car or the loom, as the shop calls it"
            data-autofocus
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <TextInput
            label="Customer"
            mt="sm"
            maxLength={80}
            value={customer}
            onChange={(event) => setCustomer(event.currentTarget.value)}
          />
          <Group justify="flex-end" mt="md">
            <Button variant="default" onClick={dialog.close}>
              Leave it
            </Button>
            <Button type="submit" loading={busy} disabled={!name.trim()}>
              Begin job
            </Button>
          </Group>
        </form>
      </Modal>
    </div>
  );
}
