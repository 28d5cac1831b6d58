import { listWoken, type JudgedPower, type JudgedTest } from './judgePower';
import type { FirstPower, PowerTest } from './types';

const list = (names: readonly string[], most = 6): string =>
  names.length > most ? `${names.slice(0, most).join(', ')} and ${names.length - most} more` : names.join(', ');

/** What a surprise comes to with all that was read before it: what is known good, and where to look first. */
export function explainPower(
  sheet: FirstPower,
  judged: JudgedPower,
  { test, value, least, most }: JudgedTest,
  values: ReadonlyMap<string, number>,
): string[] {
  if (value === null) return [];
  if (test.part === 'bare')
    return ['Something joins the feed to ground before any fuse: pull the rings of the battery’s stud one by one and read again.'];
  if (test.part === 'grounds')
    return ['Ring, paint under it, nut or strap: measure from the stud to the ring, then from the ring to its wire.'];
  if (test.part === 'buses') return explainBus(test, value);
  if (test.part === 'feeds') return explainFeed(sheet, test, value, { least, most }, values);
  if (test.unit !== 'V') return [];
  if (test.expected === 0) return explainLive(sheet, judged, test);
  return explainLost(sheet, judged, test, value);
}

/** Too many ohms: a terminator is not reached; too few: one too many, or the lines touch. */
function explainBus({ note, expected }: PowerTest, value: number): string[] {
  if (value < expected! / 10) return ['The two lines of the bus touch: pull the plugs that it goes to one by one and read again.'];
  if (value < expected!) return [`There is one terminator too many, in a box that was left in or at another end. Planned: ${note}.`];
  return [
    `A terminator is not reached by both lines: a plug between two looms that is not closed, a line that is open, or the part is not there. Planned: ${note}.`,
  ];
}

/** A feed that wakes what it should not: its net and that of the other are one (craft E2). */
function explainFeed(
  sheet: FirstPower,
  test: PowerTest,
  value: number,
  { least, most }: { least: number | null; most: number | null },
  values: ReadonlyMap<string, number>,
): string[] {
  const { name } = test;
  const woken = listWoken(test, values);
  if (woken.length > 0) {
    const others = sheet.tests.filter((one) => one.part === 'feeds' && one.id !== test.id && one.wakes.some((id) => woken.includes(id)));
    const by = others.map((other) => other.name);
    return [
      `Two nets are joined behind ${name}: ${list(woken.map((id) => sheet.devices[id] ?? id))} ${woken.length === 1 ? 'hangs' : 'hang'} on ${by.length > 0 ? list(by) : 'another feed'}.`,
    ];
  }
  if (most !== null && value > most)
    return [
      `More flows behind ${name} than its loads draw: look which load woke that should not have, and say so; else a load is other than planned, or short.`,
    ];
  return least !== null && value < least
    ? [`Less flows behind ${name} than its loads draw: one of them is not reached, or not as planned: ${test.note}.`]
    : [];
}

/** Live where it should be dead: what is live in that state at the same plug, and everywhere else. */
function explainLive(sheet: FirstPower, { tests }: JudgedPower, test: PowerTest): string[] {
  const alive = tests.filter((one) => one.test.stateId === test.stateId && one.test.unit === 'V' && one.test.expected !== 0);
  const beside = alive.filter((one) => one.test.endIds.some((id) => test.endIds.includes(id)));
  return [
    beside.length > 0
      ? `Live at the same plug in this state: ${list(beside.map((one) => one.test.name))}. A cavity beside one of them, or one exchanged with it, first.`
      : alive.length > 0
        ? 'Nothing else is live at this plug in this state: a wire of another plug is in it, or a link that should be open is not.'
        : 'Nothing is live in this state: a switch does not stand as said, or something goes round it.',
    ...(test.part === 'unplugged' ? [] : ['A channel that was left on by hand looks the same: take it back first.']),
  ];
}

/** Dead or low where it should be live: what lies on its way, less all that another reading of that state proved. */
function explainLost(sheet: FirstPower, { tests }: JudgedPower, test: PowerTest, value: number): string[] {
  const words = new Map(sheet.elements.map((one) => [one.id, one.words]));
  const proved = new Set(
    tests.flatMap((one) => (one.verdict === 'passed' && one.test.unit === 'V' && one.test.stateId === test.stateId ? one.test.path : [])),
  );
  const failing = tests.filter((one) => one.verdict === 'failed' && one.test.stateId === test.stateId && one.test.path.length > 0);
  const suspects = test.path.filter((id) => !proved.has(id));
  const shared = suspects.filter((id) => failing.every((one) => one.test.path.includes(id)));
  const named = (failing.length > 1 && shared.length > 0 ? shared : suspects).map((id) => words.get(id) ?? id);
  const isDead = value < (test.expected ?? 0) / 10;
  return [
    named.length > 0
      ? `${isDead ? 'Open' : 'A high resistance'} on its way, source first: ${list(named)}.${proved.size > 0 && suspects.length < test.path.length ? ' All before that was proved by other cavities.' : ''}`
      : 'All of its way was proved by other cavities: the contact in this cavity, or the load that it is read through.',
  ];
}
