import { render, screen } from '@testing-library/react';
import { setPerson } from '../../client/person';
import type { OpenProblem } from '../../server/jobs/openProblems';
import { IMKE } from '../../testing/person';
import { FloorProblems } from './FloorProblems';

const PROBLEM: OpenProblem = {
  ...{ id: 'p1', jobId: 'job', job: 'Skerry 12', release: 2, loomId: 'inlet', loom: 'inlet', stepId: 'slide.t4', step: 'Slide a sleeve' },
  ...{ words: 'sleeve too tight', author: 'Tobin Ashgrove', at: '2026-11-29T08:00:00Z', hasPhoto: false, owner: 'Jun Okafor' },
};
const NOW = Date.parse('2026-11-29T08:05:00Z');

test('a problem from the floor leads to its step and says who is asked first: whoever reads it, by that', () => {
  setPerson(IMKE);
  render(<FloorProblems problems={[PROBLEM, { ...PROBLEM, id: 'p2', words: 'no reel left', owner: IMKE.name, release: 3 }]} now={NOW} />);
  const [first, second] = screen.getAllByRole('listitem');
  expect(first!.textContent).toContain('for Jun Okafor, who released revision 2');
  expect(second!.textContent).toContain('for you, who released revision 3');
  expect(screen.getByRole('link', { name: 'sleeve too tight' }).getAttribute('href')).toBe(
    '/jobs/job/floor?loom=inlet&release=2&card=step%20slide.t4',
  );
});

test('with nothing told there is no place for it', () => {
  setPerson(IMKE);
  render(<FloorProblems problems={[]} now={null} />);
  expect(screen.queryByRole('region')).toBeNull();
});
