'use client';

import { memo, useMemo, useState } from 'react';
import {
  listLaidCircles,
  pinLayer,
  toClockWords,
  toLayerWords,
  toThreadWords,
  type Colour,
  type LaidCircle,
  type LaidLayer,
  type LoomPlan,
  type PlannedLayup,
  type Thread,
} from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursorStore, useLit } from '../../ui/cursor';
import { Pick } from '../../ui/fields/Pick';
import { askReason } from '../../ui/fields/askReason';
import { Swatch } from '../../ui/Swatch';
import { toSigned } from '../../ui/toSigned';
import styles from './Layup.module.css';

/** The layers of a lay-up from one of its marks to the next, from the core outwards, each in its order round from 12 o'clock. */
export const LayerList = memo(function LayerList({
  planned,
  layup,
  mark,
  isSearching,
}: {
  planned: PlannedLoom;
  layup: PlannedLayup;
  mark: number;
  isSearching: boolean;
}) {
  const { plan } = planned;
  const stretch = layup.stretches.find(({ fromMark, toMark }) => fromMark <= mark && mark < toMark)!;
  const circles = listLaidCircles(layup, layup.marks[mark]!.mm);
  const startMm = plan.tree.segments[layup.id]!.startMm;
  const names = useMemo(() => nameWires(plan), [plan]);
  const threads = useMemo(() => new Map(layup.threads.map((thread) => [thread.id, thread])), [layup]);
  return (
    <div className={styles.layers} aria-label="Layers at the cursor" role="group">
      <p className="faint">From {Math.round(startMm + layup.marks[mark]!.mm)} mm, seen from the datum, in order from 12 o’clock</p>
      {stretch.layers.map((layer, index) => {
        const here = circles.filter((circle) => circle.layer === index);
        return here.length === 0 ? null : (
          <Layer key={index} names={names} threads={threads} layer={layer} index={index} circles={here} mark={mark} />
        );
      })}
      <Pinned planned={planned} layup={layup} layers={stretch.layers} isSearching={isSearching} />
    </div>
  );
});

interface WireNames {
  numbers: ReadonlyMap<string, string>;
  colours: ReadonlyMap<string, Colour>;
}

const nameWires = ({ wires }: LoomPlan): WireNames => ({
  numbers: new Map(wires.map(({ id, number }) => [id, number])),
  colours: new Map(wires.map(({ id, colour }) => [id, colour])),
});

const HAND = { right: 'right-hand ↻', left: 'left-hand ↺' } as const;

function Layer({
  names,
  threads,
  layer,
  index,
  circles,
  mark,
}: {
  names: WireNames;
  threads: ReadonlyMap<string, Thread>;
  layer: LaidLayer;
  index: number;
  circles: readonly LaidCircle[];
  mark: number;
}) {
  const cursor = useCursorStore();
  const lit = useLit();
  const inOrder = [...circles].sort((a, b) => a.deg - b.deg);
  return (
    <section aria-label={toLayerWords(index)}>
      <h3>
        {toLayerWords(index)}
        <span className="faint">
          {layer.hand === null
            ? ', not twisted'
            : `, ${HAND[layer.hand]}, lay ${layer.layMm!.toFixed(1)} mm, ${(100 / layer.layMm!).toFixed(2)} turns per 100 mm`}
          , {layer.outerOdMm.toFixed(1)} mm
        </span>
      </h3>
      <p>
        {inOrder.map(({ slot, wireIds, threadId, deg, fillerMassGPerM, r }) => {
          const first = wireIds[0];
          if (first === undefined)
            return (
              <span
                key={slot}
                className={styles.dead}
                title={`dead wire ${(2 * r).toFixed(2)} mm at ${toClockWords(deg)}`}
                data-dead={fillerMassGPerM !== null}
              >
                dead
              </span>
            );
          return (
            <button
              type="button"
              key={slot}
              aria-pressed={lit !== null && wireIds.includes(lit)}
              title={`at ${toClockWords(deg)}: show it on the strip`}
              onClick={() => cursor.light(lit === first ? null : first)}
            >
              <Swatch colour={names.colours.get(first)!} words={false} />
              {toThreadWords(threads.get(threadId!)!, names.numbers, mark)}
            </button>
          );
        })}
      </p>
    </section>
  );
}

