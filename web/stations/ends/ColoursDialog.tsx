import { Modal, SegmentedControl, Table } from '@mantine/core';
import { useEffect, useState } from 'react';
import {
  findStandard,
  KIND_WORDS,
  recolour,
  toColourWords,
  toCount,
  type Colour,
  type ColourProposal,
  type SchemeProposal,
  type ShopStandard,
} from 'wattograph-core';
import { proposeLooks } from '../../client/colourer';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { Swatch } from '../../ui/Swatch';
import controls from '../../ui/controls.module.css';
import type { ColoursAnswer } from '../../workers/colours.worker';
import { ColourByHand } from './ColourByHand';
import styles from './Ends.module.css';

/** so many of those that a circuit is taken for tell what is meant */
const MOST_NAMED = 3;

const SCHEME_WORDS = {
  function: 'by function',
  'one-colour': 'one colour, by their print',
  bands: 'by bands on one colour',
  'box-leads': 'as the leads of boxes',
  'factory-leads': 'as the factory has them',
} as const satisfies Record<ShopStandard['colourScheme'], string>;

type Way = 'least' | 'scheme' | 'hand';

/** What a loom would look like, by one way of choosing or the other. */
interface Shown {
  changes: readonly { circuitId: string; from: Colour; to: Colour; why: string }[];
  pairsLeft: number;
  sums: string;
}

/** Wires that are taken for one beside them: the least change after which none is, the whole loom by the shop's scheme, or one circuit by hand. */
export function ColoursDialog({ planned, onClose }: { planned: PlannedLoom; onClose: () => void }) {
  const shop = useShop();
  const [way, setWay] = useState<Way>('least');
  const standard = findStandard(planned.job, shop);
  return (
    <Modal opened onClose={onClose} title="Colours of wires" size="xl">
      <SegmentedControl
        aria-label="How they are chosen"
        size="xs"
        value={way}
        onChange={(value) => setWay(value as Way)}
        data={[
          { value: 'least', label: 'Least change' },
          { value: 'scheme', label: `Whole loom, ${SCHEME_WORDS[standard.colourScheme]}` },
          { value: 'hand', label: 'One by hand' },
        ]}
      />
      {way === 'hand' ? <ColourByHand planned={planned} onClose={onClose} /> : <Proposed planned={planned} way={way} onClose={onClose} />}
    </Modal>
  );
}

/** What a worker found, with what it was asked by: an answer to an older question is not shown. */
interface Asked {
  planned: PlannedLoom;
  way: Exclude<Way, 'hand'>;
  answer: ColoursAnswer;
}

/** Asked for in a worker; what it proposes is shown when it is there. */
function Proposed({ planned, way, onClose }: { planned: PlannedLoom; way: Exclude<Way, 'hand'>; onClose: () => void }) {
  const shop = useShop();
  const [asked, setAsked] = useState<Asked | null>(null);
  useEffect(() => {
    const { job, plan } = planned;
    const { looms, mates, standardId, brief } = job;
    return proposeLooks({ job: { looms, mates, standardId, brief }, plan, shop, way }, (answer) => setAsked({ planned, way, answer }));
  }, [planned, shop, way]);
  const answer = asked?.planned === planned && asked.way === way ? asked.answer : null;
  if (answer === null)
    return (
      <>
        <p role="status">Comparing the wires that lie beside one another …</p>
        <DialogEnd onClose={onClose} words="Take these colours" isReady={false} />
      </>
    );
  if ('failure' in answer) return <p className={controls.alarm}>Colours could not be compared: {answer.failure}.</p>;
  return (
    <Proposal
      planned={planned}
      shown={answer.way === 'least' ? showLeast(planned, answer.proposal) : showScheme(planned, answer.proposal)}
      way={way}
      onClose={onClose}
    />
  );
}

