import { expect, test, type Page } from '@playwright/test';
import { chooseColumns, pick, saved } from './helpers';
import { ownApplication } from './rig';

// a shop that has just put it up: no job yet
const own = ownApplication('first-hour');

/** What a newcomer has: a list of his own, with headings of his own. 12 ends, 22 wires. */
function createList(): string {
  const rows: string[] = [];
  let pin = 0;
  for (const nth of [1, 2, 3, 4, 5, 6])
    rows.push(
      `ECU;${(pin += 1)};coil ${nth};1;coil ${nth} drive;blue;${nth <= 2 ? 'AWG 20' : ''}`,
      `relay;${nth};coil ${nth};2;coil ${nth} supply;red;`,
    );
  for (const [name, pins] of [
    ['crank sensor', 2],
    ['cam sensor', 3],
    ['oil pressure', 3],
    ['coolant temp', 2],
  ] as const)
    for (let at = 1; at <= pins; at += 1) rows.push(`ECU;${(pin += 1)};${name};${at};${name} ${at};white;`);
  return ['Start;Start pin;Stop;Stop pin;Meaning;Colour;Size', ...rows].join('\n');
}

async function importList(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'A loom from a wire list …' }).click();
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'coils.csv', mimeType: 'text/csv', buffer: Buffer.from(createList()) });
  const dialog = page.getByRole('dialog', { name: 'A loom from a wire list (CSV)' });
  // his headings are not ours: he says which is which
  await chooseColumns(page);
  await expect(dialog).toContainText('It makes 12 ends and 22 circuits');
  // housings he leaves for later
  await dialog.getByLabel('First letters of its wire numbers').fill('C');
  await dialog.getByRole('button', { name: 'Make the loom' }).click();
}

test('the first hour: a list of her own becomes a loom, is measured, mended, printed, released and begun at the bench', async ({
  page,
  browser,
}) => {
  await page.goto(own.running.address);
  await expect(page.getByText(/^No jobs yet/)).toBeVisible();
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name').fill('First hour');
  await page.getByRole('button', { name: 'Begin job' }).click();
  await expect(page).toHaveURL(/\/brief$/);
  const id = /jobs\/([^/]+)/.exec(page.url())![1]!;
  await importList(page);
  const strip = page.getByRole('group', { name: 'Strip of coils' });
  await expect(strip.getByText(/^coil 6 \+300 guessed$/)).toBeVisible();

  // housings for the placeholders: each finding offers the smallest that fits
  await page.getByRole('tab', { name: /^Findings/ }).click();
  const take = page.getByRole('button', { name: /^Take a / });
  // a table of many rows draws those in view: she looks for those of one kind
  await page.getByLabel('Filter the table').fill('no housing yet');
  await expect(take).toHaveCount(12);
  for (let left = 12; left > 0; left -= 1) {
    await take.first().click();
    await expect(take).toHaveCount(left - 1);
  }
  await expect(page.getByText(/has no housing yet/)).toHaveCount(0);
  await page.getByRole('button', { name: /^Show all \d+/ }).click();

  // marks off the tape, in the units she has
  await page.getByRole('tab', { name: 'Lengths' }).click();
  const lengths = page.getByLabel(/^Length of /);
  const count = await lengths.count();
  expect(count).toBe(12);
  for (let at = 0; at < count; at += 1) {
    const run = (await lengths.nth(at).getAttribute('aria-label'))!.replace('Length of ', '');
    await page.getByLabel(`Length of ${run}`, { exact: true }).fill(at === 0 ? '0.45 m' : String(120 + 10 * at));
    await page.keyboard.press('Enter');
    await pick(page, `Status of ${run}`, 'roped');
  }
  await expect(strip).not.toContainText('guessed');
  await expect(page.getByLabel('Length of datum to trunk')).toHaveValue('450');

  // why two wires are thicker than they would be
  await page.getByRole('tab', { name: 'Wires' }).click();
  await page.getByRole('button', { name: /show all/ }).click();
  await page.getByRole('button', { name: 'AWG 20', exact: true }).first().hover();
  await expect(page.getByText(/Ruled by/)).toBeVisible();
  await page.mouse.move(5, 5);
  await saved(page);

  // the anchors, said to be where they are
  await page.keyboard.press('2');
  await page.getByRole('button', { name: /^Anchors/ }).click();
  for (const anchor of ['controller', 'power box', 'firewall hole', 'battery', 'main plug'])
    await page
      .getByRole('group', { name: `State of the ${anchor}` })
      .getByRole('button', { name: anchor === 'controller' ? 'Fixed' : 'Not here' })
      .click();

  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();

  // printed and released
  await page.goto(`${own.running.address}/jobs/${id}/sheets`);
  await expect(page.getByRole('img', { name: /Cut list/ }).first()).toContainText('C-101');
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: /PDF/ }).first().click();
  expect((await file).suggestedFilename()).toMatch(/\.pdf$/);
  await page.getByRole('button', { name: 'Release revision 1' }).click();
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByText('Revision 1 released')).toBeVisible();

  // ten ticks on her phone
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(`${own.running.address}/jobs/${id}/floor`);
  await expect(phone.getByRole('heading', { level: 1 })).toHaveText(/^Cut and mark/);
  for (let ticked = 0; ticked < 10;) {
    const open = phone.getByRole('listitem').getByRole('button', { pressed: false });
    if ((await open.count()) === 0) {
      await phone.getByRole('button', { name: 'Next step' }).click();
      continue;
    }
    await open.first().click();
    ticked += 1;
  }
  await expect(phone.getByRole('status').first()).toHaveText('all stored');
});
