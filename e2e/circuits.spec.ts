import { expect, test } from '@playwright/test';
import { createCleanSkerry, createSkerry } from 'wattograph-core/demo';
import { createTestJob, pick, readJob, saved } from './helpers';

test('the planted traps are found, and each fix works', async ({ page, request }) => {
  const id = await createTestJob(request, createSkerry());
  // a sensor without its ground, on its pin
  await page.goto(`/jobs/${id}/circuits?loom=inlet`);
  await page.getByRole('button', { name: 'charge pressure pin 2, sensor ground: open, CI1' }).click();
  await page.getByRole('button', { name: /^Join cavity 2/ }).click();
  await expect(page.getByRole('button', { name: /^charge pressure pin 2, sensor ground: controller plug/ })).toBeVisible();
  // a 5 V rail near its limit
  await page.getByRole('tab', { name: 'Boxes' }).click();
  await expect(page.getByRole('meter', { name: '5 V rail A' })).toHaveAttribute('aria-valuenow', '84');
  await page.getByRole('button', { name: /^Move damper/ }).click();
  await expect(page.getByText('CI8')).toHaveCount(0);
  // a fuse over its wire, a feed over its budget, a fan on a small contact
  await page.keyboard.press('4');
  const tree = page.getByRole('region', { name: 'Power tree' });
  await expect(tree.getByText(/a 150 A fuse over C-103/)).toBeVisible();
  await tree.getByRole('button', { name: /^2 more findings/ }).click();
  // one size is behind both: computed, the feed keeps its budget and the wire bears its fuse
  await tree.locator('p', { hasText: 'PO4' }).getByRole('button', { name: 'Let the size be computed' }).click();
  await expect(tree.getByText(/PO2|PO4/)).toHaveCount(0);
  await tree.locator('p', { hasText: 'EN5' }).first().getByRole('button', { name: 'Take a Brack 2' }).click();
  await expect(tree.getByText('EN5')).toHaveCount(0);
  await saved(page);
  const { document } = await readJob(request, id);
  expect(document.looms.chassis!.ends['m-radiator-fan']!.familyId).toBe('brack-2');
  expect(document.looms.inlet!.circuits.c216!.terminations).toContainEqual({ endId: 'chg', cavity: '2' });
});

test('one key assigns what is open, with reasons; undo takes all of it back', async ({ page, request }) => {
  const job = createCleanSkerry();
  const { circuits } = job.looms.chassis!;
  for (const [circuitId, { terminations }] of Object.entries(circuits))
    if (terminations.some(({ endId }) => endId === 'm-pedal' || endId === 'm-rain-light')) delete circuits[circuitId];
  const id = await createTestJob(request, job);
  await page.goto(`/jobs/${id}/circuits?loom=chassis`);
  await expect(page.getByRole('button', { name: 'pedal pin 3, track 1: open, CI1' })).toBeVisible();
  await page.keyboard.press('a');
  const told = page.getByRole('region', { name: 'Assignment' });
  await expect(told).toContainText('needs placed');
  await expect(told).toContainText('pedal track 1');
  await expect(page.getByRole('button', { name: /^pedal pin 3, track 1: controller plug/ })).toBeVisible();
  await saved(page);
  expect((await readJob(request, id)).version).toBe(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'pedal pin 3, track 1: open, CI1' })).toBeVisible();
});

test('a longer run and a thirstier pump move drop, wire and setting', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/power?loom=chassis`);
  const tree = page.getByRole('region', { name: 'Power tree' });
  await tree.getByRole('button', { name: 'intercooler pump 12 V supply' }).click();
  const panel = page.getByRole('tabpanel', { name: 'Load' });
  await expect(panel).toContainText(/channel \d+: 8 A, computed/);
  // both charts are drawn: the band, the damage curve, the steps
  await expect(panel.getByRole('img', { name: /^Opening times of/ }).locator('svg')).toBeVisible();
  await expect(panel.getByRole('img', { name: /^intercooler pump 12 V supply: of 12.5 V/ }).locator('svg')).toBeVisible();
  await page.getByLabel('Current while on').fill('10');
  await page.keyboard.press('Enter');
  await expect(panel).toContainText(/channel \d+: 11 A, computed/);
  const row = tree.getByRole('row', { name: /intercooler pump/ });
  const drop = await row.getByRole('cell').nth(4).textContent();
  await saved(page);
  const { document, version } = await readJob(request, id);
  expect(document.looms.chassis!.ends['m-intercooler-pump']!.pins['1']!.currentA).toBe(10);
  expect(document.looms.chassis!.ends['m-intercooler-pump']!.pins['2']!.currentA).toBeNull();
  await request.post(`/api/jobs/${id}/edits`, {
    data: {
      id: '7f0e6a2e-1d7b-4f0c-9d2f-1b8e4a5c6d01',
      base: version,
      author: 'test',
      label: 'longer',
      patch: [{ op: 'replace', path: '/looms/chassis/segments/r-intercooler-pump/lengthMm', value: 1200 }],
    },
  });
  await page.reload();
  await expect(row.getByRole('cell').nth(4)).not.toHaveText(drop!);
});

test('the cavities of a break are put in a better order in a worker; undo puts them back', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/circuits?loom=chassis`);
  await page.getByRole('tab', { name: 'Breaks' }).click();
  await pick(page, 'Which break', /inlet/);
  const said = page.getByText(/cavities to spare/);
  const before = await said.textContent();
  await page.getByRole('button', { name: 'Find a better order' }).click();
  const proposal = page.getByRole('region', { name: 'Better order' });
  await expect(proposal.getByText(/wires move: crossings \d+ → \d+/)).toBeVisible();
  await proposal.getByRole('button', { name: 'Take it' }).click();
  await expect(said).not.toHaveText(before!);
  await saved(page);
  const { document } = await readJob(request, id);
  const face = (loomId: string, endId: string) =>
    Object.values(document.looms[loomId]!.circuits)
      .flatMap(({ terminations }) => terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])))
      .sort();
  expect(face('engine', 'm-inlet-plug')).toEqual(face('inlet', 'B1'));
  await page.keyboard.press('u');
  await expect(said).toHaveText(before!);
});

test('a fan that is stuck is followed second by second in a worker, until its channel opens', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/power?loom=chassis`);
  await page.getByRole('button', { name: /^radiator fan, \d+ mm$/ }).click();
  await expect(page.getByRole('heading', { name: 'radiator fan 12 V supply' })).toBeVisible();
  await page.getByRole('tab', { name: 'In seconds' }).click();
  await page.getByRole('button', { name: 'stuck' }).click();
  await expect(page.getByText(/It draws 42\.0 A\. Sluice 24 channel \d+ at 16 A opens after 500 ms/)).toBeVisible();
  await expect(page.getByText(/^Worst from .* °C after/)).toBeVisible();
  await expect(page.getByRole('img', { name: /Temperature of the worst stretch/ }).locator('svg')).toBeVisible();
});