function Proposal({
  planned,
  shown,
  way,
  onClose,
}: {
  planned: PlannedLoom;
  shown: Shown;
  way: Exclude<Way, 'hand'>;
  onClose: () => void;
}) {
  const store = useJobStore();
  const { loom, loomId, plan } = planned;
  const { changes, pairsLeft, sums } = shown;
  const numbers = (circuitId: string) =>
    [...new Set(plan.wires.filter((wire) => wire.circuitId === circuitId).map(({ number }) => number))].join(', ');
  const take = () => {
    store.edit(recolour(loomId, new Map(changes.map(({ circuitId, to }) => [circuitId, to]))));
    onClose();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <p>{sums}</p>
      {pairsLeft > 0 && (
        <p>
          <b>{toCount(pairsLeft, 'pair')} stay alike</b>: more wires are together there than the shop has looks that are apart, or a cable
          or a reason of somebody holds them. They go by their printed numbers.
        </p>
      )}
      {changes.length > 0 && (
        <Table aria-label="Circuits in another colour" className={styles.colours}>
          <thead>
            <tr>
              <th>circuit</th>
              <th>wires</th>
              <th>now</th>
              <th>then</th>
              <th>{way === 'least' ? 'is taken for' : 'is for'}</th>
            </tr>
          </thead>
          <tbody>
            {changes.map(({ circuitId, from, to, why }) => (
              <tr key={circuitId}>
                <td>{loom.circuits[circuitId]!.name}</td>
                <td>{numbers(circuitId)}</td>
                <td>
                  <Swatch colour={from} />
                </td>
                <td>
                  <Swatch colour={to} />
                </td>
                <td>{why}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <p className="faint">
        Compared by CIEDE2000, to most eyes and as those see them who see red or green weakly. What counts as apart, which colours are in
        stock, and how wires are told apart is in the house style of the shop; a job may depart from it under Brief.
      </p>
      <DialogEnd onClose={onClose} words="Take these colours" isReady={changes.length > 0} />
    </form>
  );
}

const toReels = (before: number, after: number) =>
  before === after ? `${toCount(before, 'reel')} as before` : `${before} reels become ${after}`;

function showLeast({ loom }: PlannedLoom, { changes, left, isLeast, reelsBefore, reelsAfter }: ColourProposal): Shown {
  const toLikeWords = (ids: readonly string[]) => {
    const words = ids.slice(0, MOST_NAMED).map((id) => `${loom.circuits[id]!.name} (${toColourWords(loom.circuits[id]!.colour)})`);
    return `${words.join(', ')}${ids.length > MOST_NAMED ? ` and ${ids.length - MOST_NAMED} more` : ''}`;
  };
  return {
    changes: changes.map(({ circuitId, from, to, likeIds }) => ({ circuitId, from, to, why: toLikeWords(likeIds) })),
    pairsLeft: left.length,
    sums:
      changes.length === 0 && left.length === 0
        ? `No wire is taken for one beside it, in any housing or close to any breakout. ${toCount(reelsBefore, 'reel')}.`
        : `${toCount(changes.length, 'circuit')} in another colour${isLeast ? ', no smaller change does' : ''}; ${toReels(reelsBefore, reelsAfter)}.`,
  };
}

function showScheme({ loom }: PlannedLoom, { changes, left, reelsBefore, reelsAfter, bands }: SchemeProposal): Shown {
  const rings =
    bands === 0
      ? ''
      : ` ${toCount(bands, 'band')} to put on: at both ends of each wire and on either side of each breakout that it passes.`;
  return {
    changes: changes.map(({ circuitId, from, to }) => ({ circuitId, from, to, why: KIND_WORDS[loom.circuits[circuitId]!.kind] })),
    pairsLeft: left.length,
    sums:
      changes.length === 0
        ? `Every circuit has a look of the scheme. ${toCount(reelsBefore, 'reel')}.${rings}`
        : `${toCount(changes.length, 'circuit')} in another colour; ${toReels(reelsBefore, reelsAfter)}.${rings}`,
  };
}
