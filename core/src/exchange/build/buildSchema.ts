import { Type, type Static } from '@sinclair/typebox';
import { ColourSchema, HoldOperationSchema } from '../../model';
import { OPERATIONS } from '../../make';

export const BUILD_FORMAT_VERSION = 1;

const closed = <T extends Parameters<typeof Type.Object>[0]>(properties: T, description?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(description ? { description } : {}) });
const Id = Type.String({ minLength: 1, description: 'as in the job' });
const Words = Type.String();
const Mm = Type.Number({ description: 'mm' });
const orNull = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T, description: string) =>
  Type.Union([schema, Type.Null()], { description });

const Place = Type.Union([closed({ end: Id, cavity: Words }), closed({ splice: Id })], { description: 'a cavity of an end, or a splice' });
const Size = closed(
  { table: Words, size: Words, words: Words },
  'a conductor: its table in the shop, its size there, and as people say it',
);

const Wire = closed({
  id: Id,
  number: Words,
  circuit: closed({ id: Id, name: Words }),
  from: Place,
  to: Place,
  colour: ColourSchema,
  size: Size,
  cutMm: Mm,
  roughMm: Type.Number({ description: 'mm: what is cut before the trial fit' }),
  sigmaMm: Type.Number({ description: 'mm: one sigma of the measurements on its way' }),
  terms: Type.Array(closed({ words: Words, mm: Type.Number() }), { description: 'add up to cutMm' }),
  runs: Type.Array(closed({ run: Id, fromMm: Mm, toMm: Mm }), {
    description: 'stretches of runs that it lies in, from the near side of each',
  }),
  cable: orNull(closed({ group: Id, item: Words }), 'in which it is a core; null: a single wire'),
  held: Type.Array(Words, { description: 'why it must not be cut yet; empty: it may' }),
  waits: Type.Array(closed({ from: HoldOperationSchema, because: Words }), {
    description: 'of what is cut: the first work on it that waits, and why',
  }),
});

const End = closed({
  id: Id,
  name: Words,
  kind: Words,
  housing: orNull(closed({ id: Id, name: Words, key: orNull(Words, 'null: none') }), 'null: rings, blades, tails, or still to be chosen'),
  node: Id,
  cavities: Type.Array(
    closed({
      cavity: Words,
      wires: Type.Array(Id),
      contact: orNull(closed({ id: Id, name: Words }), 'null: none fits, or a bare tail'),
      seal: orNull(closed({ id: Id, name: Words }), 'null: none, or a grommet'),
      stripMm: orNull(Type.Number(), 'mm'),
      tool: Words,
      setting: Words,
      pullN: Type.Array(orNull(Type.Number(), 'null: not pulled'), { description: 'least pull-off force of each wire, N' }),
    }),
  ),
  plugs: Type.Array(Words, { description: 'cavities that are plugged' }),
});

const Run = closed({
  id: Id,
  near: closed({ node: Id, name: Words }),
  far: closed({ node: Id, name: Words }),
  startMm: Type.Number({ description: 'mm from the datum to its near side' }),
  lengthMm: Mm,
  sigmaMm: Mm,
  bundleMm: Type.Number({ description: 'diameter of its wires, mm' }),
  covering: closed({ kind: Words, item: orNull(Id, 'null: none'), name: Words, cutMm: Mm, overMm: Mm, because: Words }),
});

const Step = closed({
  id: Id,
  operation: Type.Union(OPERATIONS.map((one) => Type.Literal(one))),
  title: Words,
  end: orNull(Id, 'null: not at an end'),
  run: orNull(Id, 'null: not on a run'),
  splice: orNull(Id, 'null: not at a splice'),
  tool: Words,
  parts: Type.Array(Words),
  caution: orNull(Words, 'null: nothing special can hurt here'),
  needs: Type.Array(closed({ step: Id, because: Words }), { description: 'done first' }),
  items: Type.Array(
    closed({
      id: Id,
      words: Words,
      wires: Type.Array(Id),
      cavity: orNull(Words, 'null: of no cavity'),
      held: orNull(Words, 'why it cannot be done yet; null: it can'),
      reads: Type.Array(
        closed({
          id: Id,
          words: Words,
          unit: Words,
          least: orNull(Type.Number(), 'null: no limit'),
          most: orNull(Type.Number(), 'null: no limit'),
        }),
      ),
    }),
  ),
});

/** A planned loom with all that a shop needs to make it, for another program to read. Lengths in mm. */
export const BuildSchema = Type.Object(
  {
    format: Type.Literal('wattograph-build'),
    formatVersion: Type.Literal(BUILD_FORMAT_VERSION),
    job: Words,
    revision: Words,
    loom: closed({ id: Id, name: Words, datum: Id }),
    wires: Type.Array(Wire),
    cuts: Type.Array(
      closed({
        reel: Words,
        pieces: Type.Array(closed({ wires: Type.Array(Id), roughMm: Mm, cutMm: Mm, held: Type.Boolean() })),
      }),
      { description: 'reel by reel, longest piece first' },
    ),
    deadWire: Type.Array(closed({ number: Words, reel: Words, cutMm: Mm }), { description: 'that makes the layers of a lay-up round' }),
    ends: Type.Array(End),
    splices: Type.Array(
      closed({
        id: Id,
        label: Words,
        circuit: Id,
        distanceMm: Type.Number({ description: 'mm from the datum' }),
        near: Type.Array(Id, { description: 'wires from the datum’s side' }),
        far: Type.Array(Id),
        barrel: orNull(Id, 'null: none fits'),
        stripMm: Mm,
        tool: Words,
      }),
    ),
    runs: Type.Array(Run),
    dress: Type.Array(
      closed({
        at: closed({ node: Type.Optional(Id), end: Type.Optional(Id) }),
        role: Words,
        item: Words,
        cutMm: Mm,
        fromMm: Mm,
        toMm: Mm,
        underMm: Mm,
        overMm: Mm,
      }),
      { description: 'boots, build-ups, transitions, in the order in which they slide on at each place' },
    ),
    parts: Type.Array(
      closed({
        group: Words,
        id: Id,
        name: Words,
        pieces: Type.Number(),
        lengthMm: orNull(Type.Number(), 'null: only counted'),
        packs: orNull(Type.Number(), 'null: nobody stated what is in one'),
        cost: orNull(Type.Number(), 'null: nobody stated a price'),
      }),
    ),
    steps: Type.Array(Step, { description: 'in order' }),
    continuity: Type.Array(
      closed({
        circuit: Id,
        from: closed({ end: Id, cavity: Words }),
        to: closed({ end: Id, cavity: Words }),
        wires: Type.Array(Words, { description: 'numbers on the way' }),
        expectedOhm: Type.Number(),
        mostOhm: Type.Number(),
        millivolts: orNull(
          closed({ atA: Type.Number(), expected: Type.Number(), most: Type.Number() }),
          'four-wire; null: an ohmmeter will do',
        ),
      }),
    ),
  },
  { additionalProperties: false, $id: `wattograph-build-${BUILD_FORMAT_VERSION}`, title: 'A loom as it is built' },
);
export type BuildJson = Static<typeof BuildSchema>;
