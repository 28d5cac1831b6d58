import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { createInlet } from 'wattograph-core/demo';
import { cookieOf } from '../scripts/lib/testPeople.cjs';
import type { EditOperation, Job } from 'wattograph-core';

/** A job of its own for one test, straight into the database through the API. */
export async function createTestJob(request: APIRequestContext, document: Job = createInlet()): Promise<string> {
  const id = randomUUID();
  const response = await request.post('/api/jobs', { data: { id, author: 'test', document } });
  expect(response.status()).toBe(201);
  return id;
}

/** The demo without its stop findings, so that it can be released. */
export function createCleanInlet(): Job {
  const job = createInlet();
  const loom = job.looms.inlet!;
  loom.segments['s-knk'] = { ...loom.segments['s-knk']!, status: 'roped', method: 'tape' };
  loom.segments['s-inj5'] = { ...loom.segments['s-inj5']!, slideOn: 'before-ends' };
  loom.circuits.c216 = { ...loom.circuits.c216!, terminations: [...loom.circuits.c216!.terminations, { endId: 'chg', cavity: '2' }] };
  return job;
}

export async function readJob(request: APIRequestContext, id: string): Promise<{ version: number; document: Job }> {
  return (await (await request.get(`/api/jobs/${id}`)).json()) as { version: number; document: Job };
}

export function sendEdit(
  request: APIRequestContext,
  jobId: string,
  base: number,
  patch: EditOperation[],
  id: string = randomUUID(),
  by: 'imke' | 'jun' = 'imke',
) {
  return request.post(`/api/jobs/${jobId}/edits`, { data: { id, base, label: 'test edit', patch }, headers: { cookie: cookieOf(by) } });
}

/** Ask for the next revision of a job as it stands. */
export async function sendRelease(
  request: APIRequestContext,
  jobId: string,
  { id = randomUUID() as string, note = '', base = null as number | null, inPart = false, headers = {} as Record<string, string> } = {},
) {
  const version = base ?? (await readJob(request, jobId)).version;
  for (let asked = 1; ; asked += 1) {
    const response = await request.post(`/api/jobs/${jobId}/releases`, { data: { id, base: version, note, inPart }, headers });
    // on a slow machine it is still being planned: the same one asked again is answered when it is there
    if (response.status() !== 202 || 'prefer' in headers || asked === 20) return response;
  }
}

/** Open a station and wait until its plan is there. */
export async function openBundle(page: Page, jobId: string, query = ''): Promise<Locator> {
  await page.goto(`/jobs/${jobId}/bundle${query}`);
  const strip = page.getByRole('region', { name: 'Strip' });
  await expect(strip).toBeVisible();
  return strip;
}

export const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();

/** Opens a list of a dense line and chooses from it by its words. */
export async function pick(page: Page, label: string, words: string | RegExp, place: Page | Locator = page): Promise<void> {
  await place.getByRole('combobox', { name: label, exact: true }).click();
  await page.getByRole('option', { name: words, exact: true }).click();
}

/** Says in the dialog of a wire list which of its columns are which: Stop, Stop pin and Meaning are no words that it knows. */
export async function chooseColumns(page: Page): Promise<void> {
  const dialog = page.getByRole('dialog', { name: 'A loom from a wire list (CSV)' });
  for (const [field, column] of [
    ['Column of To end', 'Stop'],
    ['Column of To cavity', 'Stop pin'],
    ['Column of Circuit name', 'Meaning'],
  ] as const) {
    await dialog
      .getByRole('combobox', { name: field })
      .or(dialog.getByRole('textbox', { name: field }))
      .first()
      .click();
    await page.getByRole('option', { name: column, exact: true }).click();
  }
}

/** Let the customer of a job in with a code, as the owner does. Gives the Cookie header they are signed in with. */
export async function letCustomerIn(request: APIRequestContext, jobId: string, name: string): Promise<string> {
  const invited = await request.post('/api/accounts/invites', { data: { name, role: 'customer', personId: null, jobId } });
  expect(invited.status()).toBe(201);
  const { code } = (await invited.json()) as { code: string };
  const username = `c${randomUUID().slice(0, 8)}`;
  // not with the request of the test: it would be signed in as the customer from here on
  const accepted = await fetch(`${process.env.E2E_ADDRESS}/api/accounts/invites/accept`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ code, username, password: 'long enough for this', pin: null }),
  });
  expect(accepted.status).toBe(200);
  const session = accepted.headers.getSetCookie().find((value) => value.includes('session_token'))!;
  return session.split(';')[0]!;
}

/** One first-off as its dialog asks for it: the gauge where it is due, then samples that look right and hold half as much again. */
export async function passSamples(dialog: Locator): Promise<void> {
  const gauge = dialog.getByRole('button', { name: 'Go goes in, no-go does not' });
  await expect(gauge.or(dialog.getByRole('listitem', { name: 'Sample 1' }))).toBeVisible();
  if (await gauge.isVisible()) await gauge.click();
  await dialog.getByLabel('pulled with').fill('pull tester 2');
  const height = dialog.getByLabel('height with');
  if (await height.isVisible()) await height.fill('micrometer 1');
  for (const sample of await dialog.getByRole('listitem', { name: /^Sample / }).all()) {
    await sample.getByRole('button', { name: 'Looks right' }).click();
    for (const label of await sample.locator('label').all()) {
      const words = (await label.textContent())!;
      const figure = Number(/(\d[\d.]*) (?:N|±)/.exec(words)![1]);
      await label.getByRole('textbox').fill(String(words.includes('pull') ? figure * 1.5 : figure));
    }
  }
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(dialog).toHaveCount(0);
}

/** Samples of every kind that the crimp step on a floor page waits for. */
export async function passFirstOffs(page: Page): Promise<void> {
  const proof = page.getByRole('region', { name: 'How the crimps are proved' });
  const more = proof.getByRole('button', { name: /other kinds? here/ });
  if (await more.isVisible()) await more.click();
  const due = proof.getByRole('button', { name: /^\d+ samples$/ });
  for (let left = await due.count(); left > 0; left -= 1) {
    await due.first().click();
    await passSamples(page.getByRole('dialog'));
    await expect(due).toHaveCount(left - 1);
  }
}

/** Go to another station by its key: one that is pressed before a page listens is not heard, and what the server drew stands there long before. */
export async function turnTo(page: Page, key: string, url: RegExp): Promise<void> {
  await expect(async () => {
    await page.keyboard.press(key);
    await page.waitForURL(url, { timeout: 5000, waitUntil: 'commit' });
  }).toPass();
}
