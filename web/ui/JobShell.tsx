'use client';

import { ActionIcon, Button, Group, Modal, Stack, useMantineColorScheme } from '@mantine/core';
import { useDisclosure, useHotkeys } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { createSpotlight, Spotlight, useSpotlight, type SpotlightActionData } from '@mantine/spotlight';
import { IconKeyboard, IconMoon, IconPlus } from '@tabler/icons-react';
import { Link } from './Link';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { Suspense, useEffect, useMemo, type ReactNode } from 'react';
import { REGISTER, type Finding, type FindingStation, addLoom, createLoomId, isBegun } from 'wattograph-core';
import { JobProvider, useFindings, useJob, useJobStore } from '../client/jobContext';
import type { Opened } from '../client/jobStore';
import { sayOldest } from '../client/outbox/deviceStorage';
import { CursorProvider, useCursorStore } from './cursor';
import styles from './JobShell.module.css';
import { ImportWireList } from './wireList/ImportWireList';
import { KeysHelp } from './KeysHelp';
import { LoomNameField, LoomPrefixField, useLoomForm, type NewLoom } from './loomForm';
import { NotTaken } from './NotTaken';
import { rankActions } from './rankActions';
import { ShopPin } from './shop/ShopPin';
import { STATIONS } from './stations';
import { Who } from './accounts/Who';

const [boxStore, box] = createSpotlight();

/** The desk of one job: rail, head with its looms, and the station. */
export function JobShell({ initial, children }: { initial: Opened; children: ReactNode }) {
  return (
    <JobProvider initial={initial} fallback={<div className={styles.wait}>Opening the job …</div>}>
      <Suspense>
        <CursorProvider>
          <Frame jobId={initial.id}>{children}</Frame>
        </CursorProvider>
      </Suspense>
    </JobProvider>
  );
}

/** The loom that the address names, or the first of the job. */
export function useLoomId(): string {
  const wanted = useSearchParams().get('loom');
  const first = useJob(({ document }) =>
    wanted !== null && Object.hasOwn(document.looms, wanted) ? wanted : Object.keys(document.looms)[0],
  );
  if (first === undefined) throw new Error('a job has at least one loom');
  return first;
}

function Frame({ jobId, children }: { jobId: string; children: ReactNode }) {
  const router = useRouter();
  const path = usePathname();
  const loomId = useLoomId();
  const store = useJobStore();
  const { toggleColorScheme } = useMantineColorScheme();
  const [keysOpen, keys] = useDisclosure(false);
  const name = useJob(({ document }) => document.name);
  const customer = useJob(({ document }) => document.customer);
  const undo = useJob((state) => state.undo);
  const redo = useJob((state) => state.redo);
  const problem = useJob((state) => state.problem);
  useEffect(() => {
    if (!problem) return;
    notifications.show({ color: 'flame', title: 'Not done', message: problem, autoClose: 9000 });
    store.forgetProblem();
  }, [problem, store]);
  const go = (slug: string) => router.push(`/jobs/${jobId}/${slug}?loom=${loomId}`);
  useHotkeys([
    ['/', () => box.open()],
    ['shift+?', keys.open],
    ['?', keys.open],
    ['u', () => void store.history('undo')],
    ['shift+U', () => void store.history('redo')],
    ['mod+z', () => void store.history('undo')],
    ['mod+shift+z', () => void store.history('redo')],
    ['f', () => router.push(`/jobs/${jobId}/floor?loom=${loomId}`)],
    ['p', () => router.push(`/jobs/${jobId}/prove?loom=${loomId}`)],
    ...STATIONS.map(({ key, slug }) => [key, () => go(slug)] as [string, () => void]),
  ]);
  return (
    <div className={styles.desk}>
      <nav className={`${styles.rail} no-print`} aria-label="Stations">
        <Link href="/" className={styles.brand}>
          Wattograph
        </Link>
        <Link href="/" className={styles.station}>
          <span />
          <span>Jobs</span>
        </Link>
        <Link href="/shop" className={styles.station}>
          <span />
          <span>Shop</span>
        </Link>
        {STATIONS.map(({ key, slug, name: title }) => (
          <Link
            key={slug}
            href={`/jobs/${jobId}/${slug}?loom=${loomId}`}
            className={styles.station}
            aria-current={path.endsWith(`/${slug}`) ? 'page' : undefined}
          >
            <kbd>{key}</kbd>
            <span>{title}</span>
            <StationMark station={slug} loomId={loomId} />
          </Link>
        ))}
        <Link href={`/jobs/${jobId}/floor?loom=${loomId}`} className={styles.station}>
          <kbd>f</kbd>
          <span>Floor</span>
        </Link>
        <Link href={`/jobs/${jobId}/prove?loom=${loomId}`} className={styles.station}>
          <kbd>p</kbd>
          <span>Prove</span>
        </Link>
        <div className={styles.foot}>
          <Saved />
          <ShopPin jobId={jobId} />
          <Who />
        </div>
      </nav>
      <header className={`${styles.head} no-print`}>
        <h1>{name}</h1>
        <span className={styles.customer}>{customer}</span>
        <LoomTabs loomId={loomId} path={path} />
        <div className={styles.tools}>
          <button
            type="button"
            className={styles.tool}
            disabled={undo === null}
            title={undo ? `Undo: ${undo} (u)` : 'Nothing to undo'}
            onClick={() => void store.history('undo')}
          >
            Undo
          </button>
          <button
            type="button"
            className={styles.tool}
            disabled={redo === null}
            title={redo ? `Redo: ${redo} (U)` : 'Nothing to redo'}
            onClick={() => void store.history('redo')}
          >
            Redo
          </button>
          <button type="button" className={styles.tool} onClick={box.open}>
            <span className="mono">/</span> find or do
          </button>
          <ActionIcon variant="subtle" aria-label="Keys of this screen" onClick={keys.open}>
            <IconKeyboard size={18} />
          </ActionIcon>
          <ActionIcon variant="subtle" aria-label="Light or dark" onClick={toggleColorScheme}>
            <IconMoon size={18} />
          </ActionIcon>
        </div>
      </header>
      <main className={styles.main}>
        <RefusedEdits />
        {children}
      </main>
      <CommandBox jobId={jobId} loomId={loomId} go={go} />
      <KeysHelp slug={path.split('/').at(-1) ?? ''} opened={keysOpen} onClose={keys.close} />
      <Conflict />
    </div>
  );
}

