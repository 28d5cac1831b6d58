'use client';

import { Button, FileButton } from '@mantine/core';
import { Link } from '../../ui/Link';
import { useState } from 'react';
import { fromReadings, listRework, STAND_IN, toTestsCsv, toUnlisted, type LoomFault, type Problem, type ProofTest } from 'wattograph-core';
import type { FloorStore, Happened } from '../../client/floor/floorStore';
import { useMay, usePerson } from '../../client/person';
import { useFloorStore, useIsClient } from '../../client/floor/useFloorStore';
import { saveFile } from '../../client/saveFile';
import type { Person } from '../../server/accounts/rights';
import type { FloorEvent } from '../../server/floorEvent';
import { ProblemList } from '../../ui/findings/ProblemList';
import { useListFile } from '../../ui/wireList/useListFile';
import { FaultList } from './FaultList';
import { InstrumentField, useInstrument } from './InstrumentField';
import { LeadsDialog } from './LeadsDialog';
import { MeasurementsTable } from './MeasurementsTable';
import { NextMeasurement } from './NextMeasurement';
import styles from './Prove.module.css';
import { ProveHead } from './ProveHead';
import type { ProvePack } from './provePack';
import { StandInDialog } from './StandInDialog';
import { Verdict } from './Verdict';
import { toHappened, useProof, type ProofState } from './useProof';

/** The finished loom is rung out here: what to measure next, what failed, and what that comes to. */
export function ProveStation({
  person,
  jobId,
  pack,
  events,
}: {
  person: Person;
  jobId: string;
  pack: ProvePack | null;
  events: FloorEvent[];
}) {
  const isClient = useIsClient();
  if (!pack)
    return (
      <main className={styles.empty}>
        <h1>Nothing to prove yet</h1>
        <p>A loom is rung out here before anything dear is plugged in, by the plan of a released revision. None is released.</p>
        <Link href={`/jobs/${jobId}/sheets`}>Release one on Sheets</Link>
      </main>
    );
  if (pack.ringOut.tests.length === 0)
    return (
      <main className={styles.empty}>
        <h1>Nothing to prove</h1>
        <p>This loom has no wires in revision {pack.release}.</p>
        <Link href={`/jobs/${jobId}/bundle`}>Back to the plan</Link>
      </main>
    );
  if (pack.steps.every(({ operation }) => operation !== 'test'))
    return (
      <main className={styles.empty}>
        <h1>No order of work</h1>
        <p>The steps of this loom could not be put in order in revision {pack.release}: readings would have no test to be kept under.</p>
        <Link href={`/jobs/${jobId}/bundle?tab=findings`}>To its findings</Link>
      </main>
    );
  // readings kept on this device are known to the browser alone
  if (!isClient) return <p className={styles.empty}>Opening the readings …</p>;
  return <Opened key={`${pack.release} ${pack.plan.loomId}`} person={person} jobId={jobId} pack={pack} events={events} />;
}

function Opened({ person, jobId, pack, events }: { person: Person; jobId: string; pack: ProvePack; events: FloorEvent[] }) {
  const store = useFloorStore(person, jobId, pack, events);
  if (!store) return <p className={styles.empty}>Opening the readings …</p>;
  return <Bench jobId={jobId} pack={pack} store={store} />;
}

const SHOP_TEST = 'test';
const NOTHING: ReadonlyMap<string, number> = new Map();

