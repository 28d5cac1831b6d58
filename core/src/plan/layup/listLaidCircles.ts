import { pushTo } from '../../units';
import type { Circle, PlannedFiller, PlannedLayup } from '../types';
import type { Thread } from './layupTypes';

/** An element of a lay-up cut through: y downwards, 12 o'clock at the top, seen from the datum. */
export interface LaidCircle extends Circle {
  /** from the core outwards */
  layer: number;
  slot: number;
  /** wires that lie there; none: dead wire */
  wireIds: readonly string[];
  /** null: dead wire all along */
  threadId: string | null;
  takeUp: number;
  /** g/m of the dead wire; null: none */
  fillerMassGPerM: number | null;
  /** over its layer, mm */
  outerOdMm: number;
  deg: number;
}

interface Index {
  byId: ReadonlyMap<string, Thread>;
  /** dead wire by stretch, layer and slot */
  bySlot: ReadonlyMap<string, readonly PlannedFiller[]>;
}

/** made once for a lay-up: it is cut through again and again */
const indices = new WeakMap<readonly PlannedFiller[], Index>();

function findIndex(threads: readonly Thread[], fillers: readonly PlannedFiller[]): Index {
  const known = indices.get(fillers);
  if (known) return known;
  const bySlot = new Map<string, PlannedFiller[]>();
  for (const filler of fillers) pushTo(bySlot, `${filler.stretch} ${filler.layer} ${filler.slot}`, filler);
  const index = { byId: new Map(threads.map((thread) => [thread.id, thread])), bySlot };
  indices.set(fillers, index);
  return index;
}

/** A strip cut through so far along it, mm: what lies there, and the angle that the twist has brought it to. */
export function listLaidCircles(
  { marks, stretches, threads, fillers }: Pick<PlannedLayup, 'marks' | 'stretches' | 'threads' | 'fillers'>,
  mm: number,
): LaidCircle[] {
  const index = stretches.findLastIndex(({ fromMark }) => marks[fromMark]!.mm <= mm + 1e-9);
  const { fromMark, layers } = stretches[Math.max(0, index)]!;
  const { byId, bySlot } = findIndex(threads, fillers);
  const alongMm = mm - marks[fromMark]!.mm;
  const isHere = (from: number, to: number) =>
    marks[from]!.mm <= mm + 1e-9 && mm < marks[to]!.mm + (to === marks.length - 1 ? 1e-9 : -1e-9);
  return layers.flatMap(({ hand, layMm, outerOdMm, slots, ...life }, layer) => {
    if (!isHere(life.fromMark, life.toMark)) return [];
    return slots.map((one, slot): LaidCircle => {
      const { threadId, odMm, pitchRadiusMm, startDeg, takeUp } = one;
      const turned = layMm === null ? 0 : ((hand === 'right' ? 1 : -1) * 360 * alongMm) / layMm;
      const deg = (((startDeg + turned) % 360) + 360) % 360;
      const [x, y] = [pitchRadiusMm * Math.sin((deg * Math.PI) / 180), -pitchRadiusMm * Math.cos((deg * Math.PI) / 180)];
      const part = threadId === null ? undefined : byId.get(threadId)!.parts.find((part) => isHere(part.fromMark, part.toMark));
      const dead = part
        ? undefined
        : bySlot.get(`${Math.max(0, index)} ${layer} ${slot}`)?.find(({ fromMm, toMm }) => fromMm <= mm + 1e-9 && mm <= toMm + 1e-9);
      const fillerMassGPerM = part ? null : (dead?.conductor.massGPerM ?? 0);
      const r = (part || !dead ? odMm : Math.min(odMm, dead.conductor.odMm)) / 2;
      return { x, y, r, layer, slot, wireIds: part?.wireIds ?? [], threadId, takeUp, fillerMassGPerM, outerOdMm, deg };
    });
  });
}
