import { sql } from 'drizzle-orm';
import {
  bigserial,
  boolean,
  customType,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import type { EditOperation, Job, Shop } from 'wattograph-core';
import type { Role } from './accounts/rights';
import type { TaskKind } from './work/taskKinds';

export * from './jobs/floorSchema';

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

const bytea = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'bytea' });

/** A job as it stands. json, not jsonb: the document keeps the order its author gave it. */
export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey(),
  version: integer('version').notNull(),
  document: json('document').$type<Job>().notNull(),
  createdAt: at('created_at').notNull().defaultNow(),
  changedAt: at('changed_at').notNull().defaultNow(),
  /** of what was sent under the id; null: stored before that was kept */
  hash: text('hash'),
  /** put away from the wall; null: in work */
  archivedAt: at('archived_at'),
  /** put in the bin, by whom: gone for good after a month; null: not there */
  deletedAt: at('deleted_at'),
  deletedBy: text('deleted_by'),
  /** edits up to this version are kept without their patches: what they were is in the snapshot of it */
  compacted: integer('compacted').notNull().default(0),
  // what the wall reads of every job without opening its document
  name: text('name').generatedAlwaysAs(sql`(document ->> 'name')`),
  customer: text('customer').generatedAlwaysAs(sql`(document ->> 'customer')`),
  promisedOn: text('promised_on').generatedAlwaysAs(sql`(document #>> '{brief,promisedOn}')`),
});

/** A job as it was at a version, from which the edits after it lead on. JSON, gzipped. */
export const jobSnapshots = pgTable(
  'job_snapshots',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    version: integer('version').notNull(),
    document: bytea('document').notNull(),
    at: at('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.version] })],
);

/** What the wall says of the plan of a job, as a worker last counted it. */
export const jobLines = pgTable('job_lines', {
  jobId: uuid('job_id')
    .primaryKey()
    .references(() => jobs.id, { onDelete: 'cascade' }),
  /** of the job, of the computation and of the day (concessions fall due) that it was counted for */
  version: integer('version').notNull(),
  engine: text('engine').notNull(),
  day: text('day').notNull(),
  looms: integer('looms').notNull(),
  wires: integer('wires').notNull(),
  stops: integer('stops').notNull(),
  checks: integer('checks').notNull(),
  /** why it cannot be planned, where it cannot */
  problem: text('problem'),
  /** records of the shop that it uses, as table/id */
  uses: json('uses').$type<string[]>().notNull().default([]),
});

/**
 * The plan of a job as a worker last counted it, for a page to show while its own planner starts. JSON, gzipped. None where it is too large to
 * be sent sooner than it is made.
 */
export const jobPlans = pgTable('job_plans', {
  jobId: uuid('job_id')
    .primaryKey()
    .references(() => jobs.id, { onDelete: 'cascade' }),
  version: integer('version').notNull(),
  engine: text('engine').notNull(),
  day: text('day').notNull(),
  planned: bytea('planned').notNull(),
});

/** Work that somebody waits for, done by a worker outside the request, and its answer. Forgotten after an hour. */
export const tasks = pgTable('tasks', {
  id: uuid('id').primaryKey(),
  kind: text('kind').$type<TaskKind>().notNull(),
  input: json('input').notNull(),
  /** how far it is, for who waits */
  done: integer('done').notNull().default(0),
  of: integer('of').notNull().default(0),
  /** null: not answered yet */
  status: integer('status'),
  type: text('type'),
  /** name of a file to save it as */
  name: text('name'),
  body: bytea('body'),
  at: at('at').notNull().defaultNow(),
});

/**
 * The shop in every version it ever had; the newest that is not aside is the present one. The id is made by the client, so that a repeat
 * counts once.
 */
export const shopVersions = pgTable('shop_versions', {
  version: integer('version').primaryKey(),
  id: uuid('id').notNull().unique(),
  author: text('author').notNull(),
  note: text('note').notNull(),
  document: json('document').$type<Shop>().notNull(),
  /** made for one imported job, with the records that it carried: no version of the shop itself */
  aside: boolean('aside').notNull().default(false),
  at: at('at').notNull().defaultNow(),
});

/** Every edit ever taken, with the patch that undoes it. The id is made by the client, so that a repeat counts once. */
export const edits = pgTable(
  'edits',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    version: integer('version').notNull(),
    id: uuid('id').notNull().unique(),
    author: text('author').notNull(),
    label: text('label').notNull(),
    kind: text('kind').$type<'edit' | 'undo' | 'redo'>().notNull(),
    /** the edit that an undo or redo is about */
    ofEdit: uuid('of_edit'),
    patch: json('patch').$type<EditOperation[]>().notNull(),
    inverse: json('inverse').$type<EditOperation[]>().notNull(),
    at: at('at').notNull().defaultNow(),
    /** of what was sent under the id; null: stored before that was kept */
    hash: text('hash'),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.version] }), index('edits_by').on(table.jobId, table.author, table.version)],
);

/** A released revision: the document as it was, for good. */
export const releases = pgTable(
  'releases',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    id: uuid('id').notNull().unique(),
    version: integer('version').notNull(),
    document: json('document').$type<Job>().notNull(),
    author: text('author').notNull(),
    note: text('note').notNull(),
    /** wires that it holds from being cut: it is of the rest */
    heldWires: integer('held_wires').notNull().default(0),
    at: at('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.number] })],
);

/**
 * A loom of a released revision as it was planned, built and drawn then, so that floor, sheets and tests of it stay what they were whatever
 * becomes of the catalogue, the standards and the formulas. JSON, gzipped.
 */
export const releaseLooms = pgTable(
  'release_looms',
  {
    jobId: uuid('job_id').notNull(),
    number: integer('number').notNull(),
    loomId: text('loom_id').notNull(),
    /** place in the order of the looms of the job */
    place: integer('place').notNull(),
    wires: integer('wires').notNull(),
    /** version of the computation that made it */
    engine: text('engine').notNull(),
    /** SHA-256 of the parts and standards that it was made with */
    shop: text('shop').notNull(),
    /** FrozenLoom */
    work: bytea('work').notNull(),
    /** pages by paper */
    pages: bytea('pages').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.number, table.loomId] }),
    foreignKey({ columns: [table.jobId, table.number], foreignColumns: [releases.jobId, releases.number] }).onDelete('cascade'),
  ],
);

