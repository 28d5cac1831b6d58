import { Button, Input } from '@mantine/core';
import { useState } from 'react';
import { isPassing, toOpen, toPassWords, toReadingWords, type Probe, type Proof, type ProofTest } from 'wattograph-core';
import { FacePicture } from '../../ui/FacePicture';
import { readQuantity } from '../../ui/fields/readQuantity';
import { Swatch } from '../../ui/Swatch';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';

interface Asked {
  pack: ProvePack;
  test: ProofTest;
  isSeek: boolean;
  canRead: boolean;
  /** why nothing can be read in */
  why: string;
  last: Proof | null;
  onRead: (value: number) => void;
  onLeave: (() => void) | null;
}

/** One measurement, in type that is read across a bench: where each probe goes, what passes, and the field for what the meter shows. */
export function NextMeasurement({ pack, test, isSeek, canRead, why, last, onRead, onLeave }: Asked) {
  const [typed, setTyped] = useState('');
  const value = /^(ol|open)$/i.test(typed.trim()) && test.unit !== 'MΩ' ? toOpen(test) : (readQuantity(typed, test.unit) ?? NaN);
  const isGood = Number.isFinite(value) && value >= 0;
  const read = (one: number) => {
    if (canRead) onRead(one);
  };
  const net = pack.ringOut.nets.find(({ id }) => id === test.netId);
  return (
    <section aria-label="Next measurement" className={styles.next}>
      <h2>
        {isSeek ? 'To tell what is wrong' : test.kind === 'isolate' ? 'Isolation' : test.kind === 'part' ? 'Across a part' : 'Does it join'}
        {net && <span> {net.name}</span>}
      </h2>
      <div className={styles.probes}>
        <ProbeCard pack={pack} colour="black" probe={test.from} />
        {test.to ? (
          <ProbeCard pack={pack} colour="red" probe={test.to} />
        ) : (
          <div className={styles.probe}>
            <b>red on all others</b>
            <span>every other net tied together, no box and no sensor plugged in</span>
          </div>
        )}
      </div>
      {test.kind === 'isolate' && (
        <p className={styles.caution}>
          {pack.ringOut.isolationVolts} V direct: hands off the loom while it is on, discharge it before you unclip. The maker’s
          instructions and local codes come first.
        </p>
      )}
      {test.atA !== null && (
        <p className={styles.caution}>
          Four-wire at {test.atA} A from a limited supply, never the bare battery. The maker’s instructions and local codes come first.
        </p>
      )}
      <p className={styles.pass}>
        {test.expected !== null && test.kind !== 'part' && <>expected {toReadingWords(test, test.expected)}, </>}
        {isSeek ? toPassWords(test) : `passes: ${toPassWords(test)}`}
      </p>
      <form
        className={styles.entry}
        onSubmit={(event) => {
          event.preventDefault();
          if (isGood) read(value);
        }}
      >
        <Input
          variant="unstyled"
          autoFocus
          aria-label={`Reading, ${test.unit}`}
          inputMode="decimal"
          placeholder={test.unit === 'Ω' ? '0.019, 19 mΩ, OL' : test.unit}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <span>{test.unit}</span>
        <Button type="submit" size="md" disabled={!isGood || !canRead}>
          Keep
        </Button>
        {test.unit !== 'MΩ' && (
          <Button size="md" variant="default" disabled={!canRead} onClick={() => read(toOpen(test))}>
            OL, open
          </Button>
        )}
        {onLeave && (
          <Button size="md" variant="subtle" onClick={onLeave}>
            Leave it
          </Button>
        )}
      </form>
      {!canRead && <p className={styles.alarm}>{why}</p>}
      {last && (
        <p className={styles.last}>
          last read {toReadingWords(test, last.value)} with {last.instrument} by {last.author}
          {last.voidBecause !== null
            ? `; void: ${last.voidBecause}`
            : !isSeek && !isPassing(test, last.value)
              ? '; outside what passes'
              : ''}
        </p>
      )}
    </section>
  );
}

/** Where a probe goes, in words and on the face. */
function ProbeCard({ pack, colour, probe }: { pack: ProvePack; colour: 'black' | 'red'; probe: Probe }) {
  const { job, plan, families } = pack;
  const end = job.looms[plan.loomId]!.ends[probe.endId]!;
  const family = end.familyId === null ? undefined : families[end.familyId];
  const wires = plan.terminations.find(({ endId, cavity }) => endId === probe.endId && cavity === probe.cavity)?.wireIds ?? [];
  const shown = plan.wires.filter(({ id }) => wires.includes(id));
  const colourAt = (cavity: string) => {
    const [wireId] = plan.terminations.find((one) => one.endId === probe.endId && one.cavity === cavity)?.wireIds ?? [];
    return plan.wires.find(({ id }) => id === wireId)?.colour ?? null;
  };
  return (
    <div className={styles.probe}>
      <b>
        {colour} on {end.name}
      </b>
      <strong>{end.kind === 'connector' ? probe.cavity : end.kind}</strong>
      {shown.map(({ id, number, colour: look }) => (
        <span key={id} className={styles.wire}>
          <Swatch colour={look} /> {number}
        </span>
      ))}
      {shown.length === 0 && <span>nothing belongs there</span>}
      {family && end.kind === 'connector' && (
        <>
          <FacePicture family={family} side="mating" colourAt={colourAt} chosen={probe.cavity} className={styles.face} />
          <span className={styles.seen}>from the mating side</span>
        </>
      )}
    </div>
  );
}
