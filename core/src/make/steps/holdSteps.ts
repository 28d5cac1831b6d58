import { isHeldFromCutting, listCoverHolds, type Hold, type PlannedWire } from '../../plan';
import { pushTo } from '../../units';
import type { HoldOperation } from '../../model';
import type { StepContext } from '../createStep';
import type { Operation, Step, StepItem } from '../step';

/** The doubt that stops each kind of work, beside one that stops the cut: a wire that is not there is not worked on. null: no other. */
const STOPPED_BY: Readonly<Record<Operation, Exclude<HoldOperation, 'cut' | 'energise'> | null>> = {
  undo: null,
  cut: null,
  twist: null,
  mark: null,
  screen: 'crimp',
  seal: 'crimp',
  thread: null,
  crimp: 'crimp',
  bunch: 'crimp',
  seat: 'seat',
  plug: null,
  ring: null,
  pot: 'seat',
  wait: null,
  yes: null,
  visit: null,
  fabricate: null,
  lay: null,
  splice: 'splice',
  layup: null,
  tie: null,
  photo: null,
  slide: null,
  cover: 'cover',
  fit: null,
  label: 'cover',
  boot: 'cover',
  shrink: 'cover',
  close: 'seat',
  test: null,
  depin: null,
  sign: null,
  route: null,
  clip: null,
  torque: 'crimp',
};

/**
 * The steps with what holds each of their items (craft G1): a doubt stops the work that it names, at the end that it names, and nothing
 * that comes before. A run is not closed while a wire is still to be laid in it.
 */
export function holdSteps(context: StepContext, steps: readonly Step[]): Step[] {
  const listPlaceWords = createPlaceWords(context);
  return steps.map((step) => {
    const place = listPlaceWords(step);
    const items = step.items.map((item) => {
      const because = [...place, ...listWireWords(context, step, item)];
      return because.length === 0 ? item : { ...item, heldBecause: because.join('; ') };
    });
    return items.some((item, at) => item !== step.items[at]) ? { ...step, items } : step;
  });
}

/** What holds an item by its wires: "N-222: length to knock sensor only guessed". */
function listWireWords({ wires }: StepContext, step: Step, item: StepItem): string[] {
  return item.wireIds.flatMap((id) => {
    const { number, heldBy } = wires.get(id)!;
    if (heldBy.length === 0) return [];
    const words = toWords(heldBy.filter((one) => one.stops === 'cut' || isStopped(one, step, item)));
    return words === '' ? [] : [`${number}: ${words}`];
  });
}

/** What may not be crimped is not seated either; a contact at the other end of the wire is another one. */
function isStopped(one: Hold, { operation, endId }: Step, { cavity }: StepItem): boolean {
  const level = STOPPED_BY[operation];
  if (level === 'splice') return one.stops === 'splice';
  if (level !== 'crimp' && level !== 'seat') return false;
  if (one.stops !== level && !(level === 'seat' && one.stops === 'crimp')) return false;
  if (one.endId !== null && one.endId !== endId) return false;
  // a guessed pin is one cavity: a wire that comes back to the same end has another one there
  return one.kind !== 'pin' || cavity === null || one.id === `${endId} ${cavity}`;
}

/** Looks up why what is put over a run or an end waits: an open item there, or, over a run, a wire that is not laid in it yet. */
function createPlaceWords({ job, plan }: StepContext): (step: Step) => string[] {
  const covers = listCoverHolds(job, plan.loomId);
  const ofCircuits = new Map<string, Hold[]>();
  const missing = new Map<string, PlannedWire[]>();
  const none: Hold[] = [];
  for (const wire of plan.wires) {
    if (wire.heldBy.length === 0) continue;
    const isMissing = isHeldFromCutting(wire);
    const ofCircuit = covers.get(`circuit ${wire.circuitId}`) ?? none;
    for (const id of new Set(wire.pieces.map(({ segmentId }) => segmentId))) {
      if (isMissing) pushTo(missing, id, wire);
      for (const one of ofCircuit) pushTo(ofCircuits, id, one);
    }
  }
  return ({ operation, segmentId, endId }) => {
    if (STOPPED_BY[operation] !== 'cover' || (segmentId === null && endId === null)) return [];
    const here = [
      ...(covers.get('loom') ?? none),
      ...(segmentId === null ? none : [...(covers.get(`segment ${segmentId}`) ?? none), ...(ofCircuits.get(segmentId) ?? none)]),
      ...(endId === null ? none : (covers.get(`end ${endId}`) ?? none)),
    ];
    const absent = operation === 'cover' && segmentId !== null ? (missing.get(segmentId) ?? []) : [];
    return [
      ...new Set(here.map(({ words }) => words)),
      ...absent.map(
        ({ number, heldBy }) => `${number} is still to be laid in it: ${toWords(heldBy.filter(({ stops }) => stops === 'cut'))}`,
      ),
    ];
  };
}

const toWords = (holds: readonly Hold[]) => holds.map(({ words }) => words).join(', ');
