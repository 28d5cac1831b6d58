import type { ShopStandard } from '../../../catalogue';
import type { Job } from '../../../model';
import type { LoomPlan, PlannedWire } from '../../types';
import { COPPER_G_PER_MM2_M } from '../../heat/measureHeat';
import { measureOpening } from '../protection/fuse';
import type { TransientInputs } from './measureTransient';
import type { PlannedLoad, PlannedProtection, PowerPlan } from '../types';

/** What happens within seconds: it starts, it is stuck, it is shorted, the engine is cranked. */
export type EventKind = 'start' | 'stuck' | 'short' | 'cranking';

/** Heat of a stretch of bundle until a time after the start, W/m with the copper at 20 °C. */
export interface EventStage {
  untilS: number;
  wattsPerMAt20: number;
}

/** A stretch of bundle through which an event's current flows; its mass is that of the wires that carry it: in seconds the others stay behind. */
export interface EventRun extends Omit<TransientInputs, 'wattsPerMAt20' | 'seconds' | 'breaksS'> {
  loomId: string;
  segmentId: string;
  wireId: string;
  stages: EventStage[];
  /** what the weakest insulation of them stands for good, and for a short time, °C */
  limitC: number;
  shortC: number;
}

export interface LoadEvent {
  kind: EventKind;
  loadId: string;
  /** largest that the load draws in it, A */
  currentA: number;
  /** fuse or channel that has to end it; null: none before it */
  guardId: string | null;
  /** when that opens; null: not at this current, or there is none */
  opens: { shortestS: number; longestS: number } | null;
  seconds: number;
  runs: EventRun[];
  /** its inrush is not given: what it draws at first is not in it */
  lacksInrush: boolean;
  /** runs that lie in no known zone: nothing can be said of them */
  unknown: number;
}

/** Why nothing can be computed. */
export type EventGap = 'inrush' | 'fault' | 'no-starter' | 'no-motor' | 'no-mode' | 'unfed';

/** Past this it is a steady state. */
const LONGEST_S = 1800;
/** How long a short is followed that nothing ends: long enough to see what it does to the wire. */
const UNENDED_S = 120;

/**
 * What an event of a load makes of every stretch of its own wires (calculations 4 and 5): from the temperature of the worst mode, the
 * load draws its inrush, its locked current until its fuse has opened at the latest, what a short at it draws, or what it draws while
 * cranked for so long (crankS). A stuck motor draws what it draws as it starts.
 */
export function createEvent(
  { job, looms, power }: { job: Pick<Job, 'modes'>; looms: readonly LoomPlan[]; power: PowerPlan },
  standard: ShopStandard,
  load: PlannedLoad,
  kind: EventKind,
  crankS: number,
): LoadEvent | EventGap {
  if (load.steps.length === 0) return 'unfed';
  const currentA = findCurrent(load, kind);
  if (typeof currentA === 'string') return currentA;
  const during = kind === 'cranking' ? findCranking(job, power) : null;
  if (kind === 'cranking' && during === null) return 'no-mode';
  const guard = findGuard(load, power.protections);
  const opening =
    guard && guard.ratingA !== null ? measureOpening((currentA + measureOthers(guard, load)) / guard.ratingA, guard.tripS) : null;
  const opens = opening && Number.isFinite(opening.longestS) ? opening : null;
  const inrushS = (load.inrushMs ?? 0) / 1000;
  const seconds = {
    start: Math.max(2, 20 * inrushS),
    stuck: opens ? Math.max(1, 1.6 * opens.longestS) : LONGEST_S,
    short: opens ? Math.max(0.2, 1.6 * opens.longestS) : UNENDED_S,
    cranking: 3 * crankS,
  }[kind];
  const drawn: { untilS: number; currentA: number }[] = {
    start: [
      { untilS: inrushS, currentA },
      { untilS: Infinity, currentA: load.currentA },
    ],
    stuck: [{ untilS: opens?.longestS ?? Infinity, currentA }, ...(opens ? [{ untilS: Infinity, currentA: 0 }] : [])],
    short: [{ untilS: opens?.longestS ?? Infinity, currentA }, ...(opens ? [{ untilS: Infinity, currentA: 0 }] : [])],
    cranking: [
      { untilS: Math.min(inrushS, crankS), currentA },
      { untilS: crankS, currentA: load.currentA },
      { untilS: Infinity, currentA: 0 },
    ],
  }[kind];
  const { runs, unknown } = listRuns(looms, power.modeIds, standard, load, drawn, during);
  return {
    kind,
    loadId: load.id,
    currentA,
    guardId: guard?.id ?? null,
    opens,
    seconds,
    runs,
    lacksInrush: kind === 'cranking' && load.inrushA === null,
    unknown,
  };
}

function findCurrent(load: PlannedLoad, kind: EventKind): number | EventGap {
  if (kind === 'short') return load.faultA ?? 'fault';
  if (kind === 'stuck' && load.load !== 'motor' && load.load !== 'starter') return 'no-motor';
  if (kind === 'cranking' && load.load !== 'starter') return 'no-starter';
  if (kind === 'cranking') return load.inrushA ?? load.currentA;
  return load.inrushA === null || (kind === 'start' && load.inrushMs === null) ? 'inrush' : load.inrushA;
}

