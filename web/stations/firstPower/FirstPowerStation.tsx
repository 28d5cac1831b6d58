'use client';

import { Button, FileButton } from '@mantine/core';
import { Link } from '../../ui/Link';
import { useState } from 'react';
import {
  fromPowerReadings,
  isFileValue,
  STAND_IN,
  toFileValuesCsv,
  toPowerCsv,
  toWokenId,
  type FirstPower,
  type PowerTest,
  type Problem,
} from 'wattograph-core';
import type { FloorStore, Happened } from '../../client/floor/floorStore';
import { useFloorStore, useIsClient } from '../../client/floor/useFloorStore';
import { useMay, usePerson } from '../../client/person';
import { saveFile } from '../../client/saveFile';
import type { Person } from '../../server/accounts/rights';
import type { FloorEvent } from '../../server/floorEvent';
import { ProblemList } from '../../ui/findings/ProblemList';
import { useListFile } from '../../ui/wireList/useListFile';
import styles from '../prove/Prove.module.css';
import { InstrumentField, useInstrument } from '../prove/InstrumentField';
import type { FirstPowerPack } from './firstPowerPack';
import { NextReading } from './NextReading';
import { PowerHead } from './PowerHead';
import { PowerTable } from './PowerTable';
import { StandInVehicle } from './StandInVehicle';
import { StopPanel } from './StopPanel';
import { isFree, toPowerEvent, useFirstPower } from './useFirstPower';

interface Opening {
  person: Person;
  jobId: string;
  jobName: string;
  pack: FirstPowerPack | null;
  events: FloorEvent[];
}

/** The vehicle gets power for the first time here: step by step, and a surprise stops it. */
export function FirstPowerStation({ person, jobId, jobName, pack, events }: Opening) {
  const isClient = useIsClient();
  if (!pack)
    return (
      <main className={styles.empty}>
        <h1>{jobName}: nothing gets power yet</h1>
        <p>First power goes by the plan of a released revision: which cavity is live in which state of the switches. None is released.</p>
        <Link href={`/jobs/${jobId}/sheets`}>Release one on Sheets</Link>
      </main>
    );
  if (!pack.sheet || pack.looms.length === 0)
    return (
      <main className={styles.empty}>
        <h1>{jobName}: no first power</h1>
        <p>
          {pack.sheet === undefined
            ? `Revision ${pack.release} was released before first power was worked out. Release the job again.`
            : 'No battery is on a loom of this job, so nothing is fed by it.'}
        </p>
        <Link href={`/jobs/${jobId}/${pack.sheet === undefined ? 'sheets' : 'brief?tab=devices'}`}>
          {pack.sheet === undefined ? 'Release it on Sheets' : 'Add it in Brief'}
        </Link>
      </main>
    );
  // readings kept on this device are known to the browser alone
  if (!isClient) return <p className={styles.empty}>Opening the readings …</p>;
  return <Opened key={pack.release} person={person} jobId={jobId} pack={pack} sheet={pack.sheet} events={events} />;
}

function Opened({
  person,
  jobId,
  pack,
  sheet,
  events,
}: {
  person: Person;
  jobId: string;
  pack: FirstPowerPack;
  sheet: FirstPower;
  events: FloorEvent[];
}) {
  const { loomId, carried } = pack.looms[0]!;
  const store = useFloorStore(person, jobId, { release: pack.release, plan: { loomId }, carried }, events);
  if (!store) return <p className={styles.empty}>Opening the readings …</p>;
  return <Bench jobId={jobId} pack={pack} sheet={sheet} store={store} />;
}