function StationMark({ station, loomId }: { station: FindingStation | 'board' | 'sheets'; loomId: string }) {
  const findings = useFindings();
  const accepted = useJob(({ document }) => document.accepted);
  const isPlanned = useJob(({ result }) => result !== null);
  const isPlain = station === 'sheets' || station === 'board';
  const begun = useJob(({ document }) => !isPlain && isBegun(document, loomId, station));
  // nothing is in order before it has been looked at
  if (isPlain || !isPlanned) return null;
  const open = findings.filter(
    (finding) =>
      (finding.loomId === loomId || finding.loomId === '') &&
      REGISTER[finding.code].station === station &&
      finding.grade !== 'note' &&
      !Object.hasOwn(accepted, finding.key),
  );
  const stops = open.filter(({ grade }) => grade === 'stop').length;
  if (open.length === 0 && !begun) return null;
  if (open.length === 0)
    return (
      <span className={styles.mark} title="no open findings">
        ✓
      </span>
    );
  return (
    <span className={`${styles.mark} ${stops ? styles.stop : ''}`} title={`${stops} stop, ${open.length - stops} check`}>
      {open.length}
    </span>
  );
}

function Saved() {
  const saving = useJob((state) => state.saving);
  const version = useJob((state) => state.version);
  const waiting = useJob((state) => state.waiting);
  const oldestSince = useJob((state) => state.oldestSince);
  return (
    <span role="status" className={`${styles.saved} ${saving === 'offline' ? styles.offline : ''}`}>
      {saving === 'saved'
        ? `saved · v${version}`
        : saving === 'saving'
          ? 'saving …'
          : waiting > 0
            ? `${waiting} kept here, server away${sayOldest(oldestSince)}`
            : 'server away'}
    </span>
  );
}

function LoomTabs({ loomId, path }: { loomId: string; path: string }) {
  const job = useJob(({ document }) => document);
  const { looms } = job;
  const store = useJobStore();
  const router = useRouter();
  const [opened, dialog] = useDisclosure(false);
  const [importing, importDialog] = useDisclosure(false);
  const form = useLoomForm(job);
  const add = ({ name, prefix }: NewLoom) => {
    const id = createLoomId(store.get().document.looms);
    store.edit(addLoom(id, name.trim(), prefix.trim()));
    dialog.close();
    form.reset();
    router.push(`${path}?loom=${id}`);
  };
  return (
    <nav className={styles.looms} aria-label="Looms">
      {Object.entries(looms).map(([id, loom]) => (
        <Link key={id} className={styles.loom} aria-current={id === loomId} href={`${path}?loom=${id}`}>
          {loom.name}
        </Link>
      ))}
      <button type="button" className={styles.loom} aria-label="Add a loom" onClick={dialog.open}>
        <IconPlus size={14} />
      </button>
      <Modal opened={opened} onClose={dialog.close} title="Add a loom to this job">
        <form onSubmit={form.onSubmit(add)}>
          <Stack gap="sm">
            <LoomNameField form={form} label="Name" />
            <LoomPrefixField form={form} />
          </Stack>
          <Group justify="space-between" mt="md">
            <Button
              variant="default"
              onClick={() => {
                dialog.close();
                importDialog.open();
              }}
            >
              From a wire list (CSV) …
            </Button>
            <Button type="submit" disabled={!form.isValid()}>
              Add loom
            </Button>
          </Group>
        </form>
      </Modal>
      {importing && (
        <ImportWireList
          job={job}
          onClose={importDialog.close}
          onDone={(id) => {
            importDialog.close();
            router.push(`${path}?loom=${id}`);
          }}
        />
      )}
    </nav>
  );
}

