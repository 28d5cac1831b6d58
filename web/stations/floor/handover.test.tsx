import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { CATALOGUE, createBuild, listClaims, listWork, measureProgress, plan, type FloorDeed } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import type { FloorEvent } from '../../server/floorEvent';
import { choose, press } from '../../testing/act';
import { copyText } from '../../ui/table/copyText';
import { HandoverDialog } from './HandoverDialog';

jest.mock('../../ui/table/copyText', () => ({ copyText: jest.fn() }));

const job = createInlet();
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const NOW = Date.UTC(2026, 10, 28, 16);
const HOUR = 3_600_000;
const event = (stepId: string, itemId: string, hoursAgo: number, kind: FloorEvent['kind'] = 'tick', words = ''): FloorEvent => ({
  ...{ id: `${stepId} ${itemId} ${kind}`, loomId: 'inlet', stepId, itemId, kind, words, author: 'Tobin Ashgrove' },
  happenedAt: new Date(NOW - hoursAgo * HOUR).toISOString(),
});

function open(events: FloorEvent[]) {
  const deeds = events.map((one): FloorDeed => ({ ...one, atMs: Date.parse(one.happenedAt) }));
  const progress = measureProgress(steps, events);
  render(
    <MantineProvider env="test">
      <HandoverDialog
        title="Skerry 12 · inlet, revision 1"
        loom={job.looms.inlet!}
        work={listWork(steps, (stepId, itemId) => progress.get(stepId)!.ticked.has(itemId))}
        deeds={deeds}
        claims={listClaims(steps, deeds, { nowMs: NOW, leaseMin: 20 })}
        progress={progress}
        crimps={{ quarantines: [], unproved: [], toWhere: () => '' }}
        nowMs={NOW}
        onClose={() => undefined}
      />
    </MantineProvider>,
  );
}
const lines = (name: RegExp | string) =>
  within(screen.getByRole('region', { name }))
    .getAllByRole('listitem')
    .map(({ textContent }) => textContent);

test('says what was done, what is begun, told and waits; further back it says more; as text it is the same', () => {
  const cuts = steps.filter(({ operation, items }) => operation === 'cut' && items.every((item) => item.heldBecause === null));
  const many = cuts.find(({ items }) => items.length > 2)!;
  const [whole, part, old] = cuts.filter((step) => step !== many);
  open([
    ...whole!.items.map(({ id }) => event(whole!.id, id, 1)),
    ...old!.items.map(({ id }) => event(old!.id, id, 20)),
    event(many.id, many.items[0]!.id, 2),
    event(part!.id, 'step', 1, 'problem', 'spool is empty'),
    event('', 'end thr', 0.1, 'take'),
  ]);
  expect(lines('Done by Tobin Ashgrove')).toContain(whole!.title);
  expect(lines('Done by Tobin Ashgrove')).not.toContain(old!.title);
  expect(lines(/^Begun and not finished/)).toEqual([`${many.title}, 1 of ${many.items.length} (Tobin Ashgrove)`]);
  expect(lines('Problems')).toEqual([`${part!.title}: spool is empty (Tobin Ashgrove), not answered`]);
  expect(lines('Who is where')).toContain('throttle: Tobin Ashgrove');
  expect(lines('Waiting')[0]).toMatch(/^\d+ steps wait for cut and mark/);
  expect(lines('Held')).toContain('N-222: length to knock sensor only guessed');
  choose('How far back', '24 hours');
  expect(lines('Done by Tobin Ashgrove')).toContain(old!.title);
  press('Copy as text');
  const text = (copyText as jest.Mock).mock.calls[0]![0] as string;
  expect(text.split('\n')[0]).toMatch(/^Skerry 12 · inlet, revision 1, 28 Nov 2026/);
  for (const line of lines('Done by Tobin Ashgrove')) expect(text).toContain(`- ${line}`);
  expect(screen.getByRole('button', { name: 'Copied' })).toBeTruthy();
  choose('How far back', '4 hours');
  fireEvent.click(screen.getByRole('button', { name: 'Copy as text' }));
  expect((copyText as jest.Mock).mock.calls[1]![0]).not.toContain(`- ${old!.title}`);
});
