'use client';

import { Button, FileButton, Group, Modal, Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDisclosure, useMounted } from '@mantine/hooks';
import { Link } from '../../ui/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { createJob, fromJsonText, toJobStart, type Problem, type Job, type Shop } from 'wattograph-core';
import { setPerson, useMay } from '../../client/person';
import { hearNews } from '../../client/live';
import { request, RequestError } from '../../client/request';
import type { Person } from '../../server/accounts/rights';
import type { JobSummary } from '../../server/jobSummaries';
import type { OpenProblem } from '../../server/jobs/openProblems';
import { BIN_DAYS } from '../../server/jobs/binDays';
import { Who } from '../../ui/accounts/Who';
import { ProblemList } from '../../ui/findings/ProblemList';
import { Segmented } from '../../ui/fields/Segmented';
import { TOUR, TOUR_JOB } from '../../ui/tour/steps';
import { useTour } from '../../ui/tour/useTour';
import { FloorProblems } from './FloorProblems';
import { JobLine, type Act } from './JobLine';
import { countShown, FILTERS, listShown, ORDERS, type Filter, type Order } from './listShown';
import styles from './Jobs.module.css';

const MOST_BYTES = 8 * 1024 * 1024;

const GATHER_MS = 300;

/** What the server tells that changes the wall; the picture of a problem may come after its words. */
const HEEDED: ReadonlySet<string> = new Set(['lines', 'job', 'release', 'problem', 'photos', 'again']);

/** The wall as it is now: a job that was edited, counted or released anywhere shows here. */
function useFreshLines(): void {
  const router = useRouter();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const deaf = hearNews(({ topic }) => {
      if (!HEEDED.has(topic)) return;
      clearTimeout(timer);
      timer = setTimeout(() => router.refresh(), GATHER_MS);
    });
    return () => {
      clearTimeout(timer);
      deaf();
    };
  }, [router]);
}

const FILTER_WORDS: Record<Filter, string> = {
  ...{ work: 'in work', mend: 'to mend', release: 'to release', floor: 'on the floor', archived: 'archived', deleted: 'deleted' },
};
const ORDER_WORDS: Record<Order, string> = { touched: 'last touched first', promised: 'promised soonest first', name: 'by name' };

const toProblems = (error: unknown): Problem[] => (error instanceof RequestError ? error.problems : [{ path: '', message: String(error) }]);

const MINUTE_MS = 60_000;
const sayMinute = (listener: () => void) => {
  const timer = setInterval(listener, MINUTE_MS);
  return () => clearInterval(timer);
};

/** Now, a minute at a time, ms; null on the server, whose clock is not the reader's. */
const useNow = (): number | null =>
  useSyncExternalStore(
    sayMinute,
    () => Math.floor(Date.now() / MINUTE_MS) * MINUTE_MS + MINUTE_MS,
    () => null,
  );

/** What the shop begins its jobs with: house styles to make them to, supplies, zones and modes. */
interface Beginnings extends Pick<Shop, 'zones' | 'modes' | 'sources'> {
  styles: readonly { id: string; name: string }[];
}

