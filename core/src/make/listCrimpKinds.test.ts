import { CATALOGUE } from '../catalogue';
import { createSkerry } from '../demo';
import { plan, type PlannedTermination } from '../plan';
import { listCrimpKinds } from './index';

const { looms } = plan(createSkerry(), CATALOGUE);

test('every crimp is of one kind with all of its tooling; the kinds count them all, most first', () => {
  for (const { terminations } of looms)
    for (const endId of new Set(terminations.map((one) => one.endId))) {
      const here = terminations.filter((one) => one.endId === endId);
      const { kinds, kindOf } = listCrimpKinds(here);
      expect(kinds.reduce((sum, { count }) => sum + count, 0)).toBe(here.length);
      expect(kinds.map(({ count }) => count)).toEqual(kinds.map(({ count }) => count).sort((a, b) => b - a));
      for (const one of here) {
        const { contactName, sealName, stripMm, tool, positioner } = one;
        expect(kindOf(one)).toMatchObject({ contactName, sealName, stripMm, tool, positioner });
      }
    }
});

test('kinds are lettered past z', () => {
  const one = looms[0]!.terminations[0]!;
  const many = Array.from({ length: 30 }, (_, at): PlannedTermination => ({ ...one, stripMm: at }));
  const { kinds } = listCrimpKinds(many);
  expect([kinds[0]!.letter, kinds[25]!.letter, kinds[26]!.letter, kinds[29]!.letter]).toEqual(['a', 'z', 'aa', 'ad']);
});
