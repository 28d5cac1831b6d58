import { isFileValue, type FirstPower, type PowerProof } from '../../make';
import { roundTo } from '../../units';
import { writeCsv } from '../toCsv';

/** Voltages that go into the file of the controller (craft E2), as they were read; empty where nothing that holds was read yet. */
export function toFileValuesCsv({ tests }: Pick<FirstPower, 'tests'>, proofs: ReadonlyMap<string, PowerProof>): string {
  return writeCsv(
    ['what', 'V', 'instrument', 'by', 'at'],
    tests.filter(isFileValue).map(({ id, words }) => {
      const proof = proofs.get(id);
      return proof && proof.voidBecause === null
        ? [words, roundTo(proof.value, 3), proof.instrument, proof.author, proof.at]
        : [words, '', '', '', ''];
    }),
  );
}