const NO_FINDINGS: Finding[] = [];

function CommandBox({ jobId, loomId, go }: { jobId: string; loomId: string; go: (slug: string) => void }) {
  const router = useRouter();
  const store = useJobStore();
  const cursor = useCursorStore();
  // listed when the box is open: a drag makes many plans that nobody searches
  const { opened } = useSpotlight(boxStore);
  const result = useJob((state) => (opened ? state.result : null));
  const findings = useJob((state) => (opened ? state.result?.findings : null)) ?? NO_FINDINGS;
  const actions = useMemo<SpotlightActionData[]>(() => {
    const plan = result?.looms.find((one) => one.loomId === loomId);
    const loom = result?.job.looms[loomId];
    if (!plan || !loom) return [];
    const toSegment = (segmentId: string, offsetMm: number) => {
      cursor.set({ segmentId, offsetMm });
      go('bundle');
    };
    return [
      ...STATIONS.map(({ slug, name }) => ({ id: `go-${slug}`, label: `Go to ${name}`, onClick: () => go(slug) })),
      { id: 'go-floor', label: 'Go to Floor', onClick: () => router.push(`/jobs/${jobId}/floor?loom=${loomId}`) },
      { id: 'go-prove', label: 'Go to Prove', onClick: () => router.push(`/jobs/${jobId}/prove?loom=${loomId}`) },
      { id: 'go-milestones', label: 'Go to Milestones', onClick: () => router.push(`/jobs/${jobId}/prove/milestones`) },
      { id: 'undo', label: 'Undo', onClick: () => void store.history('undo') },
      { id: 'redo', label: 'Redo', onClick: () => void store.history('redo') },
      ...findings
        .filter((one) => one.loomId === loomId || one.loomId === '')
        .map((finding) => ({
          id: `finding-${finding.key}`,
          label: finding.sentence,
          description: `${finding.grade} ${finding.code}${finding.fix ? ` · fix: ${finding.fix.label}` : ''}`,
          onClick: () => router.push(`/jobs/${jobId}/bundle?loom=${loomId}&tab=findings`),
        })),
      ...Object.entries(loom.ends).map(([id, end]) => ({
        id: `end-${id}`,
        label: end.name,
        description: 'end',
        onClick: () => router.push(`/jobs/${jobId}/ends?loom=${loomId}&end=${id}`),
      })),
      ...Object.entries(plan.tree.segments).map(([id, segment]) => ({
        id: `run-${id}`,
        label: `${loom.nodes[segment.nearNodeId]!.name} to ${loom.nodes[segment.farNodeId]!.name}`,
        description: `run, ${Math.round(segment.lengthMm)} mm`,
        onClick: () => toSegment(id, segment.lengthMm / 2),
      })),
      ...plan.wires.map((wire) => ({
        id: `wire-${wire.id}`,
        label: wire.number,
        description: `${loom.circuits[wire.circuitId]!.name}, cut ${wire.cutMm} mm`,
        onClick: () => {
          cursor.light(wire.id);
          if (wire.pieces[0]) toSegment(wire.pieces[0].segmentId, (wire.pieces[0].fromMm + wire.pieces[0].toMm) / 2);
        },
      })),
    ];
  }, [result, loomId, findings, go, cursor, jobId, router, store]);
  return (
    <Spotlight
      store={boxStore}
      actions={actions}
      limit={9}
      filter={rankActions}
      highlightQuery
      shortcut={null}
      nothingFound="Nothing of that name"
      searchProps={{ placeholder: 'wire, end, run, finding, action', 'aria-label': 'Find or do' }}
      scrollable
      maxHeight={420}
    />
  );
}

function RefusedEdits() {
  const refused = useJob((state) => state.refused);
  const store = useJobStore();
  return (
    <NotTaken
      entries={refused.map(({ id, label, reason }) => ({ id, what: label, reason }))}
      onRetry={(id) => store.retry(id)}
      onLetGo={(id) => store.letGo(id)}
    />
  );
}

function Conflict() {
  const conflict = useJob((state) => state.conflict);
  const store = useJobStore();
  if (!conflict) return null;
  return (
    <Modal
      opened
      // only a button decides: an edit is not lost to a key
      onClose={() => {}}
      withCloseButton={false}
      title="Two people changed the same place"
      size="lg"
    >
      <p>
        You: <b>{conflict.mine.label}</b>
      </p>
      {conflict.theirs.map((one) => (
        <p key={one.version}>
          {one.author}: <b>{one.label}</b> (version {one.version})
        </p>
      ))}
      <Group justify="flex-end">
        <Button variant="default" onClick={() => store.settle('theirs')}>
          Let theirs stand
        </Button>
        <Button onClick={() => store.settle('mine')}>Put mine on top</Button>
      </Group>
    </Modal>
  );
}