/** The cranking mode in which most is drawn, as a place in the plan's modes; null: the job has none. */
function findCranking(job: Pick<Job, 'modes'>, { modeIds, sourceA }: PowerPlan): number | null {
  const drawn = (mode: number) => sourceA?.on[mode] ?? 0;
  return modeIds.reduce<number | null>(
    (most, id, mode) => (job.modes[id]!.engine === 'cranking' && (most === null || drawn(mode) > drawn(most)) ? mode : most),
    null,
  );
}

/** The fuse or channel nearest to a load. */
export const findGuard = (load: PlannedLoad, protections: readonly PlannedProtection[]): PlannedProtection | null =>
  load.linkIds.map((id) => protections.find((one) => one.id === id)!).findLast(({ kind }) => kind === 'fuse' || kind === 'channel') ?? null;

/** What else flows through a fuse in the mode in which that is least: the fuse is slowest then. */
const measureOthers = (guard: PlannedProtection, load: PlannedLoad) =>
  Math.max(0, Math.min(...guard.onA.map((value, mode) => value - load.onA[mode]!)));

function listRuns(
  looms: readonly LoomPlan[],
  modeIds: readonly string[],
  standard: ShopStandard,
  load: PlannedLoad,
  drawn: readonly { untilS: number; currentA: number }[],
  /** mode in which it happens; null: the worst of each stretch, as it begins */
  during: number | null,
): { runs: EventRun[]; unknown: number } {
  const runs: EventRun[] = [];
  let unknown = 0;
  for (const loom of looms) {
    // its own way from the box that feeds it, and back as far as nobody else's current is in it; a starter has its whole circuit
    const own = new Set(
      load.steps.flatMap(({ loomId, wireId, way, counts, currentA }) =>
        loomId === loom.loomId &&
        wireId !== null &&
        counts &&
        (way === 'out' || load.load === 'starter' || currentA <= load.currentA * 1.001)
          ? [wireId]
          : [],
      ),
    );
    if (own.size === 0) continue;
    const byId = new Map(loom.wires.map((wire, index) => [wire.id, { wire, current: loom.currents[index]! }]));
    loom.bundles.forEach(({ segmentId, sections, odMm }, index) => {
      const inside = sections.filter(({ elements }) => elements.some((ids) => ids.some((id) => own.has(id))));
      if (inside.length === 0) return;
      const heat = loom.heats.find((one) => one.segmentId === segmentId);
      if (!heat || heat.middleC === null) return void (unknown += 1);
      const mode = during ?? (heat.modeId === null ? null : modeIds.indexOf(heat.modeId));
      const wallMm = loom.coverings[index]!.odOutsideMm - odMm;
      // the thinnest stretch gives off least
      const section = inside.reduce((thin, one) => (one.odMm < thin.odMm ? one : thin));
      const here = section.elements.flat().map((id) => byId.get(id)!);
      const carrying = here.filter(({ wire }) => own.has(wire.id));
      const usual = (current: (typeof here)[number]['current']) => (mode === null ? 0 : current.heatA[mode]!);
      const others = here.reduce((sum, { wire, current }) => (own.has(wire.id) ? sum : sum + toWatts(wire, usual(current))), 0);
      const stages = drawn.map(({ untilS, currentA }): EventStage => {
        const more = currentA - (mode === null ? 0 : load.heatA[mode]!);
        return {
          untilS,
          wattsPerMAt20: carrying.reduce((sum, { wire, current }) => sum + toWatts(wire, Math.max(0, usual(current) + more)), others),
        };
      });
      const copper = (wire: PlannedWire) => wire.conductor.areaMm2 * COPPER_G_PER_MM2_M;
      runs.push({
        loomId: loom.loomId,
        segmentId,
        wireId: carrying.reduce((thin, one) => (one.wire.conductor.areaMm2 < thin.wire.conductor.areaMm2 ? one : thin)).wire.id,
        ambientC: heat.ambientC,
        startC: heat.middleC,
        bundleMm: section.odMm,
        outsideMm: section.odMm + wallMm,
        altitudeM: standard.altitudeM,
        copperGPerM: carrying.reduce((sum, { wire }) => sum + copper(wire), 0),
        insulationGPerM: carrying.reduce((sum, { wire }) => sum + Math.max(0, wire.conductor.massGPerM - copper(wire)), 0),
        stages,
        limitC: Math.min(...here.map(({ wire }) => standard.insulationLimitC[wire.conductor.table]!)),
        shortC: Math.min(...here.map(({ wire }) => standard.insulationShortC[wire.conductor.table]!)),
      });
    });
  }
  return { runs, unknown };
}

const toWatts = ({ conductor }: PlannedWire, currentA: number) => (currentA ** 2 * conductor.r20MilliohmPerM) / 1000;
