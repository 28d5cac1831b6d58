import { screen } from '@testing-library/react';
import { CATALOGUE, plan, planPottings } from 'wattograph-core';
import { choose, write } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import { PottingFacts } from './PottingFacts';

const open = () => openLoom((planned) => <PottingFacts planned={planned} endId="map" />);

test('an end is potted when all of its cavity is measured, and the mix is told at once', () => {
  const store = open();
  choose('Potted with', 'flexible potting resin');
  for (const [label, value] of [
    ['Cavity length', '18'],
    ['Cavity width', '12'],
    ['Cavity depth', '9'],
  ] as const)
    write(label, value);
  expect(screen.getByText('Kept when all of the cavity is measured.')).toBeTruthy();
  expect(store.job.looms.inlet!.ends.map!.potting).toBeNull();
  write('Volume of contacts', '36');
  expect(store.job.looms.inlet!.ends.map!.potting).toEqual({
    ...{ resinId: 'resin-soft', lengthMm: 18, widthMm: 12, depthMm: 9, contactsMm3: 36, changesPerYear: null },
  });
  const [fill] = planPottings(store.job, plan(store.job, CATALOGUE).looms[0]!, CATALOGUE);
  expect(screen.getByTestId('potting').textContent).toContain(
    `${fill!.massG.toFixed(1)} g = ${fill!.partAG.toFixed(2)} + ${fill!.partBG.toFixed(2)} g`,
  );
  expect(screen.getByTestId('potting').textContent).toContain('Cures in 23 h at 18 °C');
});

test('and is not potted any more when the resin is taken away', () => {
  const store = open();
  choose('Potted with', 'heat-proof potting resin');
  for (const label of ['Cavity length', 'Cavity width', 'Cavity depth', 'Volume of contacts']) write(label, '12');
  expect(store.job.looms.inlet!.ends.map!.potting).not.toBeNull();
  choose('Potted with', 'not potted: it can be unplugged');
  expect(store.job.looms.inlet!.ends.map!.potting).toBeNull();
  expect(store.labels.at(-1)).toMatch(/^potting of /);
});
