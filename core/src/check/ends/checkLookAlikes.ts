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
export const checkLookAlikes: Rule = (context) => {
  const groups = listAlike(context.loom);
  if (groups.length === 0) return [];
  const halves = readHalves(context.loom);
  return groups.flatMap((alike) => {
    const pairs = listPairs(context, alike);
    const close = pairs.filter((pair) => isClose(context, pair));
    const near = new Map<string, string[]>();
    for (const { a, b } of close) {
      pushTo(near, a, b);
      pushTo(near, b, a);
    }
    const oneWay = pairs.filter((pair) => pair.clipped.kind === 'mis-plug' && !isClose(context, pair) && !isHarmless(halves, pair));
    return [
      ...close.map((pair) => toCloseFinding({ ...context, halves }, pair, near.get(pair.b)!)),
      ...(oneWay.length > 0 ? [toOneWayFinding({ ...context, halves }, alike, oneWay)] : []),
    ];
  });
};

/** What lies in the half of the loom at an end. */
interface Half {
  /** circuits by their cavities, in words that are alike where both are */
  wiring: string;
  /** a supply stays on it when it is unplugged */
  isLive: boolean;
}
type Halves = ReadonlyMap<string, Half>;
type PairContext = RuleContext & { halves: Halves };

/** Of every end with wires, read once. */
function readHalves({ circuits }: Loom): Halves {
  const pins = new Map<string, string[]>();
  const live = new Set<string>();
  for (const [id, { kind, terminations }] of Object.entries(circuits))
    for (const { endId, cavity } of terminations) {
      pushTo(pins, endId, `${cavity} ${id}`);
      if (kind === 'supply') live.add(endId);
    }
  return new Map([...pins].map(([endId, words]) => [endId, { wiring: words.sort().join(','), isLive: live.has(endId) }]));
}

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
const isHarmless = (halves: Halves, { a, b }: Pair): boolean => halves.has(a) && halves.get(a)!.wiring === halves.get(b)?.wiring;

/** near: ends that are close to its second one. */
function toCloseFinding(context: PairContext, pair: Pair, near: readonly string[]): Finding {
  const { loom, loomId, standard, halves } = context;
  const { a, b, apartMm, clipped } = pair;
  const family = familyOf(context, b);
  const taken = near.map((id) => loom.ends[id]!.key);
  const key = family.keys.find((one) => one !== loom.ends[b]!.key && !taken.includes(one));
  const harmless = isHarmless(halves, pair);
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
/** more ends of one housing than that are not keyed by search, nor all shown */
const MOST_KEYED = 40;

function toOneWayFinding(context: PairContext, alike: readonly string[], oneWay: readonly Pair[]): Finding {
  const { loom, loomId } = context;
  const family = familyOf(context, alike[0]!);
  const named = oneWay.slice(0, MOST_NAMED).map((pair) => toOneWayWords(loom, pair));
  const rest = oneWay.length - named.length;
  const involved = new Set(oneWay.flatMap(({ a, b }) => [a, b]));
  const ends = alike.filter((id) => involved.has(id));
  const keyOf = new Map(ends.map((id) => [id, loom.ends[id]!.key]));
  const isFew = ends.length <= MOST_KEYED;
  const confused = oneWay.map(({ a, b }) => [a, b] as const);
  const keys = isFew ? assignKeys(ends, confused, family.keys, keyOf) : null;
  const changes = keys === null ? [] : ends.filter((id) => keys.get(id) !== keyOf.get(id));
  return createFinding(
    context,
    'EN9',
    ends.slice(0, MOST_KEYED).map((id) => ({ kind: 'end', id })),
    `Alike (${family.name}${keyOf.get(ends[0]!) ? `, ${keyOf.get(ends[0]!)}` : ''}): ${named.join('; ')}${rest > 0 ? `; and ${rest} more` : ''}. ${oneWay.length === 1 ? toCure(context, oneWay[0]!, undefined) : ''}${changes.length > 0 ? ` ${changes.length} other ${changes.length === 1 ? 'key keeps' : 'keys keep'} them apart.` : isFew && keys === null ? ' Keys alone do not keep all of them apart.' : ''}`
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
function toCure({ loom, halves }: PairContext, { a, b, clipped }: Pair, key: string | undefined): string {
  const [from, to] = clipped.reaches === 'b' ? [b, a] : [a, b];
  const live = [a, b].filter((id) => halves.get(id)?.isLive ?? false);
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

const familyOf = ({ job, loom, catalogue }: RuleContext, endId: string): ConnectorFamily =>
  findFamily(job, catalogue, loom.ends[endId]!.familyId)!;

const toKeyPatch = (loomId: string, endId: string, value: string) => ({
  op: 'replace' as const,
  path: `/looms/${loomId}/ends/${endId}/key`,
  value,
});