/** What the wire that is lit does, where it is pinned, and what the pin costs. */
function Pinned({
  planned,
  layup,
  layers,
  isSearching,
}: {
  planned: PlannedLoom;
  layup: PlannedLayup;
  layers: readonly LaidLayer[];
  isSearching: boolean;
}) {
  const store = useJobStore();
  const lit = useLit();
  const [before, setBefore] = useState<Sums | null>(null);
  const { loom, loomId, plan } = planned;
  const numbers = new Map(plan.wires.map(({ id, number }) => [id, number]));
  const thread = layup.threads.find(({ parts }) => parts.some(({ wireIds }) => lit !== null && wireIds.includes(lit)));
  if (!thread)
    return (
      <p className="faint">
        Choose a wire above, on the strip or in the section: where it comes up, and what it costs to lay it elsewhere.
      </p>
    );
  const layer = layers.findIndex(({ slots }) => slots.some(({ threadId }) => threadId === thread.id));
  const slot = layers[layer]?.slots.find(({ threadId }) => threadId === thread.id);
  const name = toThreadWords(thread, numbers, thread.from.mark);
  const pin = loom.layerPins[thread.id] ?? null;
  const now = toSums(layup, plan.bundles.find(({ segmentId }) => segmentId === layup.id)!.odMm);
  const place = layup.marks[thread.to.mark]!;
  const put = (value: string | null) => {
    setBefore(now);
    if (value === null) store.edit(pinLayer(loomId, thread.id, name, null));
    else
      askReason(`Why ${name} in ${toLayerWords(Number(value))}?`, (reason) =>
        store.edit(pinLayer(loomId, thread.id, name, { layer: Number(value), reason })),
      );
  };
  return (
    <div className={styles.pinned}>
      <b>{name}</b> {layer < 0 ? 'does not lie here' : `lies in ${toLayerWords(layer)}`}
      {place.nodeId !== null && `, ends at ${loom.nodes[place.nodeId]!.name}`}
      {slot && slot.offSideDeg !== null && `, comes up ${slot.offSideDeg.toFixed(0)}° off its branch’s side`}.{' '}
      <Pick
        label={`Layer of ${name}`}
        value={pin === null ? null : String(pin.layer)}
        none="where it is best"
        options={layers.map((_, index) => ({ value: String(index), label: `pinned to ${toLayerWords(index)}` }))}
        onChange={put}
      />
      {pin !== null && layer >= 0 && pin.layer !== layer && layup.by === 'search' && (
        <span className={styles.alarm}> It cannot be laid there on this stretch.</span>
      )}
      {before !== null && !isSearching && layup.by === 'search' && (
        <span role="status" aria-label="What the pin costs">
          {' '}
          {toDifference(before, now)}
        </span>
      )}
      {before !== null && layup.by !== 'search' && <span className={styles.alarm}> Search again to see what it costs.</span>}
    </div>
  );
}

interface Sums {
  crossings: number;
  fillers: number;
  odMm: number;
}

const toSums = ({ crossings, fillers }: PlannedLayup, odMm: number): Sums => ({
  crossings: crossings.length,
  fillers: fillers.length,
  odMm,
});

function toDifference(before: Sums, now: Sums): string {
  const crossed = toSigned(now.crossings - before.crossings, 0);
  const dead = toSigned(now.fillers - before.fillers, 0);
  return `Against before: ${crossed} crossed, ${dead} pieces of dead wire, ${toSigned(now.odMm - before.odMm, 1)} mm at its start.`;
}
