import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { hashPassword, verifyPassword } from 'better-auth/crypto';
import { and, asc, count, desc, eq, gt, isNull, ne, sql } from 'drizzle-orm';
import { database, type Database } from '../database';
import { Refusal } from '../refusal';
import { audit, credentials, devices, invites, jobs, people, PERSON, sessions, settings } from '../schema';
import { tell } from '../tell';
import { findAuth } from './auth';
import { record } from './record';
import type { Person, Role } from './rights';

/** what a change needs of a transaction, of the application or of a command */
type Transaction = Pick<Parameters<Parameters<Database['transaction']>[0]>[0], 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

export const INVITE_DAYS = 7;
const MOST_FAILURES = 5;
const LOCK_MINUTES = 5;
/** without letters and digits that are taken for each other */
const ALPHABET = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const CODE_LETTERS = 12;

export const hashCode = (code: string): string =>
  createHash('sha256')
    .update(code.toUpperCase().replace(/[^0-9A-Z]/g, ''))
    .digest('hex');

/** A code to be typed from a screen or a slip of paper: three groups of four, 60 bits. */
export function createCode(): string {
  const letters = [...randomBytes(CODE_LETTERS)].map((byte) => ALPHABET[byte % ALPHABET.length]!).join('');
  return letters.match(/.{4}/g)!.join('-');
}

/** Is there anybody yet? */
export async function hasPeople(): Promise<boolean> {
  const [row] = await database().select({ id: people.id }).from(people).limit(1);
  return row !== undefined;
}

interface NewPerson {
  name: string;
  role: Role;
  jobId: string | null;
  username: string | null;
  password: string | null;
  pin: string | null;
}

/** Names sign, so no two who may sign in have the same. */
async function expectFree(tx: Transaction, name: string, username: string | null, exceptId = ''): Promise<void> {
  // one at a time: two invited at once may have chosen the same
  await tx.execute(sql`lock table ${people} in share row exclusive mode`);
  const [same] = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(sql`lower(${people.name}) = lower(${name})`, isNull(people.leftAt), ne(people.id, exceptId)));
  if (same) throw Refusal.at(409, 'name', `expected a name of your own, got ${JSON.stringify(name)}: somebody has it already`);
  if (username === null) return;
  const [taken] = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.username, username.toLowerCase()), ne(people.id, exceptId)));
  if (taken)
    throw Refusal.at(409, 'username', `expected a sign-in name of your own, got ${JSON.stringify(username)}: somebody has it already`);
}

export async function createPerson(tx: Transaction, { name, role, jobId, username, password, pin }: NewPerson): Promise<string> {
  await expectFree(tx, name, username);
  const id = randomUUID();
  await tx
    .insert(people)
    .values({ ...{ id, name, role, jobId }, email: `${id}@people.invalid`, pinHash: pin === null ? null : await hashPassword(pin) });
  if (username !== null && password !== null) await setPassword(tx, id, username, password);
  return id;
}

async function setPassword(tx: Transaction, id: string, username: string, password: string): Promise<void> {
  await tx
    .update(people)
    .set({ username: username.toLowerCase(), displayUsername: username, updatedAt: new Date() })
    .where(eq(people.id, id));
  await tx.delete(credentials).where(and(eq(credentials.userId, id), eq(credentials.providerId, 'credential')));
  await tx
    .insert(credentials)
    .values({ id: randomUUID(), accountId: id, providerId: 'credential', userId: id, password: await hashPassword(password) });
}

/** The first person of an installation, its owner. Whoever does it must know the code that the start printed. */
export async function setUp(request: { code: string; name: string; username: string; password: string; pin: string }): Promise<string> {
  return database().transaction(async (tx) => {
    const [row] = await tx.select().from(settings).where(eq(settings.name, 'set-up code')).for('update');
    const [somebody] = await tx.select({ id: people.id }).from(people).limit(1);
    if (somebody) throw Refusal.at(409, '', 'This installation is set up already: sign in.');
    if (!row || row.value !== hashCode(request.code))
      throw Refusal.at(403, 'code', 'expected the code that the start has printed, got another one');
    const id = await createPerson(tx, { ...request, role: 'owner', jobId: null });
    await tx.delete(settings).where(eq(settings.name, 'set-up code'));
    await record(tx, request.name, 'set this installation up', request.name);
    return id;
  });
}

