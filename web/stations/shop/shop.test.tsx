import { fireEvent, screen, within } from '@testing-library/react';
import { checkShop, createDemoShop, createTool, SHOP_FORMAT_VERSION, toShopTableCsv } from 'wattograph-core';
import { choose as pick, press } from '../../testing/act';
import { chooseRecord, editor, effect, goTo, listed, openShop, server, settle, typeField } from '../../testing/shopStation';

test('a figure changed is a change to take, and can be undone', () => {
  openShop();
  goTo('Contacts');
  chooseRecord(/^Hollin size 22 contact$/);
  expect(editor().getByText(/takes ETFE 26 to 20/)).toBeTruthy();
  typeField('max area, mm²', '0.4');
  expect(editor().getByText(/takes ETFE 26 to 22,/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Take 1 change …' })).toBeTruthy();
  press('Undo');
  expect(editor().getByText(/takes ETFE 26 to 20/)).toBeTruthy();
  expect(editor().getByLabelText<HTMLInputElement>('max area, mm²').value).toBe('0.62');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Nothing changed' }).disabled).toBe(true);
});

test('a figure that may be left out is empty again; one that may not comes back', () => {
  openShop();
  goTo('Contacts');
  chooseRecord(/^Hollin size 22 contact$/);
  typeField('peak, A', '');
  typeField('current, A', '');
  expect(editor().getByLabelText<HTMLInputElement>('current, A').value).toBe('7.5');
  expect(screen.getByRole('button', { name: 'Take 1 change …' })).toBeTruthy();
});

test('a housing made from another: its cavities are drawn as they are typed, nonsense is refused at the field', () => {
  openShop();
  goTo('Housings');
  chooseRecord(/^Hollin 19/);
  press('Make another from it');
  expect(listed()[0]!.textContent).toMatch(/^Hollin 19, copynew/);
  typeField('in each ring, inside first', '1, 6');
  expect(editor().getByText(/7 ways, size 22/)).toBeTruthy();
  expect(editor().getByRole('group', { name: 'Hollin 19, copy, wire side' }).querySelectorAll('text')).toHaveLength(7);
  typeField('in each ring, inside first', '1, x');
  expect(editor().getByText('expected counts of 1 to 40, as in 1, 6, 12')).toBeTruthy();
  expect(editor().getByText(/7 ways, size 22/)).toBeTruthy();
});

test('a figure of a record is typed in the units of its field, which its words name', () => {
  openShop();
  goTo('Contacts');
  chooseRecord(/^Hollin size 22 contact$/);
  const field = () => editor().getByLabelText<HTMLInputElement>('max area, mm²');
  typeField('max area, mm²', '20 AWG');
  expect(Number(field().value)).toBeCloseTo(0.5176, 3);
  typeField('max area, mm²', '20 A');
  expect(Number(field().value)).toBeCloseTo(0.5176, 3);
});

test('search narrows a table; people come and go, but never the last', () => {
  openShop();
  goTo('Coverings');
  const all = listed().length;
  fireEvent.change(screen.getByLabelText('Search'), { target: { value: 'braid 4' } });
  expect(listed().length).toBeGreaterThan(0);
  expect(listed().length).toBeLessThan(all);
  fireEvent.change(screen.getByLabelText('Search'), { target: { value: 'zzz' } });
  expect(screen.getByText(/^Nothing here has “zzz” in it/)).toBeTruthy();
  goTo('People');
  fireEvent.change(editor().getByLabelText('Another'), { target: { value: 'Wil Tamsin' } });
  press('Add');
  expect(editor().getByText('Wil Tamsin')).toBeTruthy();
  const off = () => editor().getAllByRole<HTMLButtonElement>('button', { name: 'take off the list' });
  while (off().length > 1) fireEvent.click(off()[0]!);
  expect(off()[0]!.disabled).toBe(true);
});

test('before a draft is taken it says what it changes in the shop and in every job; then it is stored with its base', async () => {
  openShop();
  goTo('House styles');
  chooseRecord(/^Larkhollow house style/);
  typeField('cut increment, mm', '10');
  press('Take 1 change …');
  await settle();
  const dialog = within(screen.getByRole('dialog'));
  expect(dialog.getByText('Hollin: current, A: 7.5 → 9')).toBeTruthy();
  expect(dialog.getByText(/3 wires cut otherwise, 1 sleeve, \+4 g, 1 more to stop for/)).toBeTruthy();
  expect(dialog.getByText('⬣ A pump has no fuse.')).toBeTruthy();
  fireEvent.change(dialog.getByLabelText('Note'), { target: { value: 'coarser rule' } });
  fireEvent.click(dialog.getByRole('button', { name: 'Take it' }));
  await settle();
  expect(server.posted.map(({ path }) => path)).toEqual(['/api/shop/preview', '/api/shop']);
  expect(server.posted[1]!.body).toMatchObject({ base: 4, note: 'coarser rule' });
  expect(server.posted[1]!.body.document.standards.larkhollow!.cutIncrementMm).toBe(10);
  expect(server.refresh).toHaveBeenCalled();
});

test('a draft that a job could not be planned with is not taken, and the place is named', async () => {
  server.preview.body = {
    version: 4,
    differences: [{ table: 'families', added: [], changed: [], gone: [{ id: 'a', name: 'A' }] }],
    jobs: [{ ...effect, problems: [{ path: '/looms/x', message: 'expected a family' }] }],
  };
  openShop();
  goTo('Housings');
  chooseRecord(/^Hollin 19/);
  press('Take it out');
  // with what is known of buying it
  press('Take 2 changes …');
  await settle();
  const dialog = within(screen.getByRole('dialog'));
  expect(dialog.getByRole('alert').textContent).toContain('Skerry 12 /looms/x: expected a family');
  expect(dialog.getByRole<HTMLButtonElement>('button', { name: 'Take it' }).disabled).toBe(true);
});

test('a file that is none, or that the gate refuses, changes nothing and says where', async () => {
  openShop();
  const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
  const give = async (text: string) => {
    fireEvent.change(input, { target: { files: [Object.assign(new File([text], 'own.json'), { text: () => Promise.resolve(text) })] } });
    await settle();
  };
  await give('{"a":');
  expect(screen.getByRole('alert').textContent).toContain('own.json was not read');
  server.preview = {
    status: 422,
    body: { problems: [{ path: '/contacts/0/maxAreaMm2', message: 'expected at least the least area 1, got 0' }] },
  };
  await give('{}');
  expect(screen.getByRole('alert').textContent).toContain('/contacts/0/maxAreaMm2: expected at least the least area 1, got 0');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Nothing changed' }).disabled).toBe(true);
});

describe('the face of a housing', () => {
  const face = () => within(editor().getByRole('group', { name: /wire side$/ }));
  const cavities = () =>
    face()
      .getAllByRole('button')
      .map((one) => one.textContent);
  const openFamily = (name: RegExp) => {
    openShop();
    goTo('Housings');
    chooseRecord(name);
  };
  const keep = (label: string | RegExp, value: string) => typeField(label, value);
  test('26 ways lettered without I, O and Q, four of them of a larger size: typed, picked on the face, taken', async () => {
    openFamily(/^Pellow 12/);
    press('Make another from it');
    keep('in each row, top first', '13, 13');
    keep('names, in that order', 'A to Z without I, O, Q then a to c');
    expect(cavities()).toEqual([...'ABCDEFGHJKLMNPRSTUVWXYZabc']);
    expect(editor().queryByRole('alert')).toBeNull();
    fireEvent.keyDown(face().getByRole('button', { name: 'cavity A' }), { key: 'Enter' });
    for (const name of ['B', 'C', 'D'])
      fireEvent.keyDown(face().getByRole('button', { name: `cavity ${name}` }), { key: 'Enter', shiftKey: true });
    const size = editor().getByRole('combobox', { name: 'size of 4 picked' });
    fireEvent.change(size, { target: { value: '6p' } });
    fireEvent.blur(size);
    press(/^Take 1 change/);
    await settle();
    const taken = server.posted.find(({ path }) => path === '/api/shop/preview')!.body.document.families['pellow-12-2']!;
    expect(taken).toMatchObject({
      arrangement: { kind: 'rows', rows: [13, 13] },
      otherSizes: { A: '6p', B: '6p', C: '6p', D: '6p' },
      cavitySize: '16s',
    });
    expect(checkShop(server.posted.find(({ path }) => path === '/api/shop/preview')!.body.document)).toMatchObject({ ok: true });
  });
  test('sizes stay with their places when the names change, and go with the rule when most have that size', () => {
    openFamily(/^Hollin 10, mixed$/);
    keep('names, in that order', '1 to 10');
    expect(editor().getByText(/10 ways, size 16 and 22/)).toBeTruthy();
    fireEvent.keyDown(face().getByRole('button', { name: 'cavity 1' }), { key: 'Enter' });
    expect(editor().getByRole<HTMLInputElement>('combobox', { name: 'size of 1' }).value).toBe('16');
    fireEvent.keyDown(face().getByRole('button', { name: 'cavity 3' }), { key: 'Enter' });
    expect(editor().getByRole<HTMLInputElement>('combobox', { name: 'size of 3' }).value).toBe('22');
    const most = editor().getByRole('combobox', { name: 'size of most' });
    fireEvent.change(most, { target: { value: '16' } });
    fireEvent.blur(most);
    expect(editor().getByText(/10 ways, size 16;/)).toBeTruthy();
  });
  test('a name too few, or two cavities upon each other, is told beside the face', () => {
    openFamily(/^Hollin 10, mixed$/);
    keep('names, in that order', 'A to F');
    expect(editor().getByRole('alert').textContent).toBe('expected 10 names, one for each cavity, got 6');
    keep('names, in that order', '');
    expect(editor().queryByRole('alert')).toBeNull();
    expect(cavities()).toEqual(['1', '2', '3', '4', '5', '6', '7', '8', '9', '10']);
    const second = face().getByRole('button', { name: 'cavity 2' });
    for (let step = 0; step < 18; step += 1) fireEvent.keyDown(face().getByRole('button', { name: 'cavity 2' }), { key: 'ArrowLeft' });
    expect(second).toBeTruthy();
    expect(editor().getByRole('alert').textContent).toBe(
      'expected at least the pitch of 2.3 mm between two cavities, got 2.20 mm from 1 to 2',
    );
    press('Undo');
    expect(editor().queryByRole('alert')).toBeNull();
  });
  test('spots are pasted from a spreadsheet, refused with their line; rows turn into spots where they are', () => {
    openFamily(/^Pellow 2/);
    pick('cavities in', 'spots of their own');
    const list = () => editor().getByRole<HTMLTextAreaElement>('textbox', { name: 'name, x, y, size' });
    expect(list().value).toBe('1\t-2.25\t0\t16s\n2\t2.25\t0\t16s');
    fireEvent.change(list(), { target: { value: 'cavity\tx\ty\nA\t-6\t0\nB\t0\tzero\n' } });
    press('Place them so');
    expect(editor().getByText('line 3, y: expected millimetres from -100 to 100, got "zero"')).toBeTruthy();
    fireEvent.change(list(), { target: { value: 'cavity\tx\ty\nA\t-6\t0\t6p\nB\t0\t0,5\nC\t6\t0\n' } });
    press('Place them so');
    expect(cavities()).toEqual(['A', 'B', 'C']);
    expect(editor().getByText(/3 ways, size 6p and 16s/)).toBeTruthy();
    expect(list().value).toBe('A\t-6\t0\t6p\nB\t0\t0.5\t16s\nC\t6\t0\t16s');
  });
  test('halves and what they mate with are set beside it', () => {
    openFamily(/^Hollin 10, mixed$/);
    pick('gender', 'pins');
    pick('mates with', 'Hollin 13');
    expect(screen.getByRole('button', { name: 'Take 1 change …' })).toBeTruthy();
    expect(editor().getByRole<HTMLInputElement>('combobox', { name: 'mates with' }).value).toBe('Hollin 13');
  });
});

describe('files', () => {
  const inputs = () => [...document.querySelectorAll<HTMLInputElement>('input[type=file]')];
  const give = async (input: HTMLInputElement, name: string, text: string) => {
    fireEvent.change(input, { target: { files: [Object.assign(new File([text], name), { text: () => Promise.resolve(text) })] } });
    await settle();
  };
  const other = () => {
    const shop = createDemoShop();
    const contact = shop.contacts.find(({ id }) => id === 'h22')!;
    return JSON.stringify({
      ...shop,
      name: 'Bothy Wiring',
      people: [...shop.people, 'Wil Tamsin'],
      contacts: shop.contacts.map((one) => (one === contact ? { ...one, currentA: 9 } : one)),
      labels: shop.labels.slice(1),
    });
  };
  test('another shop is merged record by record: what differs is taken where she says so, nothing goes', async () => {
    openShop();
    await give(inputs()[0]!, 'bothy.json', other());
    const dialog = within(screen.getByRole('dialog', { name: 'Bothy Wiring: read into Larkhollow Looms' }));
    expect(
      dialog.getByText(/1 record it has and this shop has not: 1 people\. 1 of this shop it has not; merged, they stay\./),
    ).toBeTruthy();
    fireEvent.click(dialog.getByLabelText(/Hollin size 22 contact, contacts/));
    press('Merge');
    await settle();
    const draft = server.posted.at(-1)!.body.document;
    expect([draft.name, draft.people.at(-1), draft.labels.length]).toEqual([
      'Larkhollow Looms',
      'Wil Tamsin',
      createDemoShop().labels.length,
    ]);
    expect(draft.contacts.find(({ id }) => id === 'h22')!.currentA).toBe(9);
    expect(checkShop(draft)).toMatchObject({ ok: true });
  });
  test('left unticked, what differs stays; replaced, all of it is the file’s', async () => {
    openShop();
    await give(inputs()[0]!, 'bothy.json', other());
    press('Merge');
    await settle();
    expect(server.posted.at(-1)!.body.document.contacts.find(({ id }) => id === 'h22')!.currentA).toBe(7.5);
    press('Leave it');
    press('Undo');
    await give(inputs()[0]!, 'bothy.json', other());
    press('Replace this shop');
    await settle();
    expect(server.posted.at(-1)!.body.document).toMatchObject({ name: 'Bothy Wiring' });
    expect(server.posted.at(-1)!.body.document.labels).toHaveLength(createDemoShop().labels.length - 1);
  });
  test('a file of an older format is read as one of today', async () => {
    openShop();
    const { families, contacts, ...rest } = createDemoShop();
    const old = {
      ...rest,
      formatVersion: 1,
      families: Object.fromEntries(
        Object.entries(families).map(
          ([id, { name, arrangement, cavitySize, pitchMm, envelopeMm, entryDepthMm, seating, sealed, secondaryLock, keys, massG }]) => [
            id,
            { name, arrangement, cavitySize, pitchMm, envelopeMm, entryDepthMm, seating, sealed, secondaryLock, keys, massG: massG + 1 },
          ],
        ),
      ),
      contacts: contacts.map((one) => Object.fromEntries(Object.entries(one).filter(([key]) => key !== 'gender'))),
    };
    await give(inputs()[0]!, 'old.json', JSON.stringify(old));
    press('Replace this shop');
    await settle();
    expect(server.posted.at(-1)!.body.document).toMatchObject({
      formatVersion: SHOP_FORMAT_VERSION,
      families: { 'tarn-2': { cavityNames: null, otherSizes: {} } },
    });
  });
  test('a table goes out as CSV and rows come in: known ones changed, others added, a bad one told with its line', async () => {
    openShop();
    goTo('Seals');
    const saved: number[] = [];
    URL.createObjectURL = (blob) => {
      saved.push((blob as Blob).size);
      return 'blob:x';
    };
    URL.revokeObjectURL = () => undefined;
    const click = jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined);
    press('Rows out');
    fireEvent.click(screen.getByText('as CSV'));
    expect([saved, click.mock.calls.length]).toEqual([[toShopTableCsv(createDemoShop(), 'seals').length], 1]);
    await give(inputs()[1]!, 'seals.csv', 'id,minOdMm\np-green,thick\n');
    expect(screen.getByRole('alert').textContent).toContain('line 2, minOdMm: expected a number, got "thick"');
    await give(
      inputs()[1]!,
      'seals.csv',
      'id,name,cavitySize,minOdMm,maxOdMm\np-green,Pellow seal green,16s,0.9,1.65\np-red,Pellow seal red,16s,2.31,3\n',
    );
    expect(screen.getByRole('button', { name: 'Take 2 changes …' })).toBeTruthy();
    expect(
      listed()
        .slice(0, 2)
        .map((one) => one.textContent),
    ).toEqual([expect.stringContaining('changed'), expect.stringContaining('new')]);
    press('Undo');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Nothing changed' }).disabled).toBe(true);
    click.mockRestore();
  });
});

test('a kind without records can still take rows in', () => {
  openShop({}, { ...createDemoShop(), tools: [] });
  goTo('Tools');
  expect(screen.getByText(/^None yet: take rows in/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Rows in' })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Rows out' })).toBeTruthy();
});

