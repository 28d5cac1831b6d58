import type { LoomPlan } from '../../plan';
import { measureText } from '../measureText';
import type { Strip } from './createStrips';
import { toX, type SpliceTag, type StripOptions } from './stripDrawing';

type PlannedSplice = LoomPlan['splices'][number];

/**
 * Words at the splices of a strip, one for those that stand too close for one each: they are merged from the datum on until none touches the
 * next. They stay on their strip where it is long enough.
 */
export function listTags(strip: Strip, splices: readonly PlannedSplice[], options: StripOptions): SpliceTag[] {
  const [from, to] = [toX(options, strip.startMm), toX(options, strip.endMm)];
  const gap = options.text * 0.3;
  const groups: PlannedSplice[][] = [];
  const tags: SpliceTag[] = [];
  for (const splice of [...splices].sort((a, b) => a.distanceMm - b.distanceMm)) {
    let group = [splice];
    let tag = toTag(group, options, from, to);
    while (tags.length && tags.at(-1)!.x + tags.at(-1)!.width / 2 + gap > tag.x - tag.width / 2) {
      group = [...groups.pop()!, ...group];
      tags.pop();
      tag = toTag(group, options, from, to);
    }
    groups.push(group);
    tags.push(tag);
  }
  return tags;
}

function toTag(group: readonly PlannedSplice[], options: StripOptions, from: number, to: number): SpliceTag {
  const clear = group.every((one) => one.clear);
  const name = group.length === 1 ? group[0]!.label : `${group.length} splices`;
  const words = clear ? name : `! ${name}`;
  // no narrower than a finger or an unsteady hand needs (WCAG 2.2, 2.5.8: 24 px where names are 14 px)
  const width = Math.max(options.text * 1.75, measureText(words, options.text, 'narrow-bold') + options.text * 0.6);
  const middle = group.reduce((sum, { distanceMm }) => sum + toX(options, distanceMm), 0) / group.length;
  // on a strip too short for it, it stands behind the end
  const x = to - from < width ? to + options.text * 0.8 + width / 2 : Math.max(from + width / 2, Math.min(to - width / 2, middle));
  return { spliceIds: group.map(({ id }) => id), words, x, width, clear };
}
