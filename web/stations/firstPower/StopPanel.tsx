import { Button } from '@mantine/core';
import { Link } from '../../ui/Link';
import { explainPower, isPowered, listWoken, toCount, type FirstPower, type JudgedTest, type PowerTest } from 'wattograph-core';
import { Pick } from '../../ui/fields/Pick';
import styles from '../prove/Prove.module.css';
import type { FirstPowerPack } from './firstPowerPack';
import { toBandWords, toPowerWords } from './powerWords';
import type { PowerState } from './useFirstPower';

/** How the vehicle stands: what stopped the sheet and where to look, what stands in the way of power, or how far it is. */
export function StopPanel({
  jobId,
  pack,
  sheet,
  power,
  may,
  onPick,
  onWoken,
}: {
  jobId: string;
  pack: FirstPowerPack;
  sheet: FirstPower;
  power: PowerState;
  may: boolean;
  onPick: (testId: string) => void;
  onWoken: (test: PowerTest, deviceId: string, isWoken: boolean) => void;
}) {
  const { judged, blocks, values, proofs, isSham } = power;
  const passed = judged.tests.filter(({ verdict }) => verdict === 'passed').length;
  const voided = judged.tests.filter(({ test }) => proofs.get(test.id)?.voidBecause).length;
  const isDone = passed + judged.later.length === judged.tests.length;
  const fed = judged.tests.filter(({ test }) => test.part === 'feeds' && values.has(test.id)).at(-1);
  return (
    <>
      <div className={`${styles.verdict} ${judged.failed.length > 0 ? styles.bad : isDone ? styles.good : ''}`}>
        <h2>
          {judged.failed.length > 0
            ? 'Stop: power off'
            : isDone
              ? judged.later.length > 0
                ? 'The vehicle is proved as far as it can be, standing'
                : 'The vehicle is proved'
              : passed === 0
                ? 'Nothing is read yet'
                : `${passed} of ${judged.tests.length} read, no surprise`}
        </h2>
        <p>
          {toCount(judged.tests.length, 'reading')} in {judged.parts.length} parts
          {voided > 0 && `; ${voided} were read before something was done over`}
          {sheet.untold > 0 &&
            `; of ${toCount(sheet.untold, 'cavity', 'cavities')} nothing is told: a sensor’s own output, or a switch that is not said`}
          .
        </p>
        {sheet.absent.length > 0 && (
          <p>Not there yet, so that what asks for it says so and is not chased: {sheet.absent.map(({ words }) => words).join('; ')}.</p>
        )}
        {judged.later.length > 0 && (
          <p>
            Open until their condition is there:{' '}
            {judged.later.map(({ test }) => `${test.words} (${test.note.replace(/\.$/, '')})`).join('; ')}.
          </p>
        )}
        {isSham && (
          <p className={styles.alarm}>
            ▲ There are readings of the stand-in among these: they say nothing of this vehicle and prove nothing.
          </p>
        )}
      </div>
      {blocks.length > 0 && (
        <section aria-label="No power yet" className={styles.fault}>
          <h3>No power yet</h3>
          <p>Without power the feed, the grounds and the buses may be read. All else waits for:</p>
          <ul className={styles.seeks}>
            {blocks.map(({ words, loomId }) => (
              <li key={`${loomId} ${words}`}>
                {words} <Link href={`/jobs/${jobId}/prove?loom=${loomId}&release=${pack.release}`}>to it</Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      {judged.failed.length > 0 && (
        <section aria-label="What surprised" className={styles.faults}>
          {judged.failed.map((one) => (
            <Surprise
              key={one.test.id}
              sheet={sheet}
              one={one}
              words={explainPower(sheet, judged, one, values)}
              woken={listWoken(one.test, values)}
              may={may}
              onPick={onPick}
              onWoken={onWoken}
            />
          ))}
        </section>
      )}
      {judged.failed.length === 0 && fed && judged.next && isPowered(judged.next.test.part) && judged.next.test.part === 'feeds' && (
        <WokenPick sheet={sheet} test={fed.test} may={may} onWoken={onWoken} label={`Something else woke with ${fed.test.name}`} />
      )}
    </>
  );
}

function Surprise({
  sheet,
  one: { test, value, least, most },
  words,
  woken,
  may,
  onPick,
  onWoken,
}: {
  sheet: FirstPower;
  one: JudgedTest;
  words: readonly string[];
  woken: readonly string[];
  may: boolean;
  onPick: (testId: string) => void;
  onWoken: (test: PowerTest, deviceId: string, isWoken: boolean) => void;
}) {
  return (
    <div className={styles.fault}>
      <h3>
        {test.words}: {toPowerWords(value!, test.unit)}
      </h3>
      <p>passes: {toBandWords({ test, least, most })}</p>
      {words.map((line) => (
        <p key={line}>{line}</p>
      ))}
      {test.part === 'feeds' && (
        <>
          {woken.map((id) => (
            <Button key={id} size="compact-md" variant="default" disabled={!may} onClick={() => onWoken(test, id, false)}>
              {sheet.devices[id] ?? id} did not wake after all
            </Button>
          ))}
          <WokenPick sheet={sheet} test={test} may={may} onWoken={onWoken} label={`What else woke with ${test.name}`} />
        </>
      )}
      <Button variant="default" onClick={() => onPick(test.id)}>
        Read it again
      </Button>
    </div>
  );
}

/** Which device woke with a feed that should have left it asleep. */
const WokenPick = ({
  sheet,
  test,
  may,
  onWoken,
  label,
}: {
  sheet: FirstPower;
  test: PowerTest;
  may: boolean;
  onWoken: (test: PowerTest, deviceId: string, isWoken: boolean) => void;
  label: string;
}) => (
  <span>
    {label}:{' '}
    <Pick
      label={label}
      value={null}
      none="nothing"
      disabled={!may}
      options={Object.entries(sheet.devices)
        .filter(([id]) => !test.wakes.includes(id))
        .map(([value, name]) => ({ value, label: name }))}
      onChange={(id) => id && onWoken(test, id, true)}
    />
  </span>
);
