import { pushTo } from '../units';
import { ALL_WORK } from './createBuild';
import { createStep, MARKER, WIRE } from './createStep';
import { FINAL, ROUGH } from './listSteps';
import type { FloorKind } from './floor/kinds';
import type { Ask, Operation, Step, StepItem } from './step';
import { toDigest } from './toDigest';

/** What was ticked on the floor, as far as it decides what is done. */
export interface FloorTick {
  stepId: string;
  itemId: string;
  kind: FloorKind;
}

/** The steps of a loom in one revision, and what was ticked while the floor worked from it, in order. */
export interface RevisionWork {
  number: number;
  steps: readonly Step[];
  ticks: readonly FloorTick[];
}

/** A tick of an earlier revision that counts in this one. */
export interface CarriedTick {
  stepId: string;
  itemId: string;
  /** it was ticked in */
  revision: number;
}

/** Work that was done and is asked for otherwise now. */
export interface ReopenedItem extends CarriedTick {
  /** "sleeve 238 → 251 mm" */
  differences: string[];
  /** of a wire that is asked for in another length: the piece in hand that will do; null: there is none to speak of */
  serves: string | null;
}

/** Work that was done and that nothing asks for any more. */
export interface UndoItem {
  /** as its tick names it, under the step UNDO_STEP */
  id: string;
  title: string;
  /** what was done, the last first: the order to undo it in */
  done: string[];
  revision: number;
}

export interface CarriedWork {
  carried: CarriedTick[];
  reopened: ReopenedItem[];
  undo: UndoItem[];
}

/** Step that the ticks of undone work name. */
export const UNDO_STEP = 'undo';

/** How work is undone, by what it was; null: there is nothing to undo about it by itself. */
const UNDO_WORDS = {
  undo: null,
  cut: 'Take the wire out',
  twist: 'Untwist',
  mark: null,
  screen: 'Cut the opened end off',
  seal: 'Take the seal off',
  thread: 'Draw the wire back out of the housing',
  crimp: 'Cut the contact off',
  bunch: null,
  seat: 'Take the contact out of its cavity',
  ring: null,
  pot: 'Cut the resin out, or take a new device',
  wait: null,
  yes: null,
  visit: null,
  fabricate: null,
  plug: 'Take the plug out',
  lay: 'Take the branch off the board',
  splice: 'Cut the splice out',
  layup: 'Open the lay-up back to this layer',
  tie: 'Cut the ties off',
  photo: null,
  slide: 'Take the sleeve off',
  cover: 'Cut the covering open',
  fit: null,
  label: 'Take the label off',
  boot: 'Take what was slid on off again',
  shrink: 'Cut the label off',
  close: 'Cut open what was shrunk',
  test: null,
  depin: null,
  sign: null,
  torque: 'Take the nut off',
  clip: 'Take the clip off',
  route: 'Draw it back out of the hole',
} as const satisfies Record<Operation, string | null>;

/** An item as it was done. */
interface Done {
  key: string;
  step: Pick<Step, 'id' | 'operation' | 'title'>;
  item: StepItem;
  revision: number;
}

/**
 * What the work of earlier revisions comes to in the last one given (craft G9). A piece of work counts on where all that it asks for is the
 * same; it is open again with the difference where that changed, or where a wire in it has to be made anew; where it is gone it has to be
 * undone. What is built is what was ticked, in whichever revision: a piece that changed and changes back counts again.
 */
export function carryOver(revisions: readonly RevisionWork[]): CarriedWork {
  const built = new Map<string, Done>();
  for (const revision of revisions.slice(0, -1)) follow(built, revision);
  const last = revisions.at(-1);
  if (!last) return { carried: [], reopened: [], undo: [] };
  const { index, remade } = look(built, last.steps);
  const carried: CarriedTick[] = [];
  const reopened: ReopenedItem[] = [];
  for (const { key, step, item } of index.values()) {
    const done = built.get(key);
    if (!done) continue;
    const differences = [...listDifferences(done.item.asks, item.asks), ...listRemade(item, remade)];
    const tick = { stepId: step.id, itemId: item.id, revision: done.revision };
    if (differences.length > 0) reopened.push({ ...tick, differences, serves: findServing(done.item, step, item, built, remade) });
    else carried.push(tick);
  }
  return { carried, reopened, undo: listUndo(built, index).map(({ undo }) => undo) };
}