function Bench({ jobId, pack, store }: { jobId: string; pack: ProvePack; store: FloorStore }) {
  // of the stand-in tester, and what is done to the loom on it: of this page alone, never stored
  const [practice, setPractice] = useState<FloorEvent[] | null>(null);
  const proof = useProof(pack, store, practice);
  const { examined } = proof;
  const { name: author } = usePerson();
  const may = useMay('report');
  const [instrument, setInstrument] = useInstrument(SHOP_TEST);
  const [picked, setPicked] = useState<ProofTest | null>(null);
  const [isStandIn, setStandIn] = useState(false);
  const [isLeads, setLeads] = useState(false);
  const [problems, setProblems] = useState<Problem[]>([]);
  const next = picked ?? examined.unread[0] ?? examined.seeks[0] ?? null;
  const tell = (happened: readonly Happened[], isPractice = practice !== null) => {
    if (!isPractice) store.addMany(happened);
    else
      setPractice((now) => [
        ...(now ?? []),
        ...happened.map((one) => ({ ...one, id: crypto.randomUUID(), happenedAt: new Date().toISOString() })),
      ]);
  };
  const keep = (read: readonly { test: ProofTest; value: number }[], by = practice ? STAND_IN : instrument) =>
    tell(
      read.flatMap(({ test, value }) => toHappened(pack, test, value, { instrument: by, author })),
      by === STAND_IN,
    );
  const file = useListFile((table) => {
    const read = fromReadings(pack.ringOut, table);
    setProblems(read.ok ? [] : read.problems);
    if (!read.ok) return;
    const byId = new Map([...pack.ringOut.tests, ...examined.seeks].map((test) => [test.id, test]));
    tell(
      read.value.flatMap(({ test, value, instrument: by }) =>
        toHappened(pack, byId.get(test) ?? toUnlisted(test)!, value, { instrument: by ?? instrument, author }),
      ),
    );
  });
  const mended = (fault: LoomFault) => {
    const done = new Set(proof.events.flatMap(({ kind, stepId, itemId }) => (kind === 'tick' ? [`${stepId} ${itemId}`] : [])));
    const toEvent = (stepId: string, itemId: string, kind: 'tick' | 'untick'): Happened => ({
      ...{ loomId: pack.plan.loomId, stepId, itemId, kind, words: 'done over on Prove', author },
    });
    const redone = listRework(pack.ringOut, pack.steps, fault);
    // what was passed or signed before is neither any more
    const passed = pack.steps
      .filter(({ operation }) => operation === 'test' || operation === 'sign')
      .flatMap(({ id, items }) => items.flatMap((item) => (done.has(`${id} ${item.id}`) ? [toEvent(id, item.id, 'untick')] : [])));
    tell([...redone.flatMap(({ stepId, itemId }) => [toEvent(stepId, itemId, 'untick'), toEvent(stepId, itemId, 'tick')]), ...passed]);
    setPicked(null);
  };
  const fileProblems = problems.length > 0 ? problems : file.problems;
  return (
    <div className={styles.prove}>
      <ProveHead jobId={jobId} pack={pack} store={store} proof={proof} />
      <div className={styles.tools}>
        <InstrumentField value={instrument} tools={pack.instruments} onChange={setInstrument} />
        <span className={styles.gap} />
        <Button
          variant="default"
          onClick={() => saveFile(`${pack.job.looms[pack.plan.loomId]!.name} tests.csv`, toTestsCsv(pack.ringOut, listAsked(proof, pack)))}
        >
          Export for a tester
        </Button>
        <FileButton onChange={(chosen) => void file.choose(chosen)} accept=".csv,.txt,.xlsx,text/csv">
          {(props) => (
            <Button
              variant="default"
              disabled={!may || practice !== null || instrument.trim() === ''}
              title={instrument.trim() === '' ? 'Say first what it was read with' : ''}
              {...props}
            >
              Read a file
            </Button>
          )}
        </FileButton>
        <Button variant="default" onClick={() => setLeads(true)}>
          Which lead is which
        </Button>
        <Button variant="default" disabled={!may} onClick={() => setStandIn(true)}>
          Stand-in tester
        </Button>
      </div>
      {practice && (
        <p className={styles.notice} role="note">
          Practice with the stand-in tester: a made-up loom, nothing is stored.{' '}
          <Button size="compact-sm" variant="default" onClick={() => setPractice(null)}>
            End the practice
          </Button>
        </p>
      )}
      {fileProblems.length > 0 && <ProblemList title={`${file.fileName} was not taken; nothing was stored`} problems={fileProblems} />}
      <main className={styles.bench}>
        <section className={styles.left}>
          <Verdict pack={pack} proof={proof} store={store} jobId={jobId} isPractice={practice !== null} />
          <FaultList pack={pack} examined={examined} may={may} onMended={mended} />
          {next && (
            <NextMeasurement
              key={next.id}
              pack={pack}
              test={next}
              isSeek={next.kind === 'seek'}
              canRead={may && (practice !== null || instrument.trim() !== '')}
              why={may ? 'Say above what it is read with.' : `${author} may look, and reads nothing in.`}
              last={proof.proofs.get(next.id) ?? null}
              onRead={(value) => {
                keep([{ test: next, value }]);
                setPicked(null);
              }}
              onLeave={picked ? () => setPicked(null) : null}
            />
          )}
        </section>
        <MeasurementsTable pack={pack} proof={proof} chosen={next?.id ?? null} onPick={setPicked} />
      </main>
      {isLeads && <LeadsDialog pack={pack} onClose={() => setLeads(false)} />}
      {isStandIn && (
        <StandInDialog
          pack={pack}
          values={practice ? proof.values : NOTHING}
          onRead={(read) => keep(read, STAND_IN)}
          onClose={() => setStandIn(false)}
        />
      )}
    </div>
  );
}

/** What a tester is to measure: what is left, or all of it where nothing is; and what would tell more. */
function listAsked({ examined }: ProofState, { ringOut }: ProvePack): ProofTest[] {
  const left = [...examined.unread, ...examined.seeks];
  return left.length > 0 ? left : ringOut.tests;
}