function Bench({ jobId, pack, sheet, store }: { jobId: string; pack: FirstPowerPack; sheet: FirstPower; store: FloorStore }) {
  // of the stand-in vehicle: of this page alone, never stored
  const [practice, setPractice] = useState<FloorEvent[] | null>(null);
  const power = useFirstPower(pack, sheet, store, practice);
  const { judged, blocks, proofs, values } = power;
  const { name: author } = usePerson();
  const may = useMay('report');
  const [instrument, setInstrument] = useInstrument('power');
  const [pickedId, setPicked] = useState<string | null>(null);
  const [isStandIn, setStandIn] = useState(false);
  const [problems, setProblems] = useState<Problem[]>([]);
  const picked = judged.tests.find(({ test }) => test.id === pickedId) ?? null;
  const free = judged.tests.find(({ test, verdict }) => verdict === 'unread' && test.part !== 'later' && isFree(test, blocks)) ?? null;
  const next = picked ?? (judged.failed.length > 0 ? null : judged.next && isFree(judged.next.test, blocks) ? judged.next : free);
  const tell = (happened: readonly Happened[], isPractice = practice !== null) => {
    if (!isPractice) store.addMany(happened);
    else
      setPractice((now) => [
        ...(now ?? []),
        ...happened.map((one) => ({ ...one, id: crypto.randomUUID(), happenedAt: new Date().toISOString() })),
      ]);
  };
  const by = { instrument: practice ? STAND_IN : instrument, author };
  const keep = (test: PowerTest, value: number) => {
    tell([toPowerEvent(test, test.id, value, by)]);
    setPicked(null);
  };
  const setWoken = (test: PowerTest, deviceId: string, isWoken: boolean) => {
    const words = `${sheet.devices[deviceId] ?? deviceId} ${isWoken ? 'woke' : 'did not wake'} with it: ${test.words}`;
    tell([toPowerEvent(test, toWokenId(test, deviceId), isWoken ? 1 : 0, { ...by, words })]);
  };
  const file = useListFile((table) => {
    const read = fromPowerReadings(sheet, table);
    setProblems(read.ok ? [] : read.problems);
    if (!read.ok) return;
    const byId = new Map(sheet.tests.map((test) => [test.id, test]));
    const toTest = (id: string) => byId.get(id) ?? sheet.tests.find((test) => id.startsWith(toWokenId(test, '')))!;
    const held = read.value.filter(({ test }) => !isFree(toTest(test), blocks));
    if (held.length > 0)
      return setProblems([
        { path: '', message: `${held.length} of its readings are with power on: ${blocks.map(({ words }) => words).join('; ')}` },
      ]);
    tell(
      read.value.map(({ test, value, instrument: own }) =>
        toPowerEvent(toTest(test), test, value, { ...by, instrument: own ?? by.instrument }),
      ),
    );
  });
  const fileProblems = problems.length > 0 ? problems : file.problems;
  const canRead = may && (practice !== null || instrument.trim() !== '');
  return (
    <div className={styles.prove}>
      <PowerHead jobId={jobId} pack={pack} store={store} state={power.state} />
      <div className={styles.tools}>
        <InstrumentField value={instrument} tools={pack.instruments} onChange={setInstrument} />
        <span className={styles.gap} />
        <Button variant="default" onClick={() => saveFile(`${pack.jobName} first power.csv`, toPowerCsv(sheet))}>
          Save the sheet
        </Button>
        {sheet.tests.some(isFileValue) && (
          <Button
            variant="default"
            disabled={practice !== null}
            onClick={() => saveFile(`${pack.jobName} values for the controller.csv`, toFileValuesCsv(sheet, proofs))}
          >
            Values for the controller
          </Button>
        )}
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
        <Button variant="default" disabled={!may} onClick={() => setStandIn(true)}>
          Stand-in vehicle
        </Button>
      </div>
      {practice && (
        <p className={styles.notice} role="note">
          Practice with the stand-in vehicle: made up, nothing is stored.{' '}
          <Button size="compact-sm" variant="default" onClick={() => setPractice(null)}>
            End the practice
          </Button>
        </p>
      )}
      {fileProblems.length > 0 && <ProblemList title={`${file.fileName} was not taken; nothing was stored`} problems={fileProblems} />}
      <main className={styles.bench}>
        <section className={styles.left}>
          <StopPanel jobId={jobId} pack={pack} sheet={sheet} power={power} may={canRead} onPick={setPicked} onWoken={setWoken} />
          {next && (
            <NextReading
              key={next.test.id}
              sheet={sheet}
              judged={next}
              canRead={canRead && isFree(next.test, blocks)}
              why={
                !may
                  ? `${author} may look, and reads nothing in.`
                  : isFree(next.test, blocks)
                    ? 'Say above what it is read with.'
                    : 'No power yet: see above what stands in its way.'
              }
              last={proofs.get(next.test.id) ?? null}
              onRead={(value) => keep(next.test, value)}
              onLeave={picked ? () => setPicked(null) : null}
            />
          )}
        </section>
        <PowerTable sheet={sheet} judged={judged} proofs={proofs} chosen={next?.test.id ?? null} onPick={setPicked} />
      </main>
      {isStandIn && (
        <StandInVehicle
          sheet={sheet}
          values={practice ? values : new Map()}
          onRead={(readings) =>
            tell(
              readings.map(({ test, readId, value }) => toPowerEvent(test, readId, value, { instrument: STAND_IN, author })),
              true,
            )
          }
          onClose={() => setStandIn(false)}
        />
      )}
    </div>
  );
}
