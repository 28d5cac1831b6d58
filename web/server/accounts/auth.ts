import { randomBytes } from 'node:crypto';
import { betterAuth } from 'better-auth/minimal';
import { createAuthEndpoint } from 'better-auth/api';
import { setSessionCookie } from 'better-auth/cookies';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { eq } from 'drizzle-orm';
import * as z from 'zod';
import { database } from '../database';
import { SHORTEST_PASSWORD } from './rights';
import { credentials, people, sessions, settings, verifications } from '../schema';

/** a week after signing in a session ends: its cookie is not renewed */
const SESSION_S = 7 * 24 * 3600;
const RENEWED_S = 3600;
const SECRET_BYTES = 32;

/** The key that signs the cookies of this installation: WATTOGRAPH_SECRET, or one made once and kept beside the sessions it signs. */
async function readSecret(): Promise<string> {
  if (process.env.WATTOGRAPH_SECRET) return process.env.WATTOGRAPH_SECRET;
  const db = database();
  await db
    .insert(settings)
    .values({ name: 'secret', value: randomBytes(SECRET_BYTES).toString('base64url') })
    .onConflictDoNothing();
  const [row] = await db.select().from(settings).where(eq(settings.name, 'secret'));
  return row!.value;
}

/** Begins a session for somebody who has shown who he is; only called here, never mounted on a route. */
const shopSessions = {
  id: 'shop-sessions',
  endpoints: {
    beginSession: createAuthEndpoint(
      '/begin-session',
      { method: 'POST', body: z.object({ personId: z.string(), deviceId: z.string().nullable() }) },
      async (context) => {
        const { personId, deviceId } = context.body;
        const user = await context.context.internalAdapter.findUserById(personId);
        if (!user) throw context.error('UNAUTHORIZED');
        const session = await context.context.internalAdapter.createSession(personId, false, { deviceId });
        await setSessionCookie(context, { session, user });
        return context.json({ personId });
      },
    ),
  },
};

async function create() {
  return betterAuth({
    appName: 'Wattograph',
    basePath: '/api/accounts',
    secret: await readSecret(),
    telemetry: { enabled: false },
    database: drizzleAdapter(database(), {
      provider: 'pg',
      schema: { user: people, session: sessions, account: credentials, verification: verifications },
    }),
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: SHORTEST_PASSWORD },
    plugins: [shopSessions],
    user: { additionalFields: { role: { type: 'string', input: false, required: true } } },
    session: {
      expiresIn: SESSION_S,
      updateAge: RENEWED_S,
      additionalFields: { deviceId: { type: 'string', input: false, required: false } },
    },
    // where a request comes from is decided at the door, for all routes alike: see guard.ts
    advanced: {
      disableCSRFCheck: true,
      disableOriginCheck: true,
      useSecureCookies: process.env.WATTOGRAPH_HTTPS === '1',
      cookiePrefix: 'wattograph',
      defaultCookieAttributes: { sameSite: 'lax', httpOnly: true },
    },
    rateLimit: { enabled: false },
    logger: { disabled: true },
  });
}

export type Auth = Awaited<ReturnType<typeof create>>;
const holder = globalThis as typeof globalThis & { wattographAuth?: Promise<Auth> };

/** The accounts library on this process's database. A start that failed, for the database was away, is tried again by the next who asks. */
export function findAuth(): Promise<Auth> {
  holder.wattographAuth ??= create().catch((error: unknown) => {
    delete holder.wattographAuth;
    throw error;
  });
  return holder.wattographAuth;
}
