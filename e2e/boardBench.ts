import type { Page } from '@playwright/test';

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** A loom laid out on its board where the user is: from the press to the new layout, and each move of a dragged branch to the next frame. */
export async function reportBoard(page: Page, path: string): Promise<void> {
  await page.goto(path);
  const press = page.getByRole('button', { name: /^(Search the layout|Lay out again)$/ });
  await press.waitFor();
  const times: number[] = [];
  for (let round = 0; round < 3; round += 1) {
    const started = performance.now();
    await press.click();
    await page.getByRole('status', { name: 'Search of the layout' }).waitFor();
    await page.getByRole('status', { name: 'Search of the layout' }).waitFor({ state: 'detached' });
    times.push(performance.now() - started);
  }
  const moves = await page.evaluate(async () => {
    const picture = document.querySelector<SVGSVGElement>('svg[aria-label^="Board of"]')!;
    const fork = [...picture.querySelectorAll<SVGGElement>('[data-fork="true"]')].at(-1)!;
    const { x, y, width, height } = fork.getBoundingClientRect();
    const at = { x: x + width / 2, y: y + height / 2 };
    picture.setPointerCapture = () => undefined;
    const send = (kind: string, dx: number, dy: number, target: Element) =>
      target.dispatchEvent(
        new PointerEvent(kind, { bubbles: true, pointerId: 1, button: 0, buttons: 1, clientX: at.x + dx, clientY: at.y + dy }),
      );
    send('pointerdown', 0, 0, fork.querySelector('path')!);
    const frames: number[] = [];
    for (let step = 1; step <= 40; step += 1) {
      await new Promise(requestAnimationFrame);
      const begun = performance.now();
      send('pointermove', 60 * Math.cos(step / 6), 60 * Math.sin(step / 6), picture);
      await new Promise(requestAnimationFrame);
      frames.push(performance.now() - begun);
    }
    picture.dispatchEvent(new PointerEvent('pointercancel', { bubbles: true, pointerId: 1 }));
    return frames;
  });
  console.log(
    `from the press to the new layout ${times.map((ms) => ms.toFixed(0)).join(', ')} ms; a dragged branch, move to frame: median ${median(moves).toFixed(0)} ms, longest ${Math.max(...moves).toFixed(0)} ms`,
  );
}
