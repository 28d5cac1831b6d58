import { MantineProvider } from '@mantine/core';
import { act, fireEvent, render, screen } from '@testing-library/react';
import type { CustomerView } from '../../server/jobs/customer';
import { IMKE } from '../../testing/person';
import { CustomerStation } from './CustomerStation';

const refresh = jest.fn();
const router = { refresh };
jest.mock('next/navigation', () => ({ useRouter: () => router }));
jest.mock('../../ui/accounts/Who', () => ({ Who: () => null }));
const answer = jest.fn<Promise<CustomerView>, unknown[]>();
jest.mock('../../client/request', () => ({
  ...jest.requireActual<object>('../../client/request'),
  request: (...asked: unknown[]) => answer(...asked),
}));

const QUESTION = { id: 'q', question: 'wets or slicks?', due: null, isLate: false, isHolding: false, answer: null, answeredBy: '' };
const view = (rest: Partial<CustomerView> = {}): CustomerView => ({
  ...{ id: 'job', name: 'Skerry 12', vehicle: '', customer: 'Penhallow', promisedOn: null, agreed: null, looms: [] },
  asked: [QUESTION as CustomerView['asked'][number]],
  ...rest,
});
const page = (shown: CustomerView) => (
  <MantineProvider>
    <CustomerStation view={shown} person={IMKE} />
  </MantineProvider>
);
const hide = (hidden: boolean) => {
  Object.defineProperty(document, 'hidden', { configurable: true, value: hidden });
  act(() => void document.dispatchEvent(new Event('visibilitychange')));
};

beforeEach(() => {
  jest.useFakeTimers();
  refresh.mockClear();
});
afterEach(() => {
  hide(false);
  jest.useRealTimers();
});

test('a page that is looked at is asked for anew; one in the background is not, and is when somebody comes back', () => {
  const { unmount } = render(page(view()));
  act(() => void jest.advanceTimersByTime(61_000));
  expect(refresh).toHaveBeenCalledTimes(2);
  hide(true);
  act(() => void jest.advanceTimersByTime(120_000));
  expect(refresh).toHaveBeenCalledTimes(2);
  hide(false);
  expect(refresh).toHaveBeenCalledTimes(3);
  unmount();
  act(() => void jest.advanceTimersByTime(120_000));
  expect(refresh).toHaveBeenCalledTimes(3);
});

test('what is newer is shown, and what is being written stays', () => {
  const { rerender } = render(page(view()));
  const field = () => screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Answer to: wets or slicks?' });
  fireEvent.change(field(), { target: { value: 'wets, I th' } });
  rerender(page(view({ promisedOn: '2026-12-24' })));
  expect(screen.getByText('2026-12-24')).toBeTruthy();
  expect(field().value).toBe('wets, I th');
});

test('an answer shows at once, asks for the page anew, and gives way to a newer one', async () => {
  const answered = view({ asked: [{ ...view().asked[0]!, answer: 'wets', answeredBy: 'Penhallow' }] });
  answer.mockResolvedValue(answered);
  const { rerender } = render(page(view()));
  fireEvent.change(screen.getByRole('textbox'), { target: { value: 'wets' } });
  await act(async () => {
    fireEvent.click(screen.getByRole('button', { name: 'Answer' }));
    await Promise.resolve();
  });
  expect(screen.getByRole('region', { name: 'What was answered' })).toBeTruthy();
  expect(refresh).toHaveBeenCalledTimes(1);
  rerender(page(view({ ...answered, promisedOn: '2026-12-24' })));
  expect([screen.queryByRole('textbox'), screen.getByText('2026-12-24').textContent]).toEqual([null, '2026-12-24']);
});