describe('stock', () => {
  test('a part is retired, stands last with its mark, and is offered again', () => {
    openShop();
    goTo('Contacts');
    chooseRecord(/^Hollin size 22 contact$/);
    press('Retire it');
    expect(screen.getByRole('button', { name: 'Offer it again' })).toBeTruthy();
    expect(listed().at(-1)!.textContent).toMatch(/^Hollin size 22 contactretired/);
    press('Offer it again');
    expect(screen.getByRole('button', { name: 'Retire it' })).toBeTruthy();
  });

  test('what a job uses cannot be taken out; the jobs are named', () => {
    openShop({ 'contacts/h22': [{ id: 'skerry', name: 'Skerry 12' }] });
    goTo('Contacts');
    chooseRecord(/^Hollin size 22 contact$/);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take it out' }).disabled).toBe(true);
    expect(screen.getByRole('link', { name: 'Skerry 12' }).getAttribute('href')).toBe('/jobs/skerry/bundle');
    expect(screen.getByText(/it can be retired, not taken out/)).toBeTruthy();
  });

  test('a price is typed where the part is, and found in the price table by the name of the part', async () => {
    openShop();
    goTo('Contacts');
    chooseRecord(/^Hollin size 22 contact$/);
    const price = within(screen.getByRole('group', { name: 'Buying, EUR' })).getByLabelText('price');
    fireEvent.change(price, { target: { value: '0.42' } });
    fireEvent.blur(price);
    goTo('Prices and stock');
    fireEvent.change(screen.getByLabelText('Search'), { target: { value: 'contacts/h22' } });
    expect(screen.getByText('Hollin size 22 contact')).toBeTruthy();
    press(/^Take 1 change/);
    await settle();
    const { document } = server.posted.find(({ path }) => path === '/api/shop/preview')!.body;
    expect(document.buying['contacts/h22']).toMatchObject({ price: 0.42, retired: false });
    expect(checkShop(document)).toMatchObject({ ok: true });
  });

  test('a tool that is not listed is added and named', async () => {
    openShop();
    goTo('Tools');
    press('A tool that is not listed');
    const name = screen.getByLabelText('name');
    fireEvent.change(name, { target: { value: 'pneumatic press' } });
    fireEvent.blur(name);
    press(/^Take 1 change/);
    await settle();
    const { document } = server.posted.find(({ path }) => path === '/api/shop/preview')!.body;
    expect(document.tools.at(-1)).toEqual(createTool('tool-2', 'pneumatic press'));
  });
});