/** Check a secret of a person, and lock out who guesses: after five that were wrong nothing is checked for five minutes. */
async function expectSecret(personId: string, check: (row: typeof people.$inferSelect) => Promise<boolean>): Promise<void> {
  const wrong = 'That does not fit. Try again, or ask who lets people in for a new code.';
  const db = database();
  const [row] = await db.select().from(people).where(eq(people.id, personId));
  if (!row || row.leftAt !== null) throw Refusal.at(401, '', wrong);
  if (row.pinLockedUntil && row.pinLockedUntil > new Date())
    throw Refusal.at(429, '', `Too many that did not fit: wait until ${row.pinLockedUntil.toISOString().slice(11, 16)} UTC.`);
  if (await check(row)) {
    if (row.pinFailures > 0) await db.update(people).set({ pinFailures: 0, pinLockedUntil: null }).where(eq(people.id, personId));
    return;
  }
  // counted in the database: tries at the same moment count each
  const [counted] = await db
    .update(people)
    .set({ pinFailures: sql`${people.pinFailures} + 1` })
    .where(eq(people.id, personId))
    .returning({ failures: people.pinFailures, name: people.name });
  if (counted && counted.failures >= MOST_FAILURES) {
    const until = new Date(Date.now() + LOCK_MINUTES * 60_000);
    await db.update(people).set({ pinFailures: 0, pinLockedUntil: until }).where(eq(people.id, personId));
    await record(db, counted.name, 'locked out', `after ${MOST_FAILURES} that did not fit`);
  }
  throw Refusal.at(401, '', wrong);
}

/** Who has this sign-in name and password. */
export async function checkPassword(username: string, password: string): Promise<string> {
  const db = database();
  const [row] = await db
    .select({ id: people.id, hash: credentials.password })
    .from(people)
    .innerJoin(credentials, eq(credentials.userId, people.id))
    .where(eq(people.username, username.toLowerCase()));
  // as long for a name that nobody has
  if (!row?.hash) await hashPassword(password);
  await expectSecret(row?.id ?? '', async () => verifyPassword({ hash: row!.hash!, password }));
  return row!.id;
}

/** Digits of a person, on a device of the shop. */
export const checkPin = (personId: string, pin: string): Promise<void> =>
  expectSecret(personId, async ({ pinHash }) => pinHash !== null && verifyPassword({ hash: pinHash, password: pin }));

/** The answer with which a session begins: its cookie is in it. */
export async function beginSession(headers: Headers, personId: string, deviceId: string | null): Promise<Headers> {
  // on a device of the shop the last session of a person there gives way to the new one
  if (deviceId) {
    await database()
      .delete(sessions)
      .where(and(eq(sessions.userId, personId), eq(sessions.deviceId, deviceId)));
    await tell(database(), { topic: 'people' });
  }
  const auth = await findAuth();
  const begun = await auth.api.beginSession({ body: { personId, deviceId }, headers, asResponse: true });
  return begun.headers;
}

/** People who sign in with digits, for the faces on a device of the shop. */
export async function listFaces(): Promise<Person[]> {
  return database()
    .select(PERSON)
    .from(people)
    .where(and(isNull(people.leftAt), sql`${people.pinHash} is not null`))
    .orderBy(asc(people.name));
}

export interface PersonLine extends Person {
  /** of the job of a customer */
  jobName: string | null;
  username: string | null;
  hasPin: boolean;
  leftAt: string | null;
  sessions: number;
  seenAt: string | null;
}

