import { createRandom } from '../../units';
import type { Move } from './faultTypes';
import type { Planted } from './standInTester';
import { toProbe, toProbeKey, type Probe, type ProvedEnd, type RingOut } from './types';

/** Kinds of fault that the stand-in tester can put into its loom, as they are offered. */
export const PLANTED_KINDS = ['open', 'short', 'exchange', 'screen', 'poor', 'turn'] as const;
export type PlantedKind = (typeof PLANTED_KINDS)[number];

/** what a poor joint adds, Ω */
const POOR_OHM = 0.5;
/** a row is turned by so many cavities, of at least so many */
const TURNED_BY = 2;
const LEAST_ROW = 3;

/** A fault of a kind at a place chosen by the seed; null: this loom has no place for it. */
export function plantFault(ringOut: RingOut, kind: PlantedKind, seed: number): Planted | null {
  const random = createRandom(seed);
  const pick = <T>(from: readonly T[]): T | undefined => from[Math.floor(random() * from.length)];
  const { copper, nets, ends } = ringOut;
  const netOf = new Map(nets.flatMap(({ id, probes }) => probes.map((probe) => [toProbeKey(probe), id])));
  const at = (endId: string, cavity: string) => netOf.get(`${endId} ${cavity}`);
  switch (kind) {
    case 'open':
    case 'poor': {
      const piece = pick(copper);
      if (!piece) return null;
      return kind === 'open' ? { kind, wireId: piece.wireId } : { kind, wireId: piece.wireId, ohm: POOR_OHM };
    }
    case 'short': {
      const pairs = ends.flatMap((end) =>
        listNeighbours(end)
          .filter(([a, b]) => isApart(ringOut, at(end.id, a), at(end.id, b)))
          .map((two) => [end.id, ...two]),
      );
      const [endId, a, b] = pick(pairs) ?? [];
      return endId === undefined ? null : { kind: 'bridge', a: { endId, cavity: a! }, b: { endId, cavity: b! } };
    }
    case 'exchange': {
      const pairs = ends
        .filter(({ hasCavities }) => hasCavities)
        .flatMap((end) =>
          listNeighbours(end)
            .filter(([a, b]) => at(end.id, a) !== at(end.id, b))
            .map((two) => [end.id, ...two]),
        );
      const [endId, a, b] = pick(pairs) ?? [];
      return endId === undefined
        ? null
        : {
            kind: 'moved',
            endId,
            moves: [
              [a!, b!],
              [b!, a!],
            ],
          };
    }
    case 'screen': {
      const places = listScreenPlaces(ringOut);
      const [a, b] = pick(places) ?? [];
      return a && b ? { kind: 'bridge', a, b } : null;
    }
    case 'turn': {
      const rows = ends.filter(({ hasCavities }) => hasCavities).flatMap((end) => listRows(end, (cavity) => at(end.id, cavity)));
      const row = pick(rows);
      if (!row) return null;
      const moves = row.cavities.map((cavity, index): Move => [cavity, row.cavities[(index + TURNED_BY) % row.cavities.length]!]);
      return { kind: 'moved', endId: row.endId, moves };
    }
  }
}

/** Wired cavities that follow each other. */
function listNeighbours({ cavities, empty }: ProvedEnd): [string, string][] {
  const used = cavities.filter((cavity) => !empty.includes(cavity));
  return used.slice(1).map((cavity, index) => [used[index]!, cavity]);
}

/** Two nets that nothing is meant to join. */
const isApart = ({ nets }: RingOut, a: string | undefined, b: string | undefined): boolean =>
  a !== undefined && b !== undefined && a !== b && !nets.find(({ id }) => id === a)!.partnerIds.includes(b);

function listScreenPlaces({ nets, copper }: RingOut): [Probe, Probe][] {
  const screens = nets.filter(({ kind }) => kind === 'screen');
  return screens.flatMap((screen) => {
    const groups = copper.flatMap(({ wireId, groupId }) => (screen.wireIds.includes(wireId) && groupId ? [groupId] : []));
    const cores = copper.filter(({ groupId, wireId }) => groupId !== null && groups.includes(groupId) && !screen.wireIds.includes(wireId));
    return cores.flatMap(({ from, to }) =>
      [from, to]
        .filter((key) => !key.startsWith('splice '))
        .flatMap((key): [Probe, Probe][] => {
          const own = screen.probes.find(({ endId }) => endId === toProbe(key).endId);
          return own ? [[own, toProbe(key)]] : [];
        }),
    );
  });
}

/** Runs of wired cavities, each of a net of its own. */
function listRows({ id, cavities }: ProvedEnd, netAt: (cavity: string) => string | undefined): { endId: string; cavities: string[] }[] {
  const rows: string[][] = [[]];
  for (const cavity of cavities) {
    const net = netAt(cavity);
    const row = rows.at(-1)!;
    if (net === undefined) rows.push([]);
    else if (row.some((one) => netAt(one) === net)) rows.push([cavity]);
    else row.push(cavity);
  }
  return rows.filter((row) => row.length >= LEAST_ROW).map((row) => ({ endId: id, cavities: row }));
}