/** What is read when the vehicle of a revision gets power for the first time, as it was worked out then. JSON, gzipped. */
export const releasePower = pgTable(
  'release_power',
  {
    jobId: uuid('job_id').notNull(),
    number: integer('number').notNull(),
    /** FirstPower; null: no battery is in the job */
    sheet: bytea('sheet'),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.number] }),
    foreignKey({ columns: [table.jobId, table.number], foreignColumns: [releases.jobId, releases.number] }).onDelete('cascade'),
  ],
);

/** Photographs of a job at their place on a loom. As they are shown: turned upright, of a fitting size, nothing else in them. */
export const photos = pgTable(
  'photos',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    loomId: text('loom_id').notNull(),
    nodeId: text('node_id').notNull(),
    caption: text('caption').notNull(),
    author: text('author').notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    /** null: in the object store */
    bytes: bytea('bytes'),
    takenAt: at('taken_at').notNull(),
    receivedAt: at('received_at').notNull().defaultNow(),
    /** of what was sent under the id; null: stored before that was kept */
    hash: text('hash'),
  },
  (table) => [index('photos_of').on(table.jobId, table.loomId)],
);

/** Who works here. Their names sign what they do; one who has left stays, without access. */
export const people = pgTable('people', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  role: text('role').$type<Role>().notNull(),
  /** the one job of a customer; null: somebody of the shop, or the job is gone */
  jobId: uuid('job_id').references(() => jobs.id, { onDelete: 'set null' }),
  username: text('username').unique(),
  displayUsername: text('display_username'),
  // the accounts library wants one; nothing is ever sent there
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  /** null: may sign in */
  leftAt: at('left_at'),
  /** of the digits for a device of the shop; null: none chosen */
  pinHash: text('pin_hash'),
  pinFailures: integer('pin_failures').notNull().default(0),
  pinLockedUntil: at('pin_locked_until'),
  createdAt: at('created_at').notNull().defaultNow(),
  updatedAt: at('updated_at').notNull().defaultNow(),
});

/** What is known of a person wherever they ask for something. */
export const PERSON = { id: people.id, name: people.name, role: people.role, jobId: people.jobId };

export const sessions = pgTable(
  'sessions',
  {
    id: text('id').primaryKey(),
    token: text('token').notNull().unique(),
    userId: text('user_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    /** the device of the shop that it was begun on; null: none */
    deviceId: uuid('device_id'),
    expiresAt: at('expires_at').notNull(),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (table) => [index('sessions_of').on(table.userId)],
);

/** Passwords, hashed. The rest of the columns is of the accounts library. */
export const credentials = pgTable('credentials', {
  id: text('id').primaryKey(),
  accountId: text('account_id').notNull(),
  providerId: text('provider_id').notNull(),
  userId: text('user_id')
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' }),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: at('access_token_expires_at'),
  refreshTokenExpiresAt: at('refresh_token_expires_at'),
  scope: text('scope'),
  password: text('password'),
  createdAt: at('created_at').notNull().defaultNow(),
  updatedAt: at('updated_at').notNull().defaultNow(),
});

export const verifications = pgTable('verifications', {
  id: text('id').primaryKey(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: at('expires_at').notNull(),
  createdAt: at('created_at').notNull().defaultNow(),
  updatedAt: at('updated_at').notNull().defaultNow(),
});

/** Tablets and computers of the shop, on which people sign in with their digits. */
export const devices = pgTable('devices', {
  id: uuid('id').primaryKey(),
  tokenHash: text('token_hash').notNull().unique(),
  name: text('name').notNull(),
  addedBy: text('added_by').notNull(),
  addedAt: at('added_at').notNull().defaultNow(),
});

/** A code that lets one person in, once. */
export const invites = pgTable('invites', {
  id: uuid('id').primaryKey(),
  codeHash: text('code_hash').notNull().unique(),
  name: text('name').notNull(),
  role: text('role').$type<Role>().notNull(),
  /** of a customer */
  jobId: uuid('job_id').references(() => jobs.id, { onDelete: 'cascade' }),
  /** who is let in again, for the password or the digits were forgotten; null: somebody new */
  personId: text('person_id'),
  invitedBy: text('invited_by').notNull(),
  expiresAt: at('expires_at').notNull(),
  usedAt: at('used_at'),
  at: at('at').notNull().defaultNow(),
});

/** What decides who may do what, and what was signed: only ever added to. */
export const audit = pgTable('audit', {
  serial: bigserial('serial', { mode: 'number' }).primaryKey(),
  at: at('at').notNull().defaultNow(),
  person: text('person').notNull(),
  what: text('what').notNull(),
  about: text('about').notNull(),
});

/** What an installation made for itself: the key that signs its cookies, the code of its first set-up. */
export const settings = pgTable('settings', { name: text('name').primaryKey(), value: text('value').notNull() });

export type ShopVersionRow = typeof shopVersions.$inferSelect;
export type PhotoRow = typeof photos.$inferSelect;
export type ReleaseLoomRow = typeof releaseLooms.$inferSelect;
export type ReleaseRow = typeof releases.$inferSelect;
export type EditRow = typeof edits.$inferSelect;
