import { AMBIENT_TEST } from './listLookTests';
import type { FirstPower, PowerPart, PowerTest } from './types';

/** How a test stands. */
export type PowerVerdict = 'unread' | 'passed' | 'failed';

/** A test with its reading and what that comes to. */
export interface JudgedTest {
  test: PowerTest;
  value: number | null;
  verdict: PowerVerdict;
  least: number | null;
  most: number | null;
}

/** The sheet as it stands: it goes on only where nothing surprised (craft E2). */
export interface JudgedPower {
  tests: JudgedTest[];
  parts: { part: PowerPart; passed: number; failed: number; total: number }[];
  /** what surprised: the sheet stops there */
  failed: JudgedTest[];
  /** what is read next; null: something surprised, or all that can be read here is */
  next: JudgedTest | null;
  /** what waits for a condition: carried on until it is there */
  later: JudgedTest[];
}

/** The look of which 1 says that a device woke with a feed that should leave it asleep. */
export const toWokenId = (test: PowerTest, deviceId: string): string => `woke ${test.id} ${deviceId}`;

/** Devices that were seen to wake with a feed and should not have. */
export const listWoken = (test: PowerTest, values: ReadonlyMap<string, number>): string[] => {
  const start = toWokenId(test, '');
  return [...values].flatMap(([id, value]) => (id.startsWith(start) && value === 1 ? [id.slice(start.length)] : []));
};

/** Judge every reading that holds. */
export function judgePower({ tests, restApartK }: FirstPower, values: ReadonlyMap<string, number>): JudgedPower {
  const ambientC = values.get(AMBIENT_TEST) ?? null;
  const judged = tests.map((test): JudgedTest => {
    const value = values.get(test.id) ?? null;
    const isRest = test.unit === '°C' && test.id !== AMBIENT_TEST;
    // without the air there is nothing to compare it with
    if (isRest && ambientC === null) return { test, value, verdict: 'unread', least: null, most: null };
    const [least, most] = isRest && ambientC !== null ? [ambientC - restApartK, ambientC + restApartK] : [test.least, test.most];
    const isGood =
      value !== null &&
      (least === null || value >= least - 1e-9) &&
      (most === null || value <= most + 1e-9) &&
      listWoken(test, values).length === 0;
    return { test, value, verdict: value === null ? 'unread' : isGood ? 'passed' : 'failed', least, most };
  });
  const failed = judged.filter(({ verdict }) => verdict === 'failed');
  const parts = [...new Set(tests.map(({ part }) => part))].map((part) => {
    const of = judged.filter(({ test }) => test.part === part);
    const count = (verdict: PowerVerdict) => of.filter((one) => one.verdict === verdict).length;
    return { part, passed: count('passed'), failed: count('failed'), total: of.length };
  });
  // what waits for a condition is not next by itself
  const isNext = ({ test, verdict }: JudgedTest) => verdict === 'unread' && test.part !== 'later';
  const later = judged.filter(({ test, verdict }) => verdict === 'unread' && test.part === 'later');
  return { tests: judged, parts, failed, next: failed.length > 0 ? null : (judged.find(isNext) ?? null), later };
}

/** Is there power on the vehicle in this part of the sheet? */
const UNPOWERED: ReadonlySet<PowerPart> = new Set<PowerPart>(['bare', 'grounds', 'buses', 'stand']);
export const isPowered = (part: PowerPart): boolean => !UNPOWERED.has(part);