/** The shop's wall: jobs in work, what is next for each, and a way to begin another. */
export function JobsStation({
  jobs,
  problems: told,
  begins,
  person,
}: {
  jobs: JobSummary[];
  problems: OpenProblem[];
  begins: Beginnings;
  person: Person;
}) {
  useState(() => setPerson(person));
  const mayPlan = useMay('plan');
  const router = useRouter();
  useFreshLines();
  const [opened, dialog] = useDisclosure(false);
  const form = useForm({
    initialValues: { name: '', customer: '', standardId: begins.styles[0]!.id, sourceId: begins.sources[0]!.id },
    validate: { name: (name) => (name.trim() ? null : 'expected a name') },
  });
  const [problems, setProblems] = useState<{ title: string; list: Problem[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const [deleting, setDeleting] = useState<JobSummary | null>(null);
  const [words, setWords] = useState('');
  const [filter, setFilter] = useState<Filter>('work');
  const [order, setOrder] = useState<Order>('touched');
  const shown = useMemo(() => listShown(jobs, { words, filter, order }), [jobs, words, filter, order]);
  const now = useNow();
  const [tour, setTour] = useTour();
  // what this device remembers is read after the first drawing
  const mounted = useMounted();
  const hasDemo = jobs.some(({ id }) => id === TOUR_JOB);
  const beginTour = () => {
    setTour(0);
    router.push(`/jobs/${TOUR_JOB}/${TOUR[0]!.at}`);
  };

  const store = async (title: string, document: unknown, station: 'brief' | 'bundle') => {
    setBusy(true);
    setProblems(null);
    try {
      const { id } = await request<{ id: string }>('/api/jobs', { id: crypto.randomUUID(), document });
      router.push(`/jobs/${id}/${station}`);
    } catch (error) {
      setProblems({ title, list: toProblems(error) });
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
    if (parsed.ok) await store(title, parsed.value, 'bundle');
    else setProblems({ title, list: parsed.problems });
  };
  const copy = async ({ id, name: of }: JobSummary) => {
    setProblems(null);
    try {
      const { document } = await request<{ document: Job }>(`/api/jobs/${id}`);
      const brief = { ...document.brief, promisedOn: null, agreed: null };
      await store(`${of} was not copied`, { ...document, name: `${document.name.slice(0, 74)}, copy`, brief }, 'brief');
    } catch (error) {
      setProblems({ title: `${of} was not copied`, list: toProblems(error) });
    }
  };
  const put = async ({ id, name: of }: JobSummary, where: 'archived' | 'deleted', isThere: boolean) => {
    setProblems(null);
    try {
      await request(`/api/jobs/${id}/${where}`, { [where]: isThere });
      router.refresh();
    } catch (error) {
      setProblems({ title: `${of} stays where it is`, list: toProblems(error) });
    }
  };
  const act: Act = (what, job) => {
    if (what === 'copy') void copy(job);
    else if (what === 'archive') void put(job, 'archived', !job.isArchived);
    else if (what === 'bringBack') void put(job, 'deleted', false);
    else setDeleting(job);
  };
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <h1>Wattograph</h1>
        <span className="faint">jobs in work</span>
        <div className={styles.tools}>
          {hasDemo && (
            <Button variant="subtle" onClick={beginTour}>
              Five-minute tour
            </Button>
          )}
          <Button variant="default" component={Link} href="/shop">
            Shop
          </Button>
          {mayPlan && (
            <>
              <FileButton onChange={(file) => void open(file)} accept=".json,application/json">
                {(props) => (
                  <Button variant="default" loading={busy} {...props}>
                    Import a job
                  </Button>
                )}
              </FileButton>
              <Button onClick={dialog.open}>New job</Button>
            </>
          )}
          <Who />
        </div>
      </header>
      {problems && <ProblemList title={problems.title} problems={problems.list} onClose={() => setProblems(null)} />}
      {jobs.length === 0 && (
        <p className={styles.empty}>
          No jobs yet. Begin one with a name and a customer; it opens with an empty loom and its datum, to which you add ends, breakouts and
          circuits. Or import a job from a file.
        </p>
      )}
      {hasDemo && mounted && tour === null && (
        <div className={styles.tour}>
          <p>
            <b>New here?</b> Five minutes through the demo car, from its brief to the pack for the crew; leave it whenever you like.
          </p>
          <Button size="compact-sm" onClick={beginTour}>
            Show me round
          </Button>
          <Button size="compact-sm" variant="subtle" onClick={() => setTour('left')}>
            Not now
          </Button>
        </div>
      )}
      <FloorProblems problems={told} now={now} />
      {jobs.length > 0 && (
        <div className={styles.bar}>
          <TextInput
            aria-label="Search jobs"
            placeholder="job, customer, person or what is next"
            value={words}
            onChange={(event) => setWords(event.currentTarget.value)}
          />
          <Segmented
            label="Which jobs"
            value={filter}
            onChange={setFilter}
            options={FILTERS.filter((value) => value !== 'deleted' || filter === value || countShown(jobs, value) > 0).map((value) => ({
              value,
              words: `${FILTER_WORDS[value]} ${countShown(jobs, value)}`,
            }))}
          />
          <Select
            aria-label="Order"
            w={190}
            allowDeselect={false}
            data={ORDERS.map((value) => ({ value, label: ORDER_WORDS[value] }))}
            value={order}
            onChange={(value) => setOrder(value ?? 'touched')}
          />
        </div>
      )}
      <ul className={styles.wall} aria-label="Jobs">
        {shown.map((job) => (
          <JobLine key={job.id} job={job} now={now} act={act} />
        ))}
      </ul>
      {jobs.length > 0 && shown.length === 0 && (
        <p className={styles.empty}>No job here{words.trim() && ` that “${words.trim()}” stands in`}.</p>
      )}
      {deleting && (
        <Modal opened onClose={() => setDeleting(null)} title={`Delete ${deleting.name}?`}>
          <p style={{ marginTop: 0 }}>
            It goes from the wall with its revisions, ticks and photos. For {BIN_DAYS} days it can be brought back from “deleted”; then it
            is gone for good. To only put it away, archive it.
          </p>
          <Group justify="flex-end" mt="md">
            <Button variant="default" data-autofocus onClick={() => setDeleting(null)}>
              Leave it
            </Button>
            <Button
              color="flame"
              onClick={() => {
                setDeleting(null);
                void put(deleting, 'deleted', true);
              }}
            >
              Delete
            </Button>
          </Group>
        </Modal>
      )}
      <Modal opened={opened} onClose={dialog.close} title="New job">
        <form
          onSubmit={form.onSubmit(({ name, customer, standardId, sourceId }) => {
            const start = toJobStart(
              begins,
              begins.sources.find(({ id }) => id === sourceId)!,
            );
            void store('The job was not stored', createJob(name.trim(), customer.trim(), standardId, start), 'brief');
          })}
        >
          <TextInput
            label="Name"
            description="the car or the loom, as the shop calls it"
            data-autofocus
            maxLength={80}
            {...form.getInputProps('name')}
          />
          <TextInput label="Customer" mt="sm" maxLength={80} {...form.getInputProps('customer')} />
          {begins.styles.length > 1 && (
            <Select
              label="Made to"
              description="house style of the shop; Brief can change it"
              mt="sm"
              allowDeselect={false}
              data={begins.styles.map(({ id, name }) => ({ value: id, label: name }))}
              {...form.getInputProps('standardId')}
            />
          )}
          {begins.sources.length > 1 && (
            <Select
              label="Fed by"
              description="supply that the shop begins with; Power can change its figures"
              mt="sm"
              allowDeselect={false}
              data={begins.sources.map(({ id, name }) => ({ value: id, label: name }))}
              {...form.getInputProps('sourceId')}
            />
          )}
          <Group justify="flex-end" mt="md">
            <Button variant="default" onClick={dialog.close}>
              Leave it
            </Button>
            <Button type="submit" loading={busy} disabled={!form.isValid()}>
              Begin job
            </Button>
          </Group>
        </form>
      </Modal>
    </div>
  );
}