/** What has to be undone as a step of its own, before all others; null where nothing has to be. */
export function createUndoStep(undo: readonly UndoItem[]): Step | null {
  if (undo.length === 0) return null;
  const toItem = ({ id, title, done, revision }: UndoItem): StepItem => ({
    id,
    words: `${title}. Done in revision ${revision}, the last first: ${done.join(' · ')}`,
    asks: [],
    wireIds: [],
    cavity: null,
    reads: [],
    heldBecause: null,
  });
  return createStep(UNDO_STEP, 'undo', 'Undo what this revision does not ask for any more', { items: undo.map(toItem) });
}

/** The same piece of work in two revisions: a wire that comes off another reel is cut in another step. */
const toKey = ({ id, operation }: Pick<Step, 'id' | 'operation'>, item: StepItem) =>
  operation === 'cut' && item.wireIds.length === 1 && item.id === item.wireIds[0] ? `cut/${item.id}` : `${id}/${item.id}`;

function listWork(steps: readonly Step[]): Map<string, Omit<Done, 'revision'>> {
  const index = new Map<string, Omit<Done, 'revision'>>();
  for (const step of steps) for (const item of step.items) index.set(toKey(step, item), { key: toKey(step, item), step, item });
  return index;
}

/** What is built after the work of a revision. */
function follow(built: Map<string, Done>, { number, steps, ticks }: RevisionWork): void {
  const { index, remade } = look(built, steps);
  const undo = new Map(listUndo(built, index).map(({ undo: { id }, keys }) => [id, keys]));
  const byStep = new Map([...index.values()].map((one) => [`${one.step.id}/${one.item.id}`, one]));
  const undone = new Set<string>();
  const ticked = new Map<string, boolean>();
  for (const { stepId, itemId, kind } of ticks) {
    if (kind !== 'tick' && kind !== 'untick') continue;
    if (stepId === UNDO_STEP) {
      if (kind === 'tick') undone.add(itemId);
      else undone.delete(itemId);
    } else ticked.set(`${stepId}/${itemId}`, kind === 'tick');
  }
  for (const id of undone) for (const key of undo.get(id) ?? []) built.delete(key);
  const cut = [...ticked].flatMap(([at, isDone]) =>
    isDone && byStep.get(at)?.step.operation === 'cut' ? byStep.get(at)!.item.wireIds : [],
  );
  const anew = new Set(cut.filter((id) => remade.has(id)));
  // what the old wire was part of went with it when the new one was cut
  if (anew.size > 0) for (const [key, { item }] of built) if (item.wireIds.some((id) => anew.has(id))) built.delete(key);
  for (const [at, isDone] of ticked) {
    const one = byStep.get(at);
    if (!one) continue;
    if (isDone) built.set(one.key, { ...one, revision: number });
    else built.delete(one.key);
  }
}

function look(built: ReadonlyMap<string, Done>, steps: readonly Step[]) {
  const index = listWork(steps);
  return { index, remade: listRemadeWires(built, index) };
}

/** A length that every cut asks for. */
function readMm({ id, asks }: StepItem, name: string): number {
  const mm = findMm(asks, name);
  if (mm === null) throw new Error(`${id}: expected a length called ${name} among what it asks for, got none`);
  return mm;
}

const findMm = (asks: readonly Ask[], name: string): number | null => {
  const value = asks.find(({ what }) => what === name)?.value;
  return typeof value === 'number' ? value : null;
};

