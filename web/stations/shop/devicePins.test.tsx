import { act, fireEvent, screen, within } from '@testing-library/react';
import { checkShop, createDemoShop, toPinListCsv } from 'wattograph-core';
import { choose, press } from '../../testing/act';
import { chooseRecord, goTo, openShop, server, settle } from '../../testing/shopStation';

describe('the pins of a kind of device', () => {
  const rows = () => within(screen.getByRole('table', { name: 'What its pins give' }));
  const taken = async () => {
    press(/^Take \d+ change/);
    await settle();
    const { document } = server.posted.findLast(({ path }) => path === '/api/shop/preview')!.body;
    expect(checkShop(document)).toMatchObject({ ok: true });
    return document.devices['fuse-box']!;
  };
  const openBox = () => {
    openShop();
    goTo('Devices');
    fireEvent.change(screen.getByLabelText('Search'), { target: { value: 'fuse box' } });
    chooseRecord(/^fuse box, eight ways/);
  };
  test('are changed in place: typed as the field is left, chosen at once; an undo brings them back', async () => {
    openBox();
    const was = createDemoShop().devices['fuse-box']!;
    const limit = screen.getByLabelText<HTMLInputElement>('Limit of offer 1');
    limit.focus();
    fireEvent.change(limit, { target: { value: '25' } });
    expect(screen.getByRole('button', { name: 'Nothing changed' })).toBeTruthy();
    act(() => limit.blur());
    expect(screen.getByRole('button', { name: 'Take 1 change …' })).toBeTruthy();
    choose('What offer 1 can do', 'high-side');
    expect(await taken()).toMatchObject({ offers: { [Object.keys(was.offers)[0]!]: { limitA: 25, can: ['feed', 'high-side'] } } });
    press('Leave it');
    press('Undo');
    press('Undo');
    expect(screen.getByLabelText<HTMLInputElement>('Limit of offer 1').value).toBe(String(Object.values(was.offers)[0]!.limitA ?? ''));
    expect(screen.getByRole('button', { name: 'Nothing changed' })).toBeTruthy();
  });
  test('stand beside what can hurt as it is worked, said in words', async () => {
    openBox();
    expect(screen.queryByText('injects-fuel')).toBeNull();
    choose('What can hurt as it is worked', 'what it holds under pressure');
    expect(await taken()).toMatchObject({ hazard: 'pressure' });
  });
  test('that cannot be so are said and not kept', () => {
    openBox();
    fireEvent.click(rows().getByRole('button', { name: 'Take offer 1 out' }));
    expect(screen.getByRole('alert').textContent).toMatch(/expected pins that it has on both sides and at its coil/);
    expect(screen.getByRole('button', { name: 'Nothing changed' })).toBeTruthy();
  });
  test('come from a list of its maker; one that is wrong is refused with its line', async () => {
    openBox();
    const choosePins = async (text: string) => {
      const file = new File([text], 'box.csv');
      file.text = () => Promise.resolve(text);
      fireEvent.change(document.querySelectorAll('input[type=file]')[2]!, { target: { files: [file] } });
      await settle();
    };
    await choosePins('pin,name,can\n1,in,fly\n');
    expect(screen.getByText(/line 2, can/).parentElement!.textContent).toContain('expected words of analogue');
    press('put away');
    fireEvent.click(screen.getByRole('button', { name: 'Take link 1 out' }));
    const { offers, pins } = createDemoShop().devices['fuse-box']!;
    const list = toPinListCsv({ pins, offers: { ...offers, [Object.keys(offers)[2]!]: { ...Object.values(offers)[2]!, name: 'horn' } } });
    await choosePins(list);
    expect((await taken()).offers[Object.keys(offers)[2]!]).toMatchObject({ name: 'horn' });
  });
});
