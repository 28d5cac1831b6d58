import { screen, within } from '@testing-library/react';
import { CATALOGUE, plan } from 'wattograph-core';
import { createSkerry } from 'wattograph-core/demo';
import { openLoom } from '../../testing/fakeStore';
import { Templates } from './Templates';

const open = (endId: string) => {
  const job = createSkerry();
  const engine = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
  openLoom((planned) => <Templates planned={planned} endId={endId} />, undefined, { job, loomId: 'engine' });
  return engine;
};

test('a screened cable is drawn as it is opened, with every length said', () => {
  const { screens } = open('m-crank-sensor');
  const one = screens.find(({ endId }) => endId === 'm-crank-sensor')!;
  const figure = screen.getByRole('figure', { name: `Strip template of ${one.cableName}` });
  expect(within(figure).getByRole('img', { name: `${one.cableName} opened` })).toBeTruthy();
  expect(figure.textContent).toContain(`jacket back ${one.backMm} mm`);
  expect(figure.textContent).toContain(`insulation ${one.insulationMm} mm, bare ${one.stripMm} mm`);
  expect(figure.textContent).toContain('gathered into');
});

test('rings stand in the order in which they lie on the stud, with the torque of its nut', () => {
  const { studs, wires } = open('m-engine-ground-stud');
  const stud = studs.find(({ endId }) => endId === 'm-engine-ground-stud')!;
  const rows = within(screen.getByRole('list', { name: 'Rings on the stud' })).getAllByRole('listitem');
  expect(rows.map(({ textContent }) => textContent!.split(' ')[0])).toEqual(
    stud.rings.map(({ wireIds }) => wires.find(({ id }) => id === wireIds[0])!.number),
  );
  expect(screen.getByText(/^Nut M6: 5 Nm, the maker’s figure first/).textContent).toContain('thread not measured');
});

test('an end without either shows nothing', () => {
  open('m-coil-1');
  expect(screen.queryByRole('figure')).toBeNull();
  expect(screen.queryByRole('list')).toBeNull();
});
