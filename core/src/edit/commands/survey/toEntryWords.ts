import type { Job, SurveyEntry } from '../../../model';
import { toClockWords } from '../../../plan';

/** An entry in the words of a list: "615 breakout injector rail". */
export function toEntryWords(job: Job, entry: SurveyEntry): string {
  const loom = job.looms[entry.loomId];
  const run = (segmentId: string) => {
    const segment = loom?.segments[segmentId];
    return segment ? `${loom!.nodes[segment.fromNodeId]?.name ?? '?'} to ${loom!.nodes[segment.toNodeId]?.name ?? '?'}` : 'a run';
  };
  switch (entry.kind) {
    case 'mark':
      return `${entry.atMm} ${entry.what === 'pass' ? `hole${entry.holeMm === null ? '' : ` ${entry.holeMm}`}` : entry.what} ${entry.name}`;
    case 'reading':
      return `${run(entry.segmentId)}: ${entry.lengthMm} mm by ${entry.method}`;
    case 'fitted':
      return `${run(entry.segmentId)}: fitted at ${entry.fittedMm} mm`;
    case 'ticks':
      return `${run(entry.segmentId)}: ${entry.ticks.join(', ') || 'no ticks'}`;
    case 'side':
      return `${run(entry.segmentId)}: ${entry.leavesDeg === null ? 'side not known' : `leaves at ${toClockWords(entry.leavesDeg)}`}`;
    case 'anchor':
      return `${job.anchors[entry.anchorId]?.name ?? 'anchor'}: ${entry.state}${entry.place ? `, ${entry.place}` : ''}`;
    case 'datum':
      return `datum: ${entry.name}`;
    case 'clamp':
      return entry.clamped ? 'datum clamped' : 'datum clamp taken off';
    case 'answer':
      return `${job.openItems[entry.itemId]?.question ?? 'a question'}: ${entry.answer}`;
    case 'ask':
      return `to ask: ${entry.question}`;
  }
}
