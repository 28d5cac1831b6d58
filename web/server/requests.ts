import Ajv, { type ValidateFunction } from 'ajv';
import { Type, type Static, type TSchema } from '@sinclair/typebox';
import addFormats from 'ajv-formats';
import { POWER_UNITS, SampleSetSchema, SurveyEntrySchema } from 'wattograph-core';
import { Refusal } from './refusal';

const ajv = addFormats(new Ajv({ allErrors: true }));
// the format lets a leap second and the year 0000 pass, which no clock here can name
ajv.addFormat('date-time', {
  type: 'string',
  validate: (text) =>
    /^(19[7-9]|20|21)\d/.test(text) && /^\d{4}-\d\d-\d\dT[\d:.]{5,20}(Z|[+-]\d\d:\d\d)$/i.test(text) && !Number.isNaN(Date.parse(text)),
});
const Uuid = Type.String({ format: 'uuid' });
/** Said by older devices; who asks decides. */
const Author = Type.Optional(Type.String({ maxLength: 80 }));
/** No copies: a few of them double a document again and again. What is to stand twice is sent twice, and counts in the size of the request. */
const Operations = Type.Array(
  Type.Object(
    {
      op: Type.Union([Type.Literal('add'), Type.Literal('replace'), Type.Literal('remove'), Type.Literal('move'), Type.Literal('test')]),
      path: Type.String({ maxLength: 400 }),
      from: Type.Optional(Type.String({ maxLength: 400 })),
      value: Type.Optional(Type.Unknown()),
    },
    { additionalProperties: false },
  ),
  { minItems: 1, maxItems: 5000 },
);

