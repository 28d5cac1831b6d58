/** @jest-environment ./web/testing/environment/screen.cjs */
import { chooseRecord, goTo, listed, openShop, server, settle, typeField } from '../../testing/shopStation';
import { press } from '../../testing/act';

test('what new jobs begin with is changed in Shop: a zone, another one made from it, a supply', async () => {
  openShop();
  goTo('Zones of new jobs');
  expect(listed()).toHaveLength(5);
  expect(listed()[3]!.textContent).toContain('60 °C, wet');
  chooseRecord(/^engine bay/);
  typeField(/^ambient, °C/, '105');
  press('Make another from it');
  typeField(/^name/, 'turbo side');
  expect(listed()).toHaveLength(6);
  goTo('Supplies of new jobs');
  chooseRecord(/^small battery, composite tub/);
  expect(listed()[1]!.textContent).toContain('every return by wire');
  typeField(/^voltage, V/, '13.2');
  press(/^Take 3 changes/);
  await settle();
  const { document } = server.posted.at(-1)!.body;
  expect(document.zones.map(({ name, ambientC }) => `${name} ${ambientC}`)).toEqual([
    ...['cabin 50', 'engine bay 105', 'hot side 150', 'wet side 60', 'moving run 60', 'turbo side 105'],
  ]);
  expect(document.sources.map(({ volts }) => volts)).toEqual([12.5, 13.2]);
});
