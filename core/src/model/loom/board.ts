import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema, recordOf } from '../ids';

const pinned = Type.Boolean({ description: 'chosen by hand: a search leaves it' });

/** How a loom is spread on a board at full scale: what a search found, what the planner chose, and what was printed of it. */
export const BoardSpreadSchema = Type.Object(
  {
    boardId: Type.Union([IdSchema, Type.Null()], { description: 'board of the shop; null: its first' }),
    printerId: Type.Union([IdSchema, Type.Null()], { description: 'printer of the shop; null: its first' }),
    at: Type.Union(
      [
        Type.Object(
          { xMm: Type.Number({ minimum: -1e5, maximum: 1e5 }), yMm: Type.Number({ minimum: -1e5, maximum: 1e5 }) },
          { additionalProperties: false },
        ),
        Type.Null(),
      ],
      { description: 'where the datum lies, mm from the left and from the top of the board; null: computed' },
    ),
    turns: recordOf(Type.Object({ deg: Type.Number({ minimum: -180, maximum: 180 }), pinned }, { additionalProperties: false }), {
      description: 'segment → how far it turns out of what it leaves, to the left where positive, seen from above',
    }),
    folds: recordOf(
      Type.Object(
        { atMm: Type.Number({ minimum: 0, maximum: 20000 }), deg: Type.Number({ minimum: -180, maximum: 180 }), pinned },
        { additionalProperties: false },
      ),
      { description: 'segment → a bend that it is laid with, so far from its near side' },
    ),
    isMirrored: Type.Boolean({ description: 'drawn for building with its face down' }),
    scale: Type.Number({ minimum: 0.8, maximum: 1.25, description: 'what a print is multiplied by, so that its bar measures 100 mm' }),
    printed: Type.Union(
      [
        Type.Object(
          {
            on: Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }),
            by: NameSchema,
            scale: Type.Number({ minimum: 0.8, maximum: 1.25, description: 'what it was multiplied by' }),
            barMm: Type.Union([Type.Number({ minimum: 80, maximum: 125 }), Type.Null()], {
              description: 'what the bar of 100 mm measured on it; null: nobody measured',
            }),
            grid: Type.Union(
              [
                Type.Object(
                  {
                    xMm: Type.Number({ minimum: -1e5, maximum: 1e5, description: 'from the datum to the right' }),
                    yMm: Type.Number({ minimum: -1e5, maximum: 1e5, description: 'from the datum down' }),
                    stepXMm: Type.Number({ exclusiveMinimum: 0, maximum: 1e5, description: 'to the next column, on the board' }),
                    stepYMm: Type.Number({ exclusiveMinimum: 0, maximum: 1e5, description: 'to the next row, on the board' }),
                  },
                  { additionalProperties: false },
                ),
                Type.Null(),
              ],
              { description: 'where the page of column 0 and row 0 begins; null: it was hung before anybody kept it' },
            ),
            tiles: Type.Array(
              Type.Object(
                {
                  number: Type.Integer({ minimum: 1, maximum: 100_000 }),
                  column: Type.Union([Type.Integer({ minimum: 0, maximum: 2000 }), Type.Null()], { description: 'null: as grid' }),
                  row: Type.Union([Type.Integer({ minimum: 0, maximum: 2000 }), Type.Null()], { description: 'null: as grid' }),
                  fingerprint: Type.String({ minLength: 1, maxLength: 64 }),
                },
                { additionalProperties: false },
              ),
              { maxItems: 2000 },
            ),
          },
          { additionalProperties: false },
        ),
        Type.Null(),
      ],
      { description: 'the print that hangs on the board; null: none' },
    ),
  },
  { additionalProperties: false },
);
export type BoardSpread = Static<typeof BoardSpreadSchema>;
/** The print that hangs on a board. */
export type HungPrint = NonNullable<BoardSpread['printed']>;

/** Of a loom that nobody has spread yet. */
export const createBoardSpread = (): BoardSpread => ({
  ...{ boardId: null, printerId: null, at: null, turns: {}, folds: {}, isMirrored: false, scale: 1, printed: null },
});