export const EditRequest = Type.Object(
  { id: Uuid, base: Type.Integer({ minimum: 0, maximum: 1e9 }), author: Author, label: Type.String({ maxLength: 200 }), patch: Operations },
  { additionalProperties: false },
);
export const HistoryRequest = Type.Object(
  { id: Uuid, author: Author, direction: Type.Union([Type.Literal('undo'), Type.Literal('redo')]) },
  { additionalProperties: false },
);
export const ReleaseRequest = Type.Object(
  {
    ...{ id: Uuid, base: Type.Integer({ minimum: 0, maximum: 1e9 }), author: Author, note: Type.String({ maxLength: 2000 }) },
    inPart: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export const ShopPreviewRequest = Type.Object({ document: Type.Unknown() }, { additionalProperties: false });
export const ShopRequest = Type.Object(
  {
    id: Uuid,
    base: Type.Integer({ minimum: 1, maximum: 1e9 }),
    author: Author,
    note: Type.String({ maxLength: 2000 }),
    document: Type.Unknown(),
  },
  { additionalProperties: false },
);
export const NewJobRequest = Type.Object({ id: Uuid, author: Author, document: Type.Unknown() }, { additionalProperties: false });
export const SurveyRequest = Type.Object(
  { entries: Type.Array(SurveyEntrySchema, { minItems: 1, maxItems: 200 }) },
  { additionalProperties: false },
);
export const PhotoRequest = Type.Object(
  {
    id: Uuid,
    loom: Type.String({ minLength: 1, maxLength: 40 }),
    node: Type.String({ minLength: 1, maxLength: 40 }),
    caption: Type.String({ maxLength: 200 }),
    author: Author,
    takenAt: Type.String({ format: 'date-time' }),
  },
  { additionalProperties: false },
);
const happened = {
  id: Uuid,
  loomId: Type.String({ maxLength: 40 }),
  stepId: Type.String({ maxLength: 120 }),
  itemId: Type.String({ maxLength: 120 }),
  words: Type.String({ maxLength: 400 }),
  author: Author,
  happenedAt: Type.String({ format: 'date-time' }),
  device: Type.Optional(Type.Union([Uuid, Type.Null()])),
  after: Type.Optional(Type.Union([Type.Integer({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER }), Type.Null()])),
};

export const DeleteRequest = Type.Object({ deleted: Type.Boolean() }, { additionalProperties: false });
export const AnswerRequest = Type.Object(
  { id: Uuid, item: Type.String({ minLength: 1, maxLength: 80 }), answer: Type.String({ minLength: 1, maxLength: 400, pattern: '\\S' }) },
  { additionalProperties: false },
);
export const ArchiveRequest = Type.Object({ archived: Type.Boolean() }, { additionalProperties: false });

/** A reading is a number, a unit, an instrument and a person; what else happens has none of the first three. */
const FloorEventRequest = Type.Union([
  Type.Object(
    {
      ...happened,
      kind: Type.Union([
        Type.Literal('tick'),
        Type.Literal('untick'),
        Type.Literal('problem'),
        Type.Literal('solved'),
        Type.Literal('take'),
        Type.Literal('leave'),
        Type.Literal('answer'),
        Type.Literal('hand'),
        Type.Literal('down'),
        Type.Literal('gauge'),
        Type.Literal('changeover'),
        Type.Literal('worked'),
        Type.Literal('paused'),
      ]),
      readId: Type.Optional(Type.Null()),
      value: Type.Optional(Type.Null()),
      unit: Type.Optional(Type.Null()),
      instrument: Type.Optional(Type.Null()),
      samples: Type.Optional(Type.Null()),
    },
    { additionalProperties: false },
  ),
  Type.Object({ ...happened, kind: Type.Literal('sample'), samples: SampleSetSchema }, { additionalProperties: false }),
  Type.Object(
    {
      ...happened,
      kind: Type.Literal('reading'),
      readId: Type.String({ minLength: 1, maxLength: 200 }),
      value: Type.Number({ minimum: -1e6, maximum: 1e6 }),
      unit: Type.Union([
        Type.Literal('N'),
        Type.Literal('mV'),
        Type.Literal('MΩ'),
        Type.Literal('Nm'),
        ...POWER_UNITS.map((unit) => Type.Literal(unit)),
      ]),
      instrument: Type.String({ minLength: 1, maxLength: 80, pattern: '\\S' }),
    },
    { additionalProperties: false },
  ),
]);

export const FloorEventsRequest = Type.Object(
  { events: Type.Array(FloorEventRequest, { minItems: 1, maxItems: 500 }) },
  { additionalProperties: false },
);

const compiled = new Map<TSchema, ValidateFunction>();

/** The body of a request in its declared shape, or a refusal that names the field. */
export function toRequest<T extends TSchema>(schema: T, body: unknown): Static<T> {
  const validate = compiled.get(schema) ?? ajv.compile(schema);
  compiled.set(schema, validate);
  if (validate(body)) return body as Static<T>;
  throw new Refusal(
    400,
    (validate.errors ?? []).slice(0, 10).map(({ instancePath, message, params }) => ({
      path: instancePath,
      message: `${message ?? 'not as expected'} ${JSON.stringify(params)}`,
    })),
  );
}

/** An id from the address, refused where it cannot be one. */
export function toJobId(text: string): string {
  if (!/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i.test(text)) throw Refusal.at(404, '', 'There is no such job.');
  return text;
}

/** A revision's number from the address, refused where it cannot be one. */
export const toReleaseNumber = (text: string): number => toNumber(text, 'release', 'the number of a revision');

/** A version of the shop from the address, refused where it cannot be one. */
export const toShopVersion = (text: string): number => toNumber(text, 'version', 'a version of the shop');

/** A version of a job from the address: 0 is the job as it was made. */
export function toVersion(text: string, path = 'version'): number {
  if (!/^(0|[1-9]\d{0,8})$/.test(text)) throw Refusal.at(400, path, `expected a version of the job, got ${JSON.stringify(text)}`);
  return Number(text);
}

/** The serial of an event from the address; 0: before the first. */
export function toSerial(text: string): number {
  if (!/^\d{1,15}$/.test(text)) throw Refusal.at(400, 'after', `expected the serial of an event, got ${JSON.stringify(text)}`);
  return Number(text);
}

function toNumber(text: string, path: string, words: string): number {
  if (!/^[1-9]\d{0,5}$/.test(text)) throw Refusal.at(404, path, `expected ${words}, got ${JSON.stringify(text)}`);
  return Number(text);
}
