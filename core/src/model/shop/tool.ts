import { Type, type Static } from '@sinclair/typebox';
import { addDays } from '../../units';
import { IdSchema, NameSchema } from '../ids';
import { least0, positive, Words } from './figures';

/** A tool of the bench. Contacts, rings and barrels name it, with a die or nest after a comma: "ring crimper, nest 2". */
export const ToolSchema = Type.Object(
  {
    id: IdSchema,
    name: NameSchema,
    setting: { ...Words, description: 'what to set or gauge before a session; may be empty' },
    calibratedOn: Type.Union([Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }), Type.Null()], {
      description: 'day of its last calibration, as in 2026-11-25; null: not stated',
    }),
    everyDays: Type.Union([Type.Integer({ minimum: 1, maximum: 3650 }), Type.Null()], {
      description: 'days from one calibration to the next; null: it needs none',
    }),
    gauged: Type.Boolean({ description: 'its go and its no-go gauge are tried before the first contact of a session' }),
    servicedOn: Type.Union([Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }), Type.Null()], {
      description: 'day of its last service, from which its crimps are counted; null: all are',
    }),
  },
  { additionalProperties: false },
);
export type Tool = Static<typeof ToolSchema>;

/** A tool of which nothing is known but that it is there. */
export const createTool = (id: string, name: string): Tool => ({
  ...{ id, name, setting: '', calibratedOn: null, everyDays: null, gauged: false, servicedOn: null },
});

/** The tool that a part is worked with: by its name, or by its name before the die. */
export function findTool(tools: readonly Tool[], words: string): Tool | undefined {
  return tools.find(({ name }) => name === words) ?? tools.find(({ name }) => words.startsWith(`${name}, `));
}

/** Last day of a tool's calibration, as in 2027-10-05; null: it needs none, or nobody stated when the last one was. */
export const findDueDay = ({ calibratedOn, everyDays }: Tool): string | null =>
  calibratedOn === null || everyDays === null ? null : addDays(calibratedOn, everyDays);

/** A board that looms are built on: what may be used of it is without its edge. */
export const BoardSchema = Type.Object(
  {
    ...{ id: IdSchema, name: NameSchema },
    widthMm: positive(20_000),
    heightMm: positive(20_000),
    edgeMm: least0(1000, 'along each side nothing is laid'),
  },
  { additionalProperties: false },
);
export type Board = Static<typeof BoardSchema>;

/** A printer with the paper in it, as tiles of a 1:1 drawing come out of it. */
export const PrinterSchema = Type.Object(
  {
    ...{ id: IdSchema, name: NameSchema },
    paperWidthMm: positive(5000),
    paperHeightMm: positive(20_000),
    usableWidthMm: Type.Number({ minimum: 80, maximum: 5000, description: 'that it prints on' }),
    usableHeightMm: Type.Number({ minimum: 80, maximum: 20_000 }),
    overlapMm: least0(40, 'that tiles share with their neighbours'),
  },
  { additionalProperties: false },
);
export type Printer = Static<typeof PrinterSchema>;
