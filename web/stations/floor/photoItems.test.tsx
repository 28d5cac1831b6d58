import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ComponentProps } from 'react';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import type { FloorEvent } from '../../server/floorEvent';
import { press } from '../../testing/act';
import { PhotoItems } from './PhotoItems';

const catalogue = {
  ...CATALOGUE,
  standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, photoBeforeCover: true } },
};
const job = createInlet();
const planned = plan(job, catalogue).looms[0]!;
const step = createBuild(job, planned, catalogue).steps.find(({ operation }) => operation === 'photo')!;
const splice = planned.splices[0]!;
const store = { add: jest.fn(), addWithPhoto: jest.fn() };
type Some = Partial<ComponentProps<typeof PhotoItems>>;
const open = (some: Some = {}) => {
  cleanup();
  render(
    <MantineProvider env="test">
      <PhotoItems
        jobId="job"
        plan={planned}
        step={step}
        here={{ ticked: new Set(), carried: new Map() }}
        told={[]}
        store={store}
        author="Tobin Ashgrove"
        waiting={[]}
        {...some}
      />
    </MantineProvider>,
  );
};
const field = (words: RegExp) => screen.getByLabelText<HTMLInputElement>(words);
const take = (words: RegExp, file: File) => fireEvent.change(field(words), { target: { files: [file] } });
const picture = (bytes: number) => {
  const file = new File(['x'], 'a.jpg', { type: 'image/jpeg' });
  Object.defineProperty(file, 'size', { value: bytes });
  return file;
};
let listed: { id: string }[] = [];

beforeEach(() => {
  Object.values(store).forEach((one) => one.mockClear());
  listed = [];
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  global.fetch = jest.fn(() =>
    Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(structuredClone(listed)) }),
  ) as unknown as typeof fetch;
});

test('each thing is done with its picture: of a splice where it branches, of the whole at the datum', () => {
  open();
  expect(screen.getAllByRole('listitem')).toHaveLength(1 + planned.splices.length);
  take(/^Photo: the whole loom/, picture(1000));
  expect(store.addWithPhoto).toHaveBeenLastCalledWith(
    { loomId: 'inlet', stepId: 'photo', itemId: 'whole', kind: 'tick', words: '', author: 'Tobin Ashgrove' },
    { blob: expect.anything(), node: planned.tree.datumId, caption: expect.stringMatching(/^Before it is covered: the whole loom/) },
  );
  take(new RegExp(`^Photo: splice ${splice.label},`), picture(1000));
  expect(store.addWithPhoto.mock.calls[1]![1]).toMatchObject({ node: splice.nodeId });
});

test('a file that is too large is refused, and nothing is ticked', () => {
  open();
  take(/^Photo: the whole loom/, picture(30 * 1024 * 1024));
  expect(screen.getByRole('alert').textContent).toContain('expected at most 20 MB, got 30 MB');
  expect(store.addWithPhoto).not.toHaveBeenCalled();
});

test('what is done shows its picture, from here until the server has it, and is taken back', async () => {
  const tick: FloorEvent = {
    ...{ id: 'tick 1', loomId: 'inlet', stepId: 'photo', itemId: 'whole', kind: 'tick', words: '', author: 'Tobin Ashgrove' },
    happenedAt: '2026-11-30T08:00:00Z',
  };
  const waiting = [
    { id: 'tick 1', loom: 'inlet', node: 'datum', caption: '', author: '', takenAt: '2026-11-30T08:00:00Z', blob: new Blob(['x']) },
  ];
  const here = { ticked: new Set(['whole']), carried: new Map<string, number>() };
  open({ here, told: [tick], waiting });
  expect(screen.getByText('kept here, not sent yet')).toBeTruthy();
  expect(field(/^Another photo: the whole loom/)).toBeTruthy();
  listed = [{ id: 'tick 1' }];
  open({ here, told: [tick] });
  await waitFor(() => expect(screen.getByRole<HTMLImageElement>('img').src).toContain('/api/photos/tick'));
  press('Not done');
  expect(store.add).toHaveBeenCalledWith(expect.objectContaining({ itemId: 'whole', kind: 'untick' }));
  open({ here: { ...here, carried: new Map([['whole', 2]]) } });
  expect(screen.getByText('done in revision 2, and the same now')).toBeTruthy();
});

test('what is held has no picture taken', () => {
  open({ step: { ...step, items: step.items.map((item) => ({ ...item, heldBecause: 'N-222: length only guessed' })) } });
  expect(field(/^Photo: the whole loom/).disabled).toBe(true);
  expect(screen.getAllByText('HELD: N-222: length only guessed')).toHaveLength(step.items.length);
});
