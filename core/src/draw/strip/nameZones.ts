import { measureText } from '../measureText';
import type { StripLayout, StripRun } from './stripLayout';
import { toLine, type Box, type StripOptions } from './stripDrawing';

export const isOverlapping = (one: Box, other: Box) =>
  one.left < other.right - 1e-9 && other.left < one.right - 1e-9 && one.top < other.bottom - 1e-9 && other.top < one.bottom - 1e-9;

/**
 * The name of each zone once, in a corner of its widest run that no other words stand in, beside the wires if there is one; one that has no
 * such corner is not named.
 */
export function nameZones(runs: readonly StripRun[], taken: readonly Box[], options: StripOptions): StripLayout['zones'] {
  const placed = [...taken];
  return [...(options.zones ?? [])].flatMap(([zoneId, words]) => {
    const width = measureText(words, options.text, 'narrow');
    const height = toLine(options);
    const edge = options.text * 0.2;
    const ofZone = runs.filter((run) => run.zoneId === zoneId && run.width > width + 2 * edge).sort((a, b) => b.width - a.width);
    const wires = ofZone.map(({ x, width: room, lanes }) => ({ left: x, right: x + room, ...lanes }));
    for (const avoided of [[...placed, ...wires], placed])
      for (const { x, width: room, top, bottom } of ofZone)
        for (const left of [x + room - width - edge, x + edge])
          for (const at of [bottom - height - edge, top + edge]) {
            const box = { left, right: left + width, top: at, bottom: at + height };
            if (at < top || box.bottom > bottom || avoided.some((one) => isOverlapping(one, box))) continue;
            placed.push(box);
            return [{ zoneId, words, box }];
          }
    return [];
  });
}
