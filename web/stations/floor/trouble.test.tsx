import { MantineProvider } from '@mantine/core';
import { ModalsProvider } from '@mantine/modals';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { setPerson } from '../../client/person';
import type { FloorEvent } from '../../server/floorEvent';
import { press } from '../../testing/act';
import { say } from '../../testing/say';
import { IMKE, TOBIN } from '../../testing/person';
import { Trouble } from './Trouble';

const event = (kind: FloorEvent['kind'], itemId: string, words: string, author: string): FloorEvent => ({
  ...{ id: `${kind} ${itemId}`, loomId: 'inlet', stepId: 'crimp.inj1', itemId, kind, words, author },
  happenedAt: '2026-11-24T08:00:00Z',
});
const PROBLEM = event('problem', 'step', 'sleeve too tight', 'Tobin Ashgrove');
const told = { answer: jest.fn(), solved: jest.fn() };

function open(person: typeof IMKE, answer: FloorEvent | null = null, kept: Blob | null = null) {
  cleanup();
  setPerson(person);
  render(
    <MantineProvider env="test">
      <ModalsProvider>
        <Trouble
          jobId="job"
          title="Crimp injector 1"
          told={{ trouble: PROBLEM, answer }}
          kept={kept}
          author={person.name}
          onAnswer={told.answer}
          onSolved={told.solved}
        />
      </ModalsProvider>
    </MantineProvider>,
  );
}
const write = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
  fireEvent.blur(screen.getByLabelText(label));
};

beforeEach(() => Object.values(told).forEach((one) => one.mockClear()));

test('the crew is told where the problem went, and says that it is solved; it does not answer', () => {
  open(TOBIN);
  expect(screen.getByText('It is on the wall of whoever plans.')).toBeTruthy();
  expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual(['solved']);
  press('solved');
  expect(told.solved).toHaveBeenCalledTimes(1);
});

test('a picture of the problem shows once the server has one of its id', async () => {
  const listed: { id: string }[] = [{ id: 'another' }];
  global.fetch = jest.fn((path: string) => {
    expect(path).toBe('/api/jobs/job/photos');
    return Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(structuredClone(listed)) });
  }) as unknown as typeof fetch;
  open(IMKE);
  await waitFor(() => expect(global.fetch).toHaveBeenCalledTimes(1));
  expect(screen.queryByRole('img')).toBeNull();
  listed.push({ id: PROBLEM.id });
  say({ topic: 'photos', id: 'job' });
  expect((await screen.findByRole<HTMLImageElement>('img', { name: 'photo of the problem' })).src).toContain('/api/photos/problem');
});

test('who took a picture sees it at the step while it waits; once the server has it, that one', async () => {
  const listed: { id: string }[] = [];
  global.fetch = jest.fn(() =>
    Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(structuredClone(listed)) }),
  ) as unknown as typeof fetch;
  URL.createObjectURL = () => 'blob:waiting';
  URL.revokeObjectURL = jest.fn();
  open(TOBIN, null, new Blob(['x']));
  expect(screen.getByRole<HTMLImageElement>('img', { name: 'photo of the problem' }).src).toBe('blob:waiting');
  expect(screen.getByText('kept here, not sent yet')).toBeTruthy();
  listed.push({ id: PROBLEM.id });
  say({ topic: 'photos', id: 'job' });
  await waitFor(() => expect(screen.queryByText('kept here, not sent yet')).toBeNull());
  expect(screen.getByRole<HTMLImageElement>('img', { name: 'photo of the problem' }).src).toContain('/api/photos/problem');
  expect(URL.revokeObjectURL).toHaveBeenCalledWith('blob:waiting');
});

test.each([
  ['Carry on', 'carry-on'],
  ['Redo', 'redo'],
  ['Change', 'change'],
])('whoever plans answers "%s" with words, never without', async (button, answer) => {
  open(IMKE);
  press(button);
  const keep = await screen.findByRole<HTMLButtonElement>('button', { name: 'Keep' });
  expect(keep.disabled).toBe(true);
  write('Reason', 'as the sketch says');
  press('Keep');
  await waitFor(() => expect(told.answer.mock.calls).toEqual([[answer, 'as the sketch says']]));
});

test('an answer stands at the step with who gave it, and is not asked for again', () => {
  open(IMKE, event('answer', 'redo', 'the die was the wrong one', 'Imke Dorsey'));
  expect(screen.getByText('Do it over:').parentElement!.textContent).toBe('Do it over: the die was the wrong one (Imke Dorsey)');
  expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual(['solved']);
});

describe('let pass until a day', () => {
  const sent: { path: string; body: unknown }[] = [];
  let answers: number[] = [];
  beforeEach(() => {
    sent.length = 0;
    global.fetch = jest.fn((path: string, { body }: { body?: string } = {}) => {
      sent.push({ path, body: body === undefined ? null : (JSON.parse(body) as unknown) });
      const status = path.endsWith('/edits') ? answers.shift()! : 200;
      const said = status === 200 ? { version: 7 } : { problems: [{ path: 'base', message: `refused with ${status}` }] };
      return Promise.resolve({ ok: status < 400, status, json: () => Promise.resolve(said) });
    }) as unknown as typeof fetch;
  });
  const fill = async () => {
    open(IMKE);
    press('Let pass until …');
    const pass = await screen.findByRole<HTMLButtonElement>('button', { name: 'Let it pass' });
    // neither without a day nor without somebody who asks the customer
    expect(pass.disabled).toBe(true);
    write('Until', '1 Feb 2027');
    expect(pass.disabled).toBe(true);
    write('Who asks the customer', 'Jun Okafor');
    expect(pass.disabled).toBe(false);
    press('Let it pass');
  };
  test('it becomes a concession of the job with its day and owner, tried again where somebody edits meanwhile; then the step is told', async () => {
    answers = [409, 200];
    await fill();
    await waitFor(() => expect(told.answer).toHaveBeenCalled());
    expect(told.answer.mock.calls).toEqual([['concession', 'sleeve too tight, until 2027-02-01; Jun Okafor asks the customer']]);
    const edits = sent.filter(({ path }) => path.endsWith('/edits')).map(({ body }) => body as { id: string; patch: unknown[] });
    expect(edits).toHaveLength(2);
    expect(edits[0]!.id).toBe(edits[1]!.id);
    expect(edits[1]!.patch).toEqual([
      expect.objectContaining({
        op: 'add',
        value: expect.objectContaining({
          ...{ kind: 'concession', question: 'Crimp injector 1: sleeve too tight', due: '2027-02-01', owner: 'Jun Okafor' },
        }),
      }),
    ]);
  });
  test.each([422, 500, 502])('with %i nothing is let pass, what was written stays, and it says so', async (status) => {
    answers = [status, status, status, status, status, status];
    await fill();
    expect(await screen.findByText('Not stored')).toBeTruthy();
    expect(screen.getByText(new RegExp(`refused with ${status}`))).toBeTruthy();
    expect(told.answer).not.toHaveBeenCalled();
    expect(screen.getByLabelText<HTMLInputElement>('Who asks the customer').value).toBe('Jun Okafor');
  });
});
