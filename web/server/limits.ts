import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { Refusal } from './refusal';

/** as many requests of one person a minute as no work by hand makes, on all their devices together */
const USUAL = 3000;
const MINUTE_S = 60;
/** wrong digits, passwords and codes of one address, over all people, in so long */
const MOST_GUESSES = 60;
const GUESS_S = 900;

/** What is counted: requests of a person, those that a worker has to plan for, and those of an address that nobody is signed in at. */
export type Counted = 'person' | 'costly' | 'address';
const SHARE: Record<Counted, number> = { person: 1, costly: 1 / 25, address: 1 / 5 };

function readMost(): number {
  const asked = process.env.WATTOGRAPH_REQUESTS;
  const most = asked === undefined ? USUAL : Number(asked);
  if (!Number.isInteger(most) || most < 25)
    throw new Error(`WATTOGRAPH_REQUESTS: expected a whole number of requests a minute, at least 25, got ${asked}`);
  return most;
}

interface Limits {
  spent: Record<Counted, RateLimiterMemory>;
  guesses: RateLimiterMemory;
}

const holder = globalThis as typeof globalThis & { wattographLimits?: Limits };

function findLimits(): Limits {
  if (holder.wattographLimits) return holder.wattographLimits;
  const most = readMost();
  const create = (kind: Counted) => new RateLimiterMemory({ points: Math.round(most * SHARE[kind]), duration: MINUTE_S });
  return (holder.wattographLimits = {
    spent: { person: create('person'), costly: create('costly'), address: create('address') },
    guesses: new RateLimiterMemory({ points: MOST_GUESSES, duration: GUESS_S }),
  });
}

const tooMany = (left: RateLimiterRes): Refusal => {
  const afterS = Math.max(1, Math.ceil(left.msBeforeNext / 1000));
  return new Refusal(429, [{ path: '', message: `Too many requests: wait ${afterS} s. Nothing was stored.` }], { retryAfterS: afterS });
};

/** Count a request of somebody. Throws 429, with how long to wait, where there are too many. */
export async function spend(kind: Counted, who: string): Promise<void> {
  try {
    await findLimits().spent[kind].consume(who);
  } catch (error) {
    if (error instanceof RateLimiterRes) throw tooMany(error);
    throw error;
  }
}

/** The address that a request comes from, as the application itself was told by the connection. */
export const toAddress = (headers: Pick<Headers, 'get'>): string => headers.get('x-peer') ?? '';

const WRONG = new Set([401, 403, 404]);

/** Try a secret. Those that do not fit are counted for the address, over all people: a list of names is no way round a lock-out. */
export async function guess<T>(headers: Pick<Headers, 'get'>, attempt: () => Promise<T>): Promise<T> {
  const { guesses } = findLimits();
  const address = toAddress(headers);
  const before = await guesses.get(address);
  if (before && before.consumedPoints >= MOST_GUESSES) throw tooMany(before);
  try {
    return await attempt();
  } catch (error) {
    if (error instanceof Refusal && WRONG.has(error.status)) await guesses.penalty(address);
    throw error;
  }
}
