import { useEffect, useMemo, useRef, useState } from 'react';
import {
  compareIds,
  findStandard,
  listBreak,
  listOperations,
  measureBreak,
  toColourWords,
  type BreakArrangement,
  type BreakOrder,
  type Circuit,
  type Job,
  type LoomPlan,
  countWantedSpares,
  listBreakCurrents,
  toCount,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { arrange } from '../../client/arranger';
import { useJobStore } from '../../client/jobContext';
import { Pick } from '../../ui/fields/Pick';
import { NextAction } from '../../ui/NextAction';
import { Swatch } from '../../ui/Swatch';
import { FactTable } from '../../ui/table/FactTable';
import controls from '../../ui/controls.module.css';
import { GatherDialog } from './GatherDialog';

/** Breaks between looms, and how to make one: tails of a loom gathered at a connector. */
export function BreaksPanel({ planned, loomId }: { planned: { job: Job; looms: readonly LoomPlan[] }; loomId: string | undefined }) {
  const [isGathering, setGathering] = useState(false);
  return (
    <>
      <Breaks planned={planned} />
      {planned.looms.length > 0 && (
        <p className={controls.facts}>
          <button className={controls.button} onClick={() => setGathering(true)}>
            Gather tails at a connector …
          </button>
        </p>
      )}
      {isGathering && <GatherDialog {...planned} openId={loomId} onClose={() => setGathering(false)} />}
    </>
  );
}

/** Both faces of a break, cavity by cavity, colour to colour. */
function Breaks({ planned: { job, looms } }: { planned: { job: Job; looms: readonly LoomPlan[] } }) {
  const shop = useShop();
  const ids = Object.keys(job.mates).sort(compareIds);
  const [wanted, setWanted] = useState<string | null>(null);
  const id = wanted !== null && ids.includes(wanted) ? wanted : ids[0];
  if (id === undefined)
    return (
      <NextAction
        words="Where one loom plugs into another, both faces stand here cavity by cavity, with a better order where there is one. No two ends are mated yet."
        at="brief?tab=mates"
        action="Mate two ends in Brief"
      />
    );
  const { sides, rows, spare } = listBreak(job, shop, id);
  const isHoused = sides.every(({ loomId, endId }) => job.looms[loomId]!.ends[endId]!.familyId !== null);
  return (
    <div className={controls.facts}>
      <Pick
        label="Which break"
        value={id}
        options={ids.map((mate) => ({
          value: mate,
          label: `${job.looms[job.mates[mate]!.a.loomId]!.ends[job.mates[mate]!.a.endId]!.name} ↔ ${job.looms[job.mates[mate]!.b.loomId]!.ends[job.mates[mate]!.b.endId]!.name}`,
        }))}
        onChange={(value) => value && setWanted(value)}
      />
      {isHoused && <Order key={id} job={job} looms={looms} mateId={id} spare={spare.length} ways={rows.length + spare.length} />}
      <p className="faint">The same cavity on both faces. Seen from the wire side the other half is mirrored: go by the numbers.</p>
      <FactTable label="Both faces">
        <thead>
          <tr>
            <th>cavity</th>
            {sides.map(({ words }) => (
              <th key={words}>{words}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ cavity, circuits: [one, other] }) => (
            <tr key={cavity} className={one && other ? '' : controls.alarm}>
              <td className="mono">{cavity}</td>
              <Face circuit={one} prefix={sides[0].prefix} />
              <Face circuit={other} prefix={sides[1].prefix} />
            </tr>
          ))}
        </tbody>
      </FactTable>
    </div>
  );
}

/** How the wires lie in the face, what stays to spare, and a better order to be had. */
function Order({ job, looms, mateId, spare, ways }: { job: Job; looms: readonly LoomPlan[]; mateId: string; spare: number; ways: number }) {
  const shop = useShop();
  const store = useJobStore();
  const now = useMemo(() => measureBreak(job, shop, mateId), [job, shop, mateId]);
  const [found, setFound] = useState<{ job: Job; arrangement: BreakArrangement } | { job: Job; failure: string } | null>(null);
  const [isLooking, setLooking] = useState(false);
  const giveUp = useRef<() => void>(() => undefined);
  useEffect(() => () => giveUp.current(), []);
  const wanted = countWantedSpares(ways, findStandard(job, shop));
  const look = () => {
    setLooking(true);
    giveUp.current = arrange({ job, shop, mateId, currents: listBreakCurrents(job, looms, mateId) }, (answer) => {
      setLooking(false);
      setFound({ job, ...answer });
    });
  };
  // what was found for another state of the job says nothing of this one
  const fresh = found?.job === job ? found : null;
  return (
    <div>
      <p className={spare < wanted ? controls.alarm : undefined}>
        {spare} of {ways} cavities to spare{spare < wanted && `; the shop keeps ${wanted}`}. {toOrderWords(now)}
      </p>
      {isLooking ? (
        <p role="status">
          Looking for a better order …{' '}
          <button
            className={controls.button}
            onClick={() => {
              giveUp.current();
              setLooking(false);
            }}
          >
            Stop
          </button>
        </p>
      ) : (
        <p>
          <button className={controls.button} onClick={look}>
            Find a better order
          </button>
        </p>
      )}
      {fresh && 'failure' in fresh && <p className={controls.alarm}>{fresh.failure}</p>}
      {fresh && 'arrangement' in fresh && (
        <Proposal
          arrangement={fresh.arrangement}
          onTake={() => store.push(`rearrange ${fresh.arrangement.moves.length} cavities`, listOperations(job, fresh.arrangement.next))}
        />
      )}
    </div>
  );
}

function Proposal({ arrangement: { before, after, moves }, onTake }: { arrangement: BreakArrangement; onTake: () => void }) {
  if (moves.length === 0) return <p>No swap of two cavities would make it better.</p>;
  return (
    <section aria-label="Better order">
      <p>
        {toCount(moves.length, 'wire moves', 'wires move')}: crossings {before.crossings} → {after.crossings}, power beside sensors{' '}
        {before.mixed} → {after.mixed}
        {before.splitPairs + after.splitPairs > 0 && `, split pairs ${before.splitPairs} → ${after.splitPairs}`}.
      </p>
      <p className={controls.caution}>Wires that are crimped and pinned already have to be pulled and pinned again.</p>
      <p>
        <button className={controls.button} onClick={onTake}>
          Take it
        </button>
      </p>
      <FactTable label="Moves">
        <tbody>
          {moves.map(({ from, to, name }) => (
            <tr key={from}>
              <td className="mono">
                {from} → {to}
              </td>
              <td>{name}</td>
            </tr>
          ))}
        </tbody>
      </FactTable>
    </section>
  );
}

const toOrderWords = ({ crossings, splitPairs, mixed }: BreakOrder) =>
  [
    crossings === 0
      ? 'No wire has to come out through another.'
      : `${crossings} crossings, in both looms: a wire that leaves first lies deeper than one that leaves later.`,
    splitPairs > 0 ? `${splitPairs} twisted partners are not beside each other.` : '',
    mixed > 0 ? `Power lies beside sensors or data ${mixed} times.` : '',
  ].join(' ');

function Face({ circuit, prefix }: { circuit: Circuit | null; prefix: string }) {
  if (!circuit) return <td>nothing here</td>;
  return (
    <td>
      <Swatch colour={circuit.colour} words={false} /> <span className="mono">{`${prefix}-${circuit.number}`}</span> {circuit.name}
      <span className="faint"> {toColourWords(circuit.colour)}</span>
    </td>
  );
}
