import { createPlanner } from '../plan';
import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo';
import { keepWires } from './keepWires';

const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const { wires } = createPlanner(CATALOGUE)(createSkerry()).looms.find(({ loomId }) => loomId === 'chassis')!;
/** the same, every object of the plan's own made anew */
const anew = () => wires.map((wire) => ({ ...copy(wire), conductor: wire.conductor }));

/** Every value that a document is made of, with the way to it. */
const listLeaves = (value: unknown, path: (string | number)[] = []): (string | number)[][] =>
  typeof value === 'object' && value !== null ? Object.entries(value).flatMap(([key, one]) => listLeaves(one, [...path, key])) : [path];

function turn(document: object, path: readonly (string | number)[]): void {
  const [last, ...before] = [...path].reverse();
  let at = document as Record<string, unknown>;
  for (const key of before.reverse()) at = at[key] as Record<string, unknown>;
  const value = at[last!];
  at[last!] = typeof value === 'number' ? value + 1 : typeof value === 'string' ? `${value}!` : 'another';
}

test('wires that say the same stay the objects that they were', () => {
  const kept = keepWires(wires, anew());
  expect(kept.every((wire, at) => wire === wires[at])).toBe(true);
});

test('a wire of which anything says something else is the new one, whatever it is', () => {
  const kinds = [
    wires.find(({ cable }) => cable)!,
    wires.find(({ from }) => from.kind === 'splice')!,
    wires.find(({ to }) => to.kind === 'cavity')!,
  ];
  for (const wire of kinds) {
    const leaves = listLeaves({ ...wire, heldBy: [{ kind: 'guess', id: 's1' }] });
    expect(leaves.length).toBeGreaterThan(40);
    for (const path of leaves) {
      const before = { ...copy(wire), heldBy: [{ kind: 'guess', id: 's1' }] as unknown as typeof wire.heldBy };
      const now = copy(before);
      if (path[0] !== 'conductor') now.conductor = before.conductor;
      turn(now, path);
      expect([path.join('.'), keepWires([before], [now])[0] === now]).toEqual([path.join('.'), true]);
    }
    for (const list of ['pieces', 'addends'] as const) {
      const longer = { ...wire, [list]: [...wire[list], wire[list][0]] };
      expect(keepWires([wire], [longer])[0]).toBe(longer);
    }
  }
});

test('of a list that got longer those that were there stay', () => {
  const [first, ...others] = anew();
  expect(keepWires([wires[0]!], [first!, ...others])[0]).toBe(wires[0]);
  expect(keepWires(undefined, others)).toEqual(others);
});
