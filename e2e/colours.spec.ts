import { expect, test } from '@playwright/test';
import { createTestJob, createCleanInlet, readJob, saved, sendRelease } from './helpers';

test.use({ viewport: { width: 1280, height: 800 } });

test('a job whose wires are told apart by bands: the house style, the whole loom in one step, the sheets and the floor', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createCleanInlet());
  await page.goto(`/jobs/${id}/brief?tab=style`);
  await page.getByRole('radio', { name: 'by bands on one colour' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('one reel a size at the track');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('radio', { name: 'by bands on one colour' })).toBeChecked();

  await page.goto(`/jobs/${id}/ends?loom=inlet`);
  await page.getByRole('button', { name: 'Colours', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Colours of wires' });
  await dialog.getByText('Whole loom, by bands on one colour').click();
  await expect(dialog.getByText(/reels become \d+\. \d+ bands to put on/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Take these colours' }).click();
  await saved(page);
  const { circuits } = (await readJob(request, id)).document.looms.inlet!;
  const loose = Object.values(circuits).filter(({ cable }) => cable === null);
  expect([...new Set(loose.map(({ colour }) => colour.base))]).toEqual(['white']);
  const banded = loose.find(({ colour }) => colour.bands.length === 2)!;

  // one that has a reason is left by every scheme
  await page.reload();
  await page.getByRole('button', { name: 'Colours', exact: true }).click();
  await dialog.getByText('One by hand').click();
  await dialog.getByRole('combobox', { name: 'Colour' }).fill('pink/green');
  await dialog.getByLabel('Why (empty: a scheme may change it)').fill('as the old loom');
  await dialog.getByRole('button', { name: 'Take this colour' }).click();
  await saved(page);
  const pinned = Object.values((await readJob(request, id)).document.looms.inlet!.circuits).filter(({ colourPin }) => colourPin !== null);
  expect(pinned).toMatchObject([{ colour: { base: 'pink', stripe: 'green' }, colourPin: { reason: 'as the old loom' } }]);
  await page.getByRole('button', { name: 'Colours', exact: true }).click();
  await dialog.getByText('Whole loom, by bands on one colour').click();
  await expect(dialog.getByText(/^Every circuit has a look of the scheme/)).toBeVisible();
  await dialog.getByText('One by hand').click();
  await expect(dialog.getByRole('region', { name: 'Colours with a reason' })).toContainText('as the old loom');
  await page.keyboard.press('Escape');

  // by hand, as it is typed
  await page.goto(`/jobs/${id}/bundle?loom=inlet&tab=circuits`);
  await page.getByRole('button', { name: `Change circuit ${banded.number}` }).click();
  await expect(page.getByLabel('Bands', { exact: true })).toHaveValue(banded.colour.bands.join(' '));
  await page.getByLabel('Bands', { exact: true }).fill('red, green');
  await page.getByRole('button', { name: 'Keep circuit' }).click();
  await saved(page);

  expect((await sendRelease(request, id)).status()).toBe(201);
  await page.goto(`/jobs/${id}/sheets?loom=inlet`);
  await expect(
    page
      .getByRole('img', { name: /^Ends, page \d+$/ })
      .filter({ hasText: /white \(red\s*green\)/ })
      .first(),
  ).toBeVisible();
  await page.goto(`/jobs/${id}/floor?loom=inlet`);
  // what is cut rough gets its marker and bands once it is trimmed
  for (let at = 0; at < 200; at += 1) {
    if (
      await page
        .getByText(/then bands red, green from the end on, 4 mm wide, 3 apart/)
        .first()
        .isVisible()
    )
      break;
    await page.getByRole('button', { name: /^(Skip for now|Next step)$/ }).click();
  }
  await expect(page.getByText(/then bands red, green from the end on, 4 mm wide, 3 apart/).first()).toBeVisible();
});
