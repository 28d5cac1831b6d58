import { randomUUID } from 'node:crypto';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './chromium';
import { createRandomJob } from 'wattograph-core/generate';

const address = process.env.BENCH_ADDRESS!;

interface TraceEvent {
  name: string;
  dur?: number;
  /** time the thread itself ran: without what the machine gave to others meanwhile */
  tdur?: number;
  ph: string;
  pid: number;
  tid: number;
  args?: { name?: string };
}

interface Tasks {
  wall: number[];
  /** processor time of the same tasks; empty where the trace has none */
  thread: number[];
}

/** Tasks of the page's main thread while something is done, longest first, from a Chromium trace; ms. */
async function traceTasks(page: Page, work: () => Promise<void>): Promise<Tasks> {
  const session = await page.context().newCDPSession(page);
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as TraceEvent[])));
  await session.send('Tracing.start', {
    categories: 'devtools.timeline,toplevel,disabled-by-default-devtools.timeline',
    transferMode: 'ReportEvents',
  });
  await work();
  const complete = new Promise<void>((resolve) => session.once('Tracing.tracingComplete', () => resolve()));
  await session.send('Tracing.end');
  await complete;
  const mains = new Set(
    events
      .filter(({ name, args: more }) => name === 'thread_name' && more?.name === 'CrRendererMain')
      .map(({ pid, tid }) => `${pid} ${tid}`),
  );
  const tasks = events.filter(({ name, pid, tid }) => name === 'RunTask' && mains.has(`${pid} ${tid}`));
  const sort = (times: (number | undefined)[]) =>
    times
      .filter((time) => time !== undefined)
      .map((time) => time / 1000)
      .sort((a, b) => b - a);
  return { wall: sort(tasks.map(({ dur }) => dur)), thread: sort(tasks.map(({ tdur }) => tdur)) };
}

function report(name: string, { wall, thread }: Tasks): void {
  const first = (times: number[]) =>
    times
      .slice(0, 5)
      .map((ms) => ms.toFixed(1))
      .join(', ');
  const own = thread.length ? `; processor time ${first(thread)} ms, over 50 ms: ${thread.filter((ms) => ms > 50).length}` : '';
  console.log(`${name}: longest tasks ${first(wall)} ms of ${wall.length}, over 50 ms: ${wall.filter((ms) => ms > 50).length}${own}`);
}

async function main(): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const interactive: number[] = [];
  for (let round = 0; round < 5; round += 1) {
    const started = performance.now();
    await page.goto(`${address}/jobs/5ee12000-0000-4000-8000-000000000012/bundle`);
    await page.getByRole('slider').first().waitFor();
    interactive.push(performance.now() - started);
  }
  console.log(`demo Bundle interactive (strip drawn, handles live): ${interactive.map((ms) => Math.round(ms)).join(', ')} ms`);

  const id = randomUUID();
  const stored = await fetch(`${address}/api/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id, author: 'bench', document: createRandomJob(7, 300) }),
  });
  if (!stored.ok) throw new Error(await stored.text());
  console.log('\n── 300 wires in the browser (target: no task over 50 ms)');
  await page.goto(`${address}/jobs/${id}/bundle`);
  await page.getByRole('slider').first().waitFor();
  await page.waitForTimeout(2500);
  const strip = (await page.getByRole('application').boundingBox())!;
  const cursor = await traceTasks(page, async () => {
    for (let step = 0; step < 120; step += 1) await page.mouse.move(strip.x + 60 + step * 4, strip.y + 70 + (step % 3) * 20);
    await page.waitForTimeout(200);
  });
  report('cursor', cursor);
  const handle = (await page.getByRole('slider').nth(2).boundingBox())!;
  const drag = await traceTasks(page, async () => {
    await page.mouse.move(handle.x + 6, handle.y + 6);
    await page.mouse.down();
    for (let step = 0; step < 60; step += 1) {
      await page.mouse.move(handle.x + 6 + 20 * Math.sin(step / 6), handle.y + 6);
      await page.waitForTimeout(16);
    }
    await page.mouse.up();
    await page.waitForTimeout(400);
  });
  report('drag', drag);
  await browser.close();
}

void main();
