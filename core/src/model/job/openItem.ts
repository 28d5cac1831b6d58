import { Type, type Static } from '@sinclair/typebox';
import { HoldOperationSchema } from '../hold';
import { DateSchema, IdSchema, literals, NameSchema } from '../ids';
import { EvidenceSchema } from '../power/pinNeed';

export const OPEN_ITEM_KINDS = ['question', 'assumption', 'concession'] as const;
export type OpenItemKind = (typeof OPEN_ITEM_KINDS)[number];

/** What an open item stands in the way of: a whole loom, a run, an end or a circuit of it. */
export const BlockedSchema = Type.Object(
  {
    loomId: IdSchema,
    kind: literals(['loom', 'segment', 'end', 'circuit']),
    id: IdSchema,
  },
  { additionalProperties: false },
);
export type Blocked = Static<typeof BlockedSchema>;

/**
 * Something not known yet (a question), taken to be so for now (an assumption), or let pass until a day (a concession).
 * The work that it stops waits until it is answered, unless by a guess: a guess is no answer.
 */
export const OpenItemSchema = Type.Object(
  {
    kind: literals(OPEN_ITEM_KINDS),
    question: Type.String({ minLength: 1, maxLength: 300, pattern: '\\S' }),
    blocks: Type.Array(BlockedSchema, { maxItems: 40 }),
    stops: HoldOperationSchema,
    owner: Type.String({ maxLength: 80, description: 'who finds it out; empty: nobody yet' }),
    due: Type.Union([DateSchema, Type.Null()], { description: 'needed by; null: no day set. Of a concession: the day it ends' }),
    atVisit: Type.Boolean({ description: 'to be answered at the vehicle' }),
    answer: Type.Union([Type.String({ minLength: 1, maxLength: 400 }), Type.Null()], { description: 'null: open' }),
    evidence: Type.Union([EvidenceSchema, Type.Null()], { description: 'where the answer is from; null while open' }),
    answeredBy: Type.String({ maxLength: 80 }),
  },
  { additionalProperties: false },
);
export type OpenItem = Static<typeof OpenItemSchema>;

/** A question nobody has answered. */
export function createOpenItem(question: string, rest: Partial<OpenItem> = {}): OpenItem {
  return {
    kind: 'question',
    question,
    blocks: [],
    stops: 'cut',
    owner: '',
    due: null,
    atVisit: true,
    answer: null,
    evidence: null,
    answeredBy: '',
    ...rest,
  };
}

/** Does it still stand in the way? A concession does not; an answer that is a guess does. */
export function isBlocking(item: OpenItem): boolean {
  return item.kind !== 'concession' && item.blocks.length > 0 && (item.answer === null || item.evidence === 'guessed');
}

/** Where an anchor lies on the looms: what passes there waits for it. */
export const AnchoredSchema = Type.Object({ loomId: IdSchema, nodeId: IdSchema }, { additionalProperties: false });
export type Anchored = Static<typeof AnchoredSchema>;

/**
 * The job's own name for a place that stands still while the loom is measured. While it is open nothing is cut that passes it; nothing at
 * all where nobody has said yet where on the looms it is.
 */
export const ANCHOR_STATES = ['open', 'fixed', 'not-here'] as const;
export const AnchorSchema = Type.Object(
  {
    name: NameSchema,
    place: Type.String({ maxLength: 200, description: 'where it is on the vehicle, in words' }),
    nodes: Type.Array(AnchoredSchema, { maxItems: 40, description: 'where it lies on the looms; empty: not said yet' }),
    state: literals(ANCHOR_STATES, {
      description: 'open, fixed for good, or not part of this job',
    }),
    by: Type.String({ maxLength: 80 }),
  },
  { additionalProperties: false },
);
export type AnchorState = (typeof ANCHOR_STATES)[number];
export type Anchor = Static<typeof AnchorSchema>;

/** The five places that a survey settles first. */
export function createAnchors(): Record<string, Anchor> {
  const anchor = (name: string): Anchor => ({ name, place: '', nodes: [], state: 'open', by: '' });
  return {
    controller: anchor('controller'),
    power: anchor('power box'),
    firewall: anchor('firewall hole'),
    battery: anchor('battery'),
    plug: anchor('main plug'),
  };
}
