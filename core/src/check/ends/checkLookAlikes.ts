import { findFamily } from '../../catalogue';
import type { ConnectorFamily, Loom } from '../../model';
import { assignKeys, measureReaches, type Neighbours } from '../../plan';
import { compareIds, pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

interface Pair extends Neighbours {
  a: string;
  b: string;
}

/**
 * EN3, check: two like housings with like keys of which each reaches the other's device, or which hang next to one another along the loom; note
 * where the same circuits lie in both. EN9, note: like housings of which one reaches the other's device and not the reverse, kind by kind.
 */
export const checkLookAlikes: Rule = (context) =>
  listAlike(context.loom).flatMap((alike) => {
    const pairs = listPairs(context, alike);
    const close = pairs.filter((pair) => isClose(context, pair));
    const oneWay = pairs.filter((pair) => !close.includes(pair) && pair.clipped.kind === 'mis-plug' && !isHarmless(context.loom, pair));
    return [
      ...close.map((pair) => toCloseFinding(context, pair, pairs)),
      ...(oneWay.length > 0 ? [toOneWayFinding(context, alike, oneWay)] : []),
    ];
  });

/** Ends with like housings and like keys, two and more. */
function listAlike(loom: Loom): string[][] {
  const groups = new Map<string, string[]>();
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const { familyId, key, kind } = loom.ends[endId]!;
    if (kind === 'connector' && familyId !== null) pushTo(groups, `${familyId} ${key}`, endId);
  }
  return [...groups.values()].filter(({ length }) => length > 1);
}

const listPairs = ({ loom, plan }: RuleContext, alike: readonly string[]): Pair[] =>
  alike.flatMap((a, index) => alike.slice(index + 1).map((b) => ({ a, b, ...measureReaches(loom, plan.tree, a, b) })));

const isClose = ({ standard }: RuleContext, { apartMm, clipped }: Pair) => apartMm <= standard.lookAlikeReachMm || clipped.kind === 'swap';

/** Is it all one which of the two is where: the same circuits in the same cavities? */
function isHarmless({ circuits }: Loom, { a, b }: Pair): boolean {
  const wiring = (endId: string) =>
    Object.entries(circuits)
      .flatMap(([id, { terminations }]) => terminations.flatMap((one) => (one.endId === endId ? [`${one.cavity} ${id}`] : [])))
      .sort()
      .join(',');
  const here = wiring(a);
  return here !== '' && here === wiring(b);
}

function toCloseFinding(context: RuleContext, pair: Pair, pairs: readonly Pair[]): Finding {
  const { loom, loomId, standard } = context;
  const { a, b, apartMm, clipped } = pair;
  const family = familyOf(context, b);
  const near = pairs
    .filter((one) => (one.a === b || one.b === b) && isClose(context, one))
    .map((one) => loom.ends[one.a === b ? one.b : one.a]!.key);
  const key = family.keys.find((one) => one !== loom.ends[b]!.key && !near.includes(one));
  const harmless = isHarmless(loom, pair);
  const [nameA, nameB] = [loom.ends[a]!.name, loom.ends[b]!.name];
  const reach =
    clipped.kind === 'swap' ? 'each reaches the device of the other' : clipped.kind === 'mis-plug' ? toOneWayWords(loom, pair) : null;
  const cure = harmless ? 'The same circuits lie in both: no harm done.' : toCure(context, pair, key);
  return createFinding(
    context,
    'EN3',
    [
      { kind: 'end', id: a },
      { kind: 'end', id: b },
    ],
    `${nameA} and ${nameB} are alike (${family.name}) and ${Math.round(apartMm)} mm apart along the loom${reach ? `, ${reach}` : ''}: they can be swapped. ${cure}`,
    {
      ...(harmless ? { grade: 'note' } : {}),
      measured: apartMm,
      limit: standard.lookAlikeReachMm,
      fix: key === undefined || harmless ? null : { label: `Key ${nameB} ${key}`, patch: [toKeyPatch(loomId, b, key)] },
    },
  );
}

const MOST_NAMED = 3;

