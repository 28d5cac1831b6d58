import { nameProbe, type ProofTest, type RingOut } from '../../make';
import { writeCsv } from '../toCsv';

export const TEST_COLUMNS = [
  'test',
  'kind',
  'from',
  'from cavity',
  'to',
  'to cavity',
  'net',
  'wires',
  'at A',
  'at V',
  'expected',
  'least',
  'most',
  'unit',
  'value',
] as const;

const figure = (value: number | null) => (value === null ? '' : Number(value.toPrecision(6)));

/** Measurements for a tester, in the order in which probes move least; value is left for it to fill in. */
export function toTestsCsv(ringOut: RingOut, tests: readonly ProofTest[] = ringOut.tests): string {
  const nets = new Map(ringOut.nets.map(({ id, name }) => [id, name]));
  return writeCsv(
    [...TEST_COLUMNS],
    tests.map(({ id, kind, from, to, netId, wires, atA, expected, least, most, unit }) => [
      ...[id, kind, nameEnd(ringOut, from.endId), from.cavity, to === null ? 'all others' : nameEnd(ringOut, to.endId), to?.cavity ?? ''],
      ...[nets.get(netId) ?? '', wires.join(' '), figure(atA), kind === 'isolate' ? ringOut.isolationVolts : ''],
      ...[figure(expected), figure(least), figure(most), unit, ''],
    ]),
  );
}

const nameEnd = (ringOut: RingOut, endId: string) => nameProbe(ringOut, { endId, cavity: '' }).replace(/ · $/, '');
