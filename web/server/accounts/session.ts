import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { and, eq, gt, isNull } from 'drizzle-orm';
import { database } from '../database';
import { devices, people, PERSON, sessions } from '../schema';
import type { Person } from './rights';

/** The device that a request comes from: one of the shop, for as long as it is listed. */
export const DEVICE_COOKIE = 'wattograph.device';
const DEVICE_COOKIE_S = 400 * 24 * 3600;
const TOKEN_BYTES = 32;
/** who did what is sent, where that is not who is signed in now: a tablet that several people work at */
export const PERSON_HEADER = 'x-person';

const hash = (token: string): string => createHash('sha256').update(token).digest('hex');

export function readCookie(headers: Pick<Headers, 'get'>, name: string): string | null {
  const found = (headers.get('cookie') ?? '').split(/;\s*/).find((part) => part.startsWith(`${name}=`));
  return found ? found.slice(name.length + 1) : null;
}

/** Id of the device of the shop that a request comes from; null: from another one. */
export async function findDevice(headers: Pick<Headers, 'get'>): Promise<string | null> {
  const token = readCookie(headers, DEVICE_COOKIE);
  if (!token) return null;
  const [row] = await database()
    .select({ id: devices.id })
    .from(devices)
    .where(eq(devices.tokenHash, hash(token)));
  return row?.id ?? null;
}

/** Make the device that asks one of the shop. Gives its id, and the cookie that says so from now on. */
export async function addDevice(name: string, addedBy: string, isSecure: boolean): Promise<{ id: string; cookie: string }> {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const id = randomUUID();
  await database()
    .insert(devices)
    .values({ id, tokenHash: hash(token), name, addedBy });
  const cookie = `${DEVICE_COOKIE}=${token}; Path=/; Max-Age=${DEVICE_COOKIE_S}; HttpOnly; SameSite=Lax${isSecure ? '; Secure' : ''}`;
  return { id, cookie };
}

/** Who sent it, where a device of the shop says that somebody else than who is signed in now did: that person must have signed in there. */
export async function findOnDevice(headers: Pick<Headers, 'get'>, personId: string): Promise<Person | null> {
  const deviceId = await findDevice(headers);
  if (!deviceId) return null;
  const [row] = await database()
    .select(PERSON)
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.userId))
    .where(and(eq(sessions.deviceId, deviceId), eq(sessions.userId, personId), gt(sessions.expiresAt, new Date()), isNull(people.leftAt)))
    .limit(1);
  return row ?? null;
}
