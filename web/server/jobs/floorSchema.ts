import { sql } from 'drizzle-orm';
import {
  bigint,
  bigserial,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import type { FloorKind, SampleSet } from 'wattograph-core';

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/** What happened on the floor, only ever added to. The id is made by the tablet. */
export const floorEvents = pgTable(
  'floor_events',
  {
    serial: bigserial('serial', { mode: 'number' }).primaryKey(),
    id: uuid('id').notNull().unique(),
    jobId: uuid('job_id').notNull(),
    release: integer('release').notNull(),
    loomId: text('loom_id').notNull(),
    stepId: text('step_id').notNull(),
    itemId: text('item_id').notNull(),
    kind: text('kind').$type<FloorKind>().notNull(),
    words: text('words').notNull(),
    /** of a reading: which, what was read, in what, with what; null: no reading */
    readId: text('read_id'),
    value: doublePrecision('value'),
    unit: text('unit'),
    instrument: text('instrument'),
    /** of a sample: what was pulled apart; null: it is none */
    samples: jsonb('samples').$type<SampleSet>(),
    author: text('author').notNull(),
    /** by the tablet's clock: to be read, nothing is decided by it */
    happenedAt: at('happened_at').notNull(),
    receivedAt: at('received_at').notNull().defaultNow(),
    /** the device, and the last event that it knew of; null: an older one, that does not say */
    device: uuid('device'),
    after: bigint('after', { mode: 'number' }),
    /** of what was sent under the id; null: stored before that was kept */
    hash: text('hash'),
  },
  (table) => [
    index('floor_events_of').on(table.jobId, table.release, table.loomId),
    index('floor_events_after').on(table.jobId, table.release, table.serial),
    index('floor_events_troubles')
      .on(table.jobId, table.release, table.loomId, table.stepId, table.serial.desc())
      .where(sql`kind in ('problem', 'solved', 'answer')`),
  ],
);

/** Crimps made with a tool on a day, samples too: counted as they are stored, for its service. */
export const toolCrimps = pgTable(
  'tool_crimps',
  { tool: text('tool').notNull(), day: date('day').notNull(), crimps: integer('crimps').notNull() },
  (table) => [primaryKey({ columns: [table.tool, table.day] })],
);

export type FloorEventRow = typeof floorEvents.$inferSelect;