/** Everybody, who left last. */
export async function listPeople(): Promise<PersonLine[]> {
  const now = new Date();
  const rows = await database()
    .select({
      ...{
        ...PERSON,
        jobName: jobs.name,
        username: people.displayUsername,
        pinHash: people.pinHash,
        leftAt: people.leftAt,
      },
      sessions: count(sessions.id),
      seenAt: sql<Date | null>`max(${sessions.updatedAt})`,
    })
    .from(people)
    .leftJoin(sessions, and(eq(sessions.userId, people.id), gt(sessions.expiresAt, now)))
    .leftJoin(jobs, eq(jobs.id, people.jobId))
    .groupBy(people.id, jobs.id)
    .orderBy(sql`${people.leftAt} is not null`, asc(people.name));
  return rows.map(({ pinHash, leftAt, seenAt, ...row }) => ({
    ...{ ...row, hasPin: pinHash !== null, leftAt: leftAt?.toISOString() ?? null },
    seenAt: seenAt === null ? null : new Date(seenAt).toISOString(),
  }));
}

/** A code for somebody new, or for who forgot. It lets one person in, once, within a week. */
export async function invite(
  by: Person,
  request: { name: string; role: Role; personId: string | null; jobId?: string | null },
): Promise<{ code: string }> {
  const code = createCode();
  const { name, role, personId, jobId = null } = request;
  await database().transaction(async (tx) => {
    if (personId === null) await expectFree(tx, name, null);
    const jobName = await readJobName(tx, role, jobId);
    const expiresAt = new Date(Date.now() + INVITE_DAYS * 86_400_000);
    await tx
      .insert(invites)
      .values({ ...{ id: randomUUID(), codeHash: hashCode(code), name, role, personId, jobId }, invitedBy: by.name, expiresAt });
    await record(tx, by.name, 'invited', `${name} as ${role}${jobName === null ? '' : ` of ${jobName}`}`);
  });
  return { code };
}

/** The job of a customer; null: somebody of the shop. A customer has one job, and nobody else has. */
async function readJobName(tx: Transaction, role: Role, jobId: string | null): Promise<string | null> {
  if ((role === 'customer') !== (jobId !== null))
    throw Refusal.at(400, 'jobId', `expected ${role === 'customer' ? 'the job of the customer' : `no job for a ${role}`}`);
  if (jobId === null) return null;
  const [job] = await tx.select({ name: jobs.name }).from(jobs).where(eq(jobs.id, jobId));
  if (!job) throw Refusal.at(404, 'jobId', 'There is no such job.');
  return job.name ?? '';
}

/** Who a code is for; refused where it is none, was used or is too old. */
export async function readInvite(code: string): Promise<{ name: string; role: Role; isAgain: boolean }> {
  const row = await findInvite(database(), code);
  return { name: row.name, role: row.role, isAgain: row.personId !== null };
}

async function findInvite(db: Pick<Database, 'select'>, code: string) {
  const [row] = await db
    .select()
    .from(invites)
    .where(and(eq(invites.codeHash, hashCode(code)), isNull(invites.usedAt), gt(invites.expiresAt, new Date())));
  if (!row)
    throw Refusal.at(
      404,
      'code',
      'expected a code that lets somebody in, got one that does not: it was used, is older than a week, or is another',
    );
  return row;
}

/** Let in who has the code. Gives the id of the person. */
export async function acceptInvite(request: {
  code: string;
  username: string | null;
  password: string | null;
  pin: string | null;
}): Promise<string> {
  const { code, username, password, pin } = request;
  return database().transaction(async (tx) => {
    const found = await findInvite(tx, code);
    if (found.role === 'customer' && password === null && found.personId === null)
      throw Refusal.at(400, 'password', 'expected a sign-in name and a password: digits are for the devices of the shop');
    const [used] = await tx
      .update(invites)
      .set({ usedAt: new Date() })
      .where(and(eq(invites.id, found.id), isNull(invites.usedAt)))
      .returning({ id: invites.id });
    if (!used) throw Refusal.at(409, 'code', 'This code has just been used.');
    if (found.personId === null) {
      const id = await createPerson(tx, { name: found.name, role: found.role, jobId: found.jobId, username, password, pin });
      await record(tx, found.name, 'came in', `as ${found.role}, invited by ${found.invitedBy}`);
      return id;
    }
    const id = found.personId;
    await expectFree(tx, found.name, username, id);
    if (username !== null && password !== null) await setPassword(tx, id, username, password);
    await tx
      .update(people)
      .set({ leftAt: null, pinFailures: 0, pinLockedUntil: null, ...(pin === null ? {} : { pinHash: await hashPassword(pin) }) })
      .where(eq(people.id, id));
    await tx.delete(sessions).where(eq(sessions.userId, id));
    await tell(tx, { topic: 'people' });
    await record(tx, found.name, 'came in again', `with a code of ${found.invitedBy}`);
    return id;
  });
}