/** Wires that were cut and cannot become what is asked for now: of another make, or too short; with the reason. */
function listRemadeWires(built: ReadonlyMap<string, Done>, index: ReadonlyMap<string, Omit<Done, 'revision'>>): Map<string, string> {
  const remade = new Map<string, string>();
  for (const [key, { step, item }] of index) {
    const done = built.get(key);
    if (step.operation !== 'cut' || !done) continue;
    const changed = listDifferences(done.item.asks, item.asks).find((one) => one.startsWith(WIRE));
    const finalMm = readMm(item, FINAL);
    const thereMm = measureThere(done.item, built);
    const reason =
      changed ?? (finalMm > thereMm ? `${listNumbers(done.item).join(', ')} is ${thereMm} mm long and has to be ${finalMm} mm` : null);
    if (reason !== null) for (const wireId of item.wireIds) remade.set(wireId, reason);
  }
  return remade;
}

/** Length of a wire as it lies there, mm: as it was trimmed, else as it was cut. */
function measureThere(item: StepItem, built: ReadonlyMap<string, Done>): number {
  const trimmed = built.get('fit/trimmed')?.item.asks ?? [];
  const trimmedMm = listNumbers(item).flatMap((number) => findMm(trimmed, number) ?? []);
  return trimmedMm.length > 0 ? Math.max(...trimmedMm) : readMm(item, ROUGH);
}

function findServing(
  done: StepItem,
  { operation }: Pick<Step, 'operation'>,
  item: StepItem,
  built: ReadonlyMap<string, Done>,
  remade: ReadonlyMap<string, string>,
): string | null {
  if (operation !== 'cut' || item.wireIds.some((id) => remade.has(id))) return null;
  return `the piece in hand is ${measureThere(done, built)} mm long and will do for ${readMm(item, FINAL)} mm`;
}

const listNumbers = ({ asks }: StepItem) => asks.flatMap(({ what, value }) => (what.startsWith(MARKER) ? [String(value)] : []));

const listRemade = ({ wireIds }: StepItem, remade: ReadonlyMap<string, string>): string[] => [
  ...new Set(wireIds.flatMap((id) => (remade.has(id) ? [`made anew: ${remade.get(id)!}`] : []))),
];

/** What differs between what was asked for and what is, in words. */
export function listDifferences(before: readonly Ask[], now: readonly Ask[]): string[] {
  const was = new Map(before.map(({ what, value }) => [what, value]));
  const is = new Map(now.map(({ what, value }) => [what, value]));
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((what) => {
    const [a, b] = [was.get(what), is.get(what)];
    if (a === b) return [];
    if (what === ALL_WORK) return ['the loom has changed since'];
    if (a === undefined) return [`${what}${toWords(b!)} is new`];
    if (b === undefined) return [`no ${what}${toWords(a)}`];
    return [typeof a === 'number' && typeof b === 'number' ? `${what} ${a} → ${b} mm` : `${what}${toWords(a)} →${toWords(b) || ' none'}`];
  });
}

const toWords = (value: Ask['value']) => (typeof value === 'number' ? ` ${value} mm` : value === '' ? '' : ` ${value}`);

/** Work done that no item asks for, that of one wire together. */
function listUndo(
  built: ReadonlyMap<string, Done>,
  index: ReadonlyMap<string, Omit<Done, 'revision'>>,
): { undo: UndoItem; keys: string[] }[] {
  const wires = new Set([...index.values()].flatMap(({ item }) => item.wireIds));
  const groups = new Map<string, Done[]>();
  for (const [key, done] of built) {
    if (index.has(key)) continue;
    const { wireIds } = done.item;
    // one wire that is gone is taken out as a whole; what else is gone by itself
    const gone = wireIds.length === 1 && !wires.has(wireIds[0]!) ? `wire ${wireIds[0]!}` : key;
    pushTo(groups, gone, done);
  }
  return [...groups].flatMap(([group, list]) => {
    const [first] = list;
    const title = group === first!.key ? UNDO_WORDS[first!.step.operation] : `Remove ${listNumbers(first!.item).join(', ')}`;
    if (title === null) return [];
    return {
      keys: list.map(({ key }) => key),
      undo: {
        id: toDigest(group),
        title,
        done: list.map(({ step, item }) => (item.cavity === null ? step.title : `${step.title}, cavity ${item.cavity}`)).reverse(),
        revision: Math.max(...list.map(({ revision }) => revision)),
      },
    };
  });
}
