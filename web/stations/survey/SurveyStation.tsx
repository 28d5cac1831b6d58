'use client';

import { Link } from '../../ui/Link';
import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Opened } from '../../client/jobStore';
import { sayOldest } from '../../client/outbox/deviceStorage';
import { registerServiceWorker } from '../../client/serviceWorker';
import { ShopProvider } from '../../client/shopContext';
import { NotTaken } from '../../ui/NotTaken';
import { Who } from '../../ui/accounts/Who';
import { SurveyStore, type SurveyState } from '../../client/surveyStore';
import { AnchorsTab } from './AnchorsTab';
import { AskTab } from './AskTab';
import { MeasureTab } from './MeasureTab';
import { RunsTab } from './RunsTab';
import { SettleTab } from './SettleTab';
import { Pick } from '../../ui/fields/Pick';
import styles from './Survey.module.css';

const TABS = ['measure', 'runs', 'anchors', 'ask', 'settle'] as const;
type Tab = (typeof TABS)[number];
const NAMES: Record<Tab, string> = { measure: 'Measure', runs: 'Runs', anchors: 'Anchors', ask: 'Ask', settle: 'Conflicts' };

/** At the vehicle: a tape, one hand, and perhaps no network. */
export function SurveyStation({ loaded, wantedLoomId }: { loaded: Opened; wantedLoomId: string | null }) {
  const [store, setStore] = useState<SurveyStore | null>(null);
  useEffect(() => {
    registerServiceWorker();
    const opened = new SurveyStore(loaded);
    // what this device kept is in its own database, which only the browser has
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setStore(opened);
    return opened.begin();
  }, [loaded]);
  return store ? (
    <ShopProvider value={loaded.shop}>
      <Open store={store} jobId={loaded.id} wantedLoomId={wantedLoomId} />
    </ShopProvider>
  ) : (
    <p className={styles.empty}>Opening the survey …</p>
  );
}

function Open({ store, jobId, wantedLoomId }: { store: SurveyStore; jobId: string; wantedLoomId: string | null }) {
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const [tab, setTab] = useState<Tab>('measure');
  const [chosenId, setChosen] = useState(wantedLoomId);
  const [runId, setRunId] = useState<string | null>(null);
  const { job } = state;
  const loomId = chosenId !== null && Object.hasOwn(job.looms, chosenId) ? chosenId : Object.keys(job.looms)[0]!;
  const conflicts = Object.keys(job.surveyConflicts).length;
  const openItems = Object.values(job.openItems).filter(({ atVisit, answer }) => atVisit && answer === null).length;
  const openAnchors = Object.values(job.anchors).filter((anchor) => anchor.state === 'open').length;
  const marks: Partial<Record<Tab, number>> = { anchors: openAnchors, ask: openItems, settle: conflicts };
  return (
    <div className={styles.survey}>
      <header className={styles.head}>
        <b>{job.name}</b>
        <Pick
          label="Loom"
          value={loomId}
          options={Object.entries(job.looms).map(([value, { name }]) => ({ value, label: name }))}
          onChange={setChosen}
        />
        <Who />
        <span role="status" className={state.online ? styles.state : styles.offline}>
          {sayState(state)}
        </span>
        <button className={styles.undo} title="Take the last entry back" onClick={() => void store.undo()}>
          Undo
        </button>
        <Link href={`/jobs/${jobId}/bundle?loom=${loomId}`} className={styles.plan}>
          plan
        </Link>
      </header>
      {state.problem && (
        <p className={styles.problem} role="alert">
          {state.problem} <button onClick={store.forgetProblem}>seen</button>
        </p>
      )}
      <NotTaken entries={state.refused} onRetry={store.retry} onLetGo={store.letGo} size="lg" />
      <main className={styles.main}>
        {tab === 'measure' && (
          <MeasureTab
            key={loomId}
            store={store}
            state={state}
            loomId={loomId}
            onRun={(id) => {
              setRunId(id);
              setTab('runs');
            }}
          />
        )}
        {tab === 'runs' && <RunsTab key={loomId} store={store} state={state} loomId={loomId} runId={runId} onRun={setRunId} />}
        {tab === 'anchors' && <AnchorsTab store={store} job={job} loomId={loomId} />}
        {tab === 'ask' && <AskTab store={store} job={job} loomId={loomId} />}
        {tab === 'settle' && <SettleTab store={store} job={job} />}
      </main>
      <nav className={styles.tabs} aria-label="Parts of the survey">
        {TABS.map((one) => (
          <button key={one} aria-current={tab === one} onClick={() => setTab(one)}>
            {NAMES[one]}
            {marks[one] ? <span className={styles.count}>{marks[one]}</span> : null}
          </button>
        ))}
      </nav>
    </div>
  );
}

function sayState({ writing, waiting, waitingPhotos, oldestSince, refused, online }: SurveyState): string {
  if (writing) return 'keeping …';
  const kept = waiting + waitingPhotos.length;
  if (kept) return `${kept} kept here, ${online ? 'sending' : 'no network'}${sayOldest(oldestSince)}`;
  if (!online) return 'no network';
  return refused.length > 0 ? `${refused.length} not stored` : 'all stored';
}
