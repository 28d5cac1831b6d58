import type { CrimpSeries } from '../crimp';
import { CURE } from '../steps/listPotSteps';
import type { Operation, Step, StepItem } from '../step';
import type { MilestoneNeeds } from './listNeeds';

/** A loom with what is done of it, and what all of it takes. */
export interface MilestoneLoom {
  loomId: string;
  name: string;
  steps: readonly Step[];
  /** by step and item, min */
  minutes: ReadonlyMap<string, number>;
  /** its crimps by how they are made; those alone that are proved by samples */
  crimps: readonly Pick<CrimpSeries, 'id' | 'places'>[];
  isDone: (stepId: string, itemId: string) => boolean;
}

/** A step that a milestone waits for. */
export interface WorkLeft {
  loomId: string;
  step: Step;
  /** what can be done, and what is held */
  items: StepItem[];
  held: StepItem[];
  /** of both, min */
  minutes: number;
}

/** How far a vehicle is from a milestone. */
export interface MilestoneReading {
  work: WorkLeft[];
  /** wires not made yet: loom, and its wires by id */
  openWires: { loomId: string; wireIds: string[] }[];
  /** what its open steps need, step by step */
  parts: { loomId: string; step: Step; words: string }[];
  /** why work is held, each once */
  held: string[];
  /** kinds of crimps that are left to make: each wants a first-off of whoever makes it, in each session, beside the work */
  firstOffs: number;
  /** what one person has left to do, first-offs apart, min */
  workMin: number;
  /** along the longest chain of steps that wait for one another, cures with it, min: with as many hands as can be used */
  shortestMin: number;
  /** of that, what cures, min */
  cureMin: number;
}

/** What makes a wire carry: the rest of the work is for the loom to last, not for it to run. */
const JOINING: ReadonlySet<Operation> = new Set<Operation>([
  ...(['cut', 'twist', 'screen', 'seal', 'crimp', 'bunch', 'seat', 'ring', 'splice', 'torque'] as const),
]);

/** What is left of a vehicle until a milestone. */
export function readMilestone({ wires }: Pick<MilestoneNeeds, 'wires'>, looms: readonly MilestoneLoom[]): MilestoneReading {
  const work: WorkLeft[] = [];
  const openWires: MilestoneReading['openWires'] = [];
  const toProve = new Set<string>();
  let chain = NO_CHAIN;
  for (const loom of looms) {
    const needed = wires && new Set(wires.flatMap((id) => (id.startsWith(`${loom.loomId}/`) ? [id.slice(loom.loomId.length + 1)] : [])));
    if (needed?.size === 0) continue;
    const left = listLeft(loom, needed);
    work.push(...left.filter(({ items, held }) => items.length + held.length > 0));
    const open = new Set(
      left.flatMap(({ step, items, held }) => (JOINING.has(step.operation) ? [...items, ...held].flatMap((item) => item.wireIds) : [])),
    );
    const wireIds = [...open].filter((id) => needed === null || needed.has(id));
    if (wireIds.length > 0) openWires.push({ loomId: loom.loomId, wireIds });
    const leftItems = new Set(left.flatMap(({ step, items, held }) => [...items, ...held].map(({ id }) => `${step.id} ${id}`)));
    for (const { id, places } of loom.crimps)
      if (places.some(({ stepId, itemId }) => leftItems.has(`${stepId} ${itemId}`))) toProve.add(id);
    chain = toLonger(chain, measureChain(left));
  }
  return {
    work,
    openWires,
    parts: work.flatMap(({ loomId, step }) => [...new Set(step.parts)].map((words) => ({ loomId, step, words }))),
    held: [...new Set(work.flatMap(({ held }) => held.map(({ heldBecause }) => heldBecause!)))],
    firstOffs: toProve.size,
    workMin: work.reduce((sum, { minutes }) => sum + minutes, 0),
    shortestMin: chain.minutes,
    cureMin: chain.cureMin,
  };
}

/** Steps of a loom that a milestone asks for, with what is left of each; in their order. needed: ids of wires; null: everything. */
function listLeft({ loomId, steps, minutes, isDone }: MilestoneLoom, needed: ReadonlySet<string> | null): WorkLeft[] {
  const isAsked = ({ wireIds }: StepItem) => needed === null || wireIds.length === 0 || wireIds.some((id) => needed.has(id));
  const asked = needed === null ? null : listAsked(steps, needed);
  return steps.flatMap((step) => {
    if (asked && !asked.has(step.id)) return [];
    // a loom is rung out as a whole before it gets power
    const open = step.items.filter((item) => !isDone(step.id, item.id) && (step.operation === 'test' || isAsked(item)));
    const left = open.reduce((sum, { id }) => sum + minutes.get(`${step.id} ${id}`)!, 0);
    const held = open.filter(({ heldBecause }) => heldBecause !== null);
    return [{ loomId, step, items: open.filter(({ heldBecause }) => heldBecause === null), held, minutes: left }];
  });
}

/** Steps that join these wires, and all that has to be done before; what is to be undone; and the test. */
function listAsked(steps: readonly Step[], needed: ReadonlySet<string>): Set<string> {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const isOf = ({ operation, items }: Step) => JOINING.has(operation) && items.some(({ wireIds }) => wireIds.some((id) => needed.has(id)));
  const asked = new Set(steps.filter(isOf).map(({ id }) => id));
  for (const id of asked) for (const { stepId } of byId.get(id)!.needs) if (byId.has(stepId)) asked.add(stepId);
  // and what is gone from the loom comes out of it first
  for (const { id, operation } of steps) if (operation === 'test' || operation === 'undo') asked.add(id);
  return asked;
}

/** How long steps take that wait for one another, min; what of it cures. */
interface Chain {
  minutes: number;
  cureMin: number;
}
const NO_CHAIN: Chain = { minutes: 0, cureMin: 0 };
const toLonger = (a: Chain, b: Chain): Chain => (b.minutes > a.minutes ? b : a);

/** The longest chain of steps that wait for one another; a test waits for all that is asked for before it. */
function measureChain(left: readonly WorkLeft[]): Chain {
  const ends = new Map<string, Chain>();
  let longest = NO_CHAIN;
  // in the order of a build what is needed stands before what needs it
  for (const { step, items, held, minutes } of left) {
    const before =
      step.operation === 'test' ? longest : step.needs.reduce((most, { stepId }) => toLonger(most, ends.get(stepId) ?? NO_CHAIN), NO_CHAIN);
    const cureMin = items.length + held.length > 0 && step.operation === 'wait' ? 60 * findHours(step) : 0;
    const end = { minutes: before.minutes + minutes + cureMin, cureMin: before.cureMin + cureMin };
    ends.set(step.id, end);
    longest = toLonger(longest, end);
  }
  return longest;
}

const findHours = ({ items }: Step): number =>
  items.flatMap(({ asks }) => asks).reduce((sum, { what, value }) => (what === CURE && typeof value === 'number' ? sum + value : sum), 0);
