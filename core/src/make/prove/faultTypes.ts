/** A contact that belongs in one cavity and sits in another one of its end. */
export type Move = [belongsIn: string, sitsIn: string];

/** Contacts of one end that are not where they belong. */
export interface MovedAt {
  endId: string;
  moves: Move[];
}

interface OfNets {
  netIds: string[];
}

/**
 * What is wrong with a loom, as far as readings tell.
 *
 * exchanged: two contacts of an end in each other's cavity; turned: a row in which each sits so many cavities further on; mirrored: a row the
 * wrong way round; astray: any other contacts out of place. or: other ends at which the same would read the same.
 * open, poor: one of these wires or its ends. joined: nets that touch, with the end at which least lies between them. screen: a screen on a
 * core of its cable. part: a part of another value. many: so many nets are not isolated at once that it is hardly the pinning. unclear: what no pattern explains.
 */
export type LoomFault = OfNets &
  (
    | ({ kind: 'exchanged' | 'mirrored' | 'astray'; or: MovedAt[] } & MovedAt)
    | ({ kind: 'turned'; by: number; or: MovedAt[] } & MovedAt)
    | { kind: 'open'; wireIds: string[] }
    | { kind: 'poor'; wireIds: string[]; ohm: number; mostOhm: number }
    | { kind: 'joined'; nearestEndId: string | null }
    | { kind: 'screen'; screenId: string; nearestEndId: string | null }
    | { kind: 'part'; partId: string; ohm: number }
    | { kind: 'many' }
    | { kind: 'unclear'; testIds: string[] }
  );