async function expectOwnerLeft(tx: Transaction): Promise<void> {
  const [row] = await tx
    .select({ owners: count(people.id) })
    .from(people)
    .where(and(eq(people.role, 'owner'), isNull(people.leftAt)));
  if (row!.owners === 0) throw Refusal.at(409, '', 'Somebody has to let people in: make another one owner first.');
}

/** Change what somebody may do, or end their access with all their sessions. What they signed stays signed. */
export async function changePerson(
  by: Person,
  id: string,
  change: { role?: Role; hasLeft?: boolean; endSessions?: boolean },
): Promise<void> {
  await database().transaction(async (tx) => {
    await tx.execute(sql`lock table ${people} in share row exclusive mode`);
    const [row] = await tx.select().from(people).where(eq(people.id, id));
    if (!row) throw Refusal.at(404, '', 'There is no such person.');
    if (change.role !== undefined && change.role !== row.role) {
      if (row.role === 'customer' || change.role === 'customer')
        throw Refusal.at(409, 'role', 'A customer has one job and a role of its own: let them in anew as what they are now.');
      await tx.update(people).set({ role: change.role, updatedAt: new Date() }).where(eq(people.id, id));
      await record(tx, by.name, 'changed a role', `${row.name}: ${row.role} → ${change.role}`);
    }
    if (change.hasLeft && row.leftAt === null) {
      await tx.update(people).set({ leftAt: new Date(), updatedAt: new Date() }).where(eq(people.id, id));
      await record(tx, by.name, 'ended access', row.name);
    }
    await expectOwnerLeft(tx);
    if (change.hasLeft || change.endSessions) {
      await tx.delete(sessions).where(eq(sessions.userId, id));
      if (!change.hasLeft) await record(tx, by.name, 'ended sessions', row.name);
    }
    await tell(tx, { topic: 'people' });
  });
}

export interface DeviceLine {
  id: string;
  name: string;
  addedBy: string;
  addedAt: string;
}

export async function listDevices(): Promise<DeviceLine[]> {
  const rows = await database().select().from(devices).orderBy(desc(devices.addedAt));
  return rows.map(({ id, name, addedBy, addedAt }) => ({ id, name, addedBy, addedAt: addedAt.toISOString() }));
}

/** A device that was lost or given away: nobody signs in on it with digits any more, and who is signed in there is not. */
export async function removeDevice(by: Person, id: string): Promise<void> {
  await database().transaction(async (tx) => {
    const [gone] = await tx.delete(devices).where(eq(devices.id, id)).returning({ name: devices.name });
    if (!gone) throw Refusal.at(404, '', 'There is no such device.');
    await tx.delete(sessions).where(eq(sessions.deviceId, id));
    await tell(tx, { topic: 'people' });
    await record(tx, by.name, 'took a device out', gone.name);
  });
}

export interface AuditLine {
  at: string;
  person: string;
  what: string;
  about: string;
}

const MOST_AUDIT = 200;

/** What decided who may do what, the newest first. */
export async function listAudit(): Promise<AuditLine[]> {
  const rows = await database().select().from(audit).orderBy(desc(audit.serial)).limit(MOST_AUDIT);
  return rows.map(({ at, person, what, about }) => ({ at: at.toISOString(), person, what, about }));
}
