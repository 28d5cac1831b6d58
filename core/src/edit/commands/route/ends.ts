import type { End, Segment } from '../../../model';
import type { Tree } from '../../../plan';
import { createCommand, createLoomCommand, type Command } from '../command';
import { addEnd } from './addEnd';
import { removeEnd } from './removeEnd';

/** An end of a loom, with what it is called. */
export interface EndPlace {
  loomId: string;
  endId: string;
  name: string;
}

/** place: where its leg leaves, and how long that is; null: the end sits there itself. */
export const addLoomEnd = (
  loomId: string,
  name: string,
  place: { nodeId: string; legMm: number | null },
  end: Pick<End, 'kind' | 'familyId' | 'studMm' | 'tongueMm'>,
  leg: Pick<Segment, 'method' | 'status' | 'zoneId'>,
): Command =>
  createLoomCommand(`add ${name}`, loomId, (loom) => {
    addEnd(loom, place, name, end.familyId, { kind: end.kind, studMm: end.studMm, tongueMm: end.tongueMm }, leg);
  });

export const removeLoomEnd = ({ loomId, endId, name }: EndPlace, tree: Tree): Command =>
  createCommand(`remove ${name}`, (draft) => removeEnd(draft, loomId, tree, endId));

/** Its node is called like it, where that is the end of a leg. */
export const renameEnd = ({ loomId, endId, name }: EndPlace, next: string): Command =>
  createLoomCommand(`rename ${name}`, loomId, ({ ends, nodes }) => {
    const end = ends[endId]!;
    end.name = next;
    if (nodes[end.nodeId]!.kind === 'end') nodes[end.nodeId]!.name = next;
  });

/** What is on an end: a housing, or bare tails; null: a connector whose housing is still to be chosen. A key is of its housing. */
export const setFamily = ({ loomId, endId, name }: EndPlace, family: { id: string } | 'tail' | null): Command =>
  createLoomCommand(`family of ${name}`, loomId, ({ ends }) => {
    const end = ends[endId]!;
    end.familyId = family === null || family === 'tail' ? null : family.id;
    end.kind = family === 'tail' ? 'tail' : 'connector';
    end.key = null;
  });

/** Slack that the wire of one cavity has for itself; null: none. */
export const setWireLoop = ({ loomId, endId, name }: EndPlace, cavity: string, mm: number | null): Command =>
  createLoomCommand(`loop at ${name}, cavity ${cavity}`, loomId, ({ ends }) => {
    if (mm === null || mm === 0) delete ends[endId]!.wireLoops[cavity];
    else ends[endId]!.wireLoops[cavity] = mm;
  });

const WORDS = {
  key: 'key',
  serviceLoopMm: 'service loop',
  reterminations: 're-terminations',
  clocking: 'turn',
  pins: 'needs',
  potting: 'potting',
  cautions: 'labels of warning',
  threadMm: 'thread of the stud',
  tongueMm: 'tongues',
  pinAt: 'where the contacts go in',
} as const;

export const setEnd = <Key extends keyof typeof WORDS>({ loomId, endId, name }: EndPlace, key: Key, value: End[Key]): Command =>
  createLoomCommand(`${WORDS[key]} of ${name}`, loomId, ({ ends }) => {
    ends[endId]![key] = value;
  });
