import { MantineProvider } from '@mantine/core';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import {
  applyEdit,
  changeDocument,
  createDemoShop,
  createInspector,
  createPlanner,
  type Command,
  type EditOperation,
  type Job,
} from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { setPerson } from '../client/person';
import { IMKE } from './person';
import { StoreProvider, usePlannedLoom, type PlannedLoom } from '../client/jobContext';
import type { JobState, JobStore } from '../client/jobStore';
import { CursorProvider } from '../ui/cursor';

const shop = createDemoShop();
// as the plan worker does: what an edit does not touch is not planned again, nor a job that the test before has planned
const planner = createPlanner(shop);
const inspect = createInspector(shop);
const opened = new Map<string, Job>();

/** The same object for jobs that say the same: what is remembered of one is known by the object. */
function toOne(job: Job): Job {
  const key = JSON.stringify(job);
  const known = opened.get(key) ?? job;
  opened.set(key, known);
  return known;
}

/** An open job without a server: edits are applied at once and their labels kept. */
export class FakeStore {
  readonly shop = shop;
  readonly shopVersion = 1;
  labels: string[] = [];
  private listeners = new Set<() => void>();
  private state: JobState;

  constructor(job: Job) {
    setPerson(IMKE);
    this.state = {
      id: 'job',
      document: toOne(job),
      version: 0,
      saving: 'saved',
      waiting: 0,
      oldestSince: null,
      undo: null,
      redo: null,
      result: null,
      before: null,
      conflict: null,
      refused: [],
      problem: null,
    };
    this.plan();
  }

  get = (): JobState => this.state;

  get job(): Job {
    return this.state.document;
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  edit = ({ label, apply }: Command): void => {
    this.labels.push(label);
    this.state = { ...this.state, document: changeDocument(this.state.document, apply), before: this.state.result };
    this.plan();
    this.listeners.forEach((listener) => listener());
  };

  push = (label: string, patch: EditOperation[]): void => {
    const applied = applyEdit(this.state.document, patch);
    if (!applied.ok) throw new Error(applied.problems.map(({ message }) => message).join());
    this.edit({ label, apply: (draft) => void Object.assign(draft, applied.value) });
  };

  private plan(): void {
    const job = this.state.document;
    const planned = planner(job);
    this.state = { ...this.state, result: { job, ...planned, findings: inspect(job, planned, null), ms: 1 } };
  }
}

/** Show something of an open job. */
export function renderWith(store: FakeStore, children: ReactNode) {
  return render(
    <MantineProvider env="test">
      <StoreProvider store={store as unknown as JobStore}>{children}</StoreProvider>
    </MantineProvider>,
  );
}

/** Show something of a planned loom of an open job, with a cursor; by default of the inlet loom of the demo, changed as a test needs it. */
export function openLoom(
  part: (planned: PlannedLoom) => ReactNode,
  change: (job: Job) => void = () => undefined,
  { job, loomId } = { job: createInlet(), loomId: 'inlet' },
): FakeStore {
  change(job);
  const store = new FakeStore(job);
  renderWith(
    store,
    <CursorProvider>
      <OfLoom loomId={loomId} part={part} />
    </CursorProvider>,
  );
  return store;
}

function OfLoom({ loomId, part }: { loomId: string; part: (planned: PlannedLoom) => ReactNode }) {
  const planned = usePlannedLoom(loomId);
  return planned ? part(planned) : null;
}