function toOneWayFinding(context: RuleContext, alike: readonly string[], oneWay: readonly Pair[]): Finding {
  const { loom, loomId } = context;
  const family = familyOf(context, alike[0]!);
  const named = oneWay.slice(0, MOST_NAMED).map((pair) => toOneWayWords(loom, pair));
  const rest = oneWay.length - named.length;
  const ends = alike.filter((id) => oneWay.some(({ a, b }) => a === id || b === id));
  const keyOf = new Map(ends.map((id) => [id, loom.ends[id]!.key]));
  const keys = assignKeys(
    ends,
    oneWay.map(({ a, b }) => [a, b] as const),
    family.keys,
    keyOf,
  );
  const changes = keys === null ? [] : ends.filter((id) => keys.get(id) !== keyOf.get(id));
  return createFinding(
    context,
    'EN9',
    ends.map((id) => ({ kind: 'end', id })),
    `Alike (${family.name}${keyOf.get(ends[0]!) ? `, ${keyOf.get(ends[0]!)}` : ''}): ${named.join('; ')}${rest > 0 ? `; and ${rest} more` : ''}. ${oneWay.length === 1 ? toCure(context, oneWay[0]!, undefined) : ''}${changes.length > 0 ? ` ${changes.length} other ${changes.length === 1 ? 'key keeps' : 'keys keep'} them apart.` : keys === null ? ' Keys alone do not keep all of them apart.' : ''}`
      .replace(/ {2,}/g, ' ')
      .trim(),
    {
      measured: oneWay.length,
      limit: 0,
      fix:
        changes.length === 0
          ? null
          : {
              label: `Key ${changes.map((id) => `${loom.ends[id]!.name} ${keys!.get(id)}`).join(', ')}`.slice(0, 120),
              patch: changes.map((id) => toKeyPatch(loomId, id, keys!.get(id)!)),
            },
    },
  );
}

/** "left goes on the device of right, 100 mm too long not to" */
function toOneWayWords({ ends }: Loom, { a, b, clipped }: Pair): string {
  const [from, to] = clipped.reaches === 'a' ? [a, b] : [b, a];
  return `${ends[from]!.name} goes on the device of ${ends[to]!.name} (${Math.round(clipped.excessMm)} mm too long not to)`;
}

/** What keeps two ends apart, the cheapest first: key, shorter leg, gender where nothing is live once open, colour ring and legend. */
function toCure(context: RuleContext, { a, b, clipped }: Pair, key: string | undefined): string {
  const { loom } = context;
  const [from, to] = clipped.reaches === 'b' ? [b, a] : [a, b];
  const live = [a, b].filter((id) => isLive(loom, id));
  const shorter =
    clipped.kind === 'mis-plug' ? `a leg of ${loom.ends[from]!.name} that is ${Math.round(clipped.excessMm)} mm shorter` : null;
  const gender = live.length === 0 ? `the other gender at ${loom.ends[to]!.name}` : null;
  const cures = [key === undefined ? null : `key ${key}`, shorter, gender, 'a colour ring and a legend'].filter((one) => one !== null);
  const refused =
    live.length > 0
      ? ` Not by gender: ${live.map((id) => loom.ends[id]!.name).join(' and ')} ${live.length === 1 ? 'stays' : 'stay'} live when open.`
      : '';
  return `Cure, cheapest first: ${cures.join(', ')}.${refused}`;
}

/** Does the half of the loom carry a supply that stays on it when it is unplugged? */
const isLive = ({ circuits }: Loom, endId: string) =>
  Object.values(circuits).some(({ kind, terminations }) => kind === 'supply' && terminations.some((one) => one.endId === endId));

const familyOf = ({ job, loom, catalogue }: RuleContext, endId: string): ConnectorFamily =>
  findFamily(job, catalogue, loom.ends[endId]!.familyId)!;

const toKeyPatch = (loomId: string, endId: string, value: string) => ({
  op: 'replace' as const,
  path: `/looms/${loomId}/ends/${endId}/key`,
  value,
});
