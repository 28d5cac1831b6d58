import { STATUS_OF_METHOD, type LengthStatus, type MeasureMethod, type Segment } from '../../../model';
import { createLoomCommand, type Command } from '../command';
import { toRun } from './toRun';

/** A run of a loom, with what it is called. */
export interface RunPlace {
  loomId: string;
  segmentId: string;
  name: string;
}

const change = ({ loomId, segmentId }: RunPlace, label: string, part: (segment: Segment) => Partial<Segment>): Command =>
  createLoomCommand(label, loomId, ({ segments }) => void Object.assign(segments[segmentId]!, part(segments[segmentId]!)));

/** The length that counts, dragged or typed where it is drawn: the fitted one where it was fitted, else the reading (a second one goes). */
export const setRun = (run: RunPlace, lengthMm: number): Command =>
  change(run, `${run.name} ${lengthMm} mm`, (segment) => toRun(segment, lengthMm));

/** The first reading, as the table of lengths has it. */
export const setReading = (run: RunPlace, lengthMm: number): Command => change(run, `${run.name} ${lengthMm} mm`, () => ({ lengthMm }));

export const setSecondReading = (run: RunPlace, secondLengthMm: number | null): Command =>
  change(run, `second reading of ${run.name}`, () => ({ secondLengthMm }));

/** Fitted so long; null: not fitted, and known as its method makes it. */
export const setFitted = (run: RunPlace, fittedMm: number | null): Command =>
  change(run, `${run.name} ${fittedMm === null ? 'not fitted' : `fitted at ${fittedMm} mm`}`, ({ method }) => ({
    fittedMm,
    status: fittedMm === null ? STATUS_OF_METHOD[method === 'fitted' ? 'tape' : method] : 'fitted',
  }));

export const setMethod = (run: RunPlace, method: MeasureMethod): Command => change(run, `method of ${run.name}`, () => ({ method }));

/** plannedMm: what counts as fitted where no fitted length was read yet. */
export const setStatus = (run: RunPlace, status: LengthStatus, plannedMm: number): Command =>
  change(run, `status of ${run.name}`, ({ fittedMm }) => ({ status, fittedMm: status === 'fitted' ? (fittedMm ?? plannedMm) : null }));

export const setRunZone = (run: RunPlace, zoneId: string | null): Command => change(run, `zone of ${run.name}`, () => ({ zoneId }));

/** pin null: the covering is computed. */
export const setCovering = (run: RunPlace, pin: Segment['coveringPin']): Command =>
  change(run, pin === null ? `let the covering of ${run.name} be computed` : `${pin.itemId ?? pin.kind} on ${run.name}`, () => ({
    coveringPin: pin,
  }));

export const setSlideOn = (run: RunPlace, slideOn: Segment['slideOn']): Command =>
  change(run, `when the sleeve of ${run.name} goes on`, () => ({ slideOn }));

/** Where a run is clipped, mm from where it begins; null: computed. */
export const setClips = (run: RunPlace, clipsAtMm: readonly number[] | null): Command =>
  change(
    run,
    clipsAtMm === null ? `let the clips of ${run.name} be computed` : `clips of ${run.name} at ${clipsAtMm.join(', ') || 'no place'}`,
    () => ({
      clipsAtMm: clipsAtMm === null ? null : [...clipsAtMm],
    }),
  );

/** Places along a run as people write them: "100, 300 520"; each once, nearest first. */
export function readClipPlaces(words: string, lengthMm: number): { ok: true; value: number[] } | { ok: false; message: string } {
  const parts = words.split(/[\s;,]+/).filter(Boolean);
  const odd = parts.find((one) => !/^\d+$/.test(one) || Number(one) >= lengthMm);
  if (odd !== undefined) return { ok: false, message: `expected whole mm below ${Math.ceil(lengthMm)}, got ${odd.slice(0, 20)}` };
  return { ok: true, value: [...new Set(parts.map(Number))].sort((a, b) => a - b) };
}
