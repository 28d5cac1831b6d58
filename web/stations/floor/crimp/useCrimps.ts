import { useMemo } from 'react';
import {
  CRIMP_STEP,
  dropOvertaken,
  findBar,
  followCrimps,
  isCrimpStep,
  listShort,
  toPlaceKey,
  toToolGate,
  toToolWords,
  type Changeover,
  type CrimpDeed,
  type CrimpPlace,
  type CrimpStates,
  type Loom,
  type Quarantine,
  type SampleSet,
  type SeriesState,
  type ShortCrimp,
  type Step,
  type ToolGate,
} from 'wattograph-core';
import type { FloorStore, Happened } from '../../../client/floor/floorStore';
import type { Crimping } from '../../../client/floor/useFloorStore';
import type { FloorEvent } from '../../../server/floorEvent';

/** A series of crimps in a step: how it stands, its tool, and why the next crimp of it waits. */
export interface CrimpLine {
  state: SeriesState;
  gate: ToolGate;
  bar: string | null;
}

/** How the crimps of a loom are proved on this page. */
export interface Crimps extends Pick<CrimpStates, 'quarantines'> {
  sampling: Crimping['sampling'];
  /** of a step, in its order */
  listLines: (stepId: string) => CrimpLine[];
  /** by step and item: why it cannot be crimped now */
  bars: ReadonlyMap<string, string>;
  /** by step and item: what a bad sample takes back */
  refused: ReadonlyMap<string, Quarantine>;
  /** where a crimp is: the end, or the splices, with the loom where it is another one */
  toWhere: (place: CrimpPlace) => string;
  /** by step and item: made more often than length was kept for */
  short: ReadonlyMap<string, ShortCrimp>;
  /** series that no sample stands for though all of them are made */
  unproved: CrimpLine[];
  /** photo: of them, before they were pulled apart; endId: where they were made */
  keepSamples: (line: CrimpLine, set: SampleSet, photo: Blob | null, endId: string | null) => void;
  /** by which the picture of the samples that count now is found; null: there are none */
  findPhotoId: (line: CrimpLine) => string | null;
  /** words: what does not pass; empty: it does */
  keepGauge: (line: CrimpLine, words: string) => void;
  keepChangeover: (line: CrimpLine, what: Changeover) => void;
  /** go on without samples, or with the tool as it is: the planner reads why at the step */
  goWithout: (line: CrimpLine, step: Pick<Step, 'id'>, why: string) => void;
}

/** Crimps of a loom that a bad sample takes back, by step and item. */
export const toRefused = (quarantines: readonly Quarantine[], loomId: string): ReadonlyMap<string, Quarantine> =>
  new Map(
    quarantines.flatMap((one) =>
      one.places.flatMap((place): [string, Quarantine][] => (place.loomId === loomId ? [[toKey(place), one]] : [])),
    ),
  );

const toKey = ({ stepId, itemId }: { stepId: string; itemId: string }) => `${stepId} ${itemId}`;

/** What was told of crimps in this revision, as it came about. Samples are of a tool, on whichever loom. */
export const toCrimpDeeds = (events: readonly FloorEvent[]): CrimpDeed[] =>
  dropOvertaken(events.filter(({ stepId }) => stepId === CRIMP_STEP || isCrimpStep(stepId))).map((event) => ({
    ...event,
    atMs: Date.parse(event.happenedAt),
  }));

export function useCrimps(
  store: FloorStore,
  events: readonly FloorEvent[],
  { series, elsewhere, sampling, kept, tools, earlier }: Crimping,
  { loom, loomId, author, nowMs }: { loom: Loom; loomId: string; author: string; nowMs: number },
): Crimps {
  const deeds = useMemo(() => [...earlier, ...toCrimpDeeds(events)], [earlier, events]);
  const { states, quarantines, sessionMs } = useMemo(
    () => followCrimps(series, deeds, { author, nowMs, standard: sampling }),
    [series, deeds, author, nowMs, sampling],
  );
  const lines = useMemo(
    () =>
      states.map((state): CrimpLine => {
        const gate = toToolGate(tools[state.series.tool]!, deeds, author, sessionMs);
        return { state, gate, bar: findBar(state, gate) };
      }),
    [states, tools, deeds, author, sessionMs],
  );
  const bars = useMemo(
    () =>
      new Map(
        lines.flatMap(({ state, bar }) => (bar === null ? [] : state.series.places.map((place): [string, string] => [toKey(place), bar]))),
      ),
    [lines],
  );
  const refused = useMemo(() => toRefused(quarantines, loomId), [quarantines, loomId]);
  const short = useMemo(
    () => new Map(listShort(series, deeds, loom, kept).map((one): [string, ShortCrimp] => [one.key, one])),
    [series, deeds, loom, kept],
  );
  const tell = (kind: 'sample' | 'gauge' | 'changeover', itemId: string, words: string, samples?: SampleSet): Happened => ({
    ...{ loomId, stepId: CRIMP_STEP, itemId, kind, words, author },
    ...(samples ? { samples } : {}),
  });
  return {
    sampling,
    quarantines,
    bars,
    refused,
    short,
    toWhere: ({ loomId: of, endId }) =>
      of !== loomId ? (elsewhere[toPlaceKey({ loomId: of, endId })] ?? of) : endId === null ? 'splices' : (loom.ends[endId]?.name ?? endId),
    listLines: (stepId) => lines.filter(({ state }) => state.series.places.some((place) => place.stepId === stepId)),
    unproved: lines.filter(({ state }) => state.isUnproved && (state.due === 'last' || state.due === null)),
    keepSamples: ({ state: { series: of } }, set, blob, endId) => {
      const datum = Object.keys(loom.nodes).find((id) => loom.nodes[id]!.kind === 'datum')!;
      const node = (endId === null ? undefined : loom.ends[endId]?.nodeId) ?? datum;
      store.addWithPhoto(
        tell('sample', of.id, '', set),
        blob && { blob, node, caption: `Samples: ${of.contactName} on ${of.wires}, ${toToolWords(of)}` },
      );
    },
    findPhotoId: ({ state: { series: of, last } }) =>
      (last && deeds.findLast(({ kind, itemId, atMs }) => kind === 'sample' && itemId === of.id && atMs === last.atMs)?.id) ?? null,
    keepGauge: ({ gate }, words) => store.add(tell('gauge', gate.tool.name, words)),
    keepChangeover: ({ state }, what) => store.add(tell('changeover', state.series.id, what)),
    goWithout: ({ state }, step, why) =>
      store.addMany([
        tell('sample', state.series.id, why, { reason: 'none', samples: [], pullTester: '', heightGauge: null }),
        { loomId, stepId: step.id, itemId: 'step', kind: 'problem', words: `crimped without samples: ${why}`, author },
      ]),
  };
}
