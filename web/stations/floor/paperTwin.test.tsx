import { MantineProvider } from '@mantine/core';
import { render, screen } from '@testing-library/react';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { press } from '../../testing/act';
import { PaperTwin } from './PaperTwin';

test('a step that goes cavity by cavity on paper: twelve a sheet, as it stands now, on the paper of this device', () => {
  const job = createInlet();
  const planned = plan(job, CATALOGUE).looms[0]!;
  const step = createBuild(job, planned, CATALOGUE).steps.find(({ id }) => id === 'crimp.B1')!;
  const back = jest.fn();
  const done = step.items[0]!.id;
  render(
    <MantineProvider env="test">
      <PaperTwin
        pack={{ job, plan: planned, families: CATALOGUE.families, release: 3 }}
        step={step}
        isDone={(id) => id === done}
        inHand={new Map()}
        asking={{ author: 'Imke Dorsey', device: 'a', nowMs: 0, leaseMin: 20, takenHere: new Set() }}
        onClose={back}
      />
    </MantineProvider>,
  );
  const sheets = () => screen.getAllByRole('img', { name: /^Sheet / });
  expect(sheets()).toHaveLength(Math.ceil(step.items.length / 12));
  expect(sheets()[0]!.textContent).toContain('Cavities 1 to 12 of');
  expect(sheets()[0]!.textContent).toContain('revision 3');
  expect(sheets()[0]!.textContent).toMatch(/done/);
  const wideOf = () => sheets()[0]!.querySelector('svg')!.getAttribute('width');
  expect(wideOf()).toBe('210mm');
  press('Letter');
  expect(wideOf()).toBe('215.9mm');
  const print = jest.fn();
  window.print = print;
  press('Print');
  expect(print).toHaveBeenCalledTimes(1);
  press('Back to the step');
  expect(back).toHaveBeenCalledTimes(1);
});
