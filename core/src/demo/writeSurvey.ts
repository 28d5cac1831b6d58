import type { Catalogue } from '../catalogue';
import { applySurveyEntry } from '../edit';
import type { Job, SurveyEntry } from '../model';
import { createTree, findStandard } from '../plan';
import type { SurveyLine } from './engineSurvey';

const toId = (name: string) =>
  name
    .replaceAll(/[^a-z0-9]+/gi, '-')
    .toLowerCase()
    .slice(0, 30);

/** A loom from a written survey, line by line as they would be entered at the vehicle. Devices are met by name. Throws where a line is refused. */
export function writeSurvey(job: Job, loomId: string, lines: readonly SurveyLine[], catalogue: Catalogue): Job {
  let now = job;
  let via: string | null = null;
  lines.forEach((line, index) => {
    const loom = now.looms[loomId]!;
    const zeroNodeId = line.zero === 'firewall' ? createTree(loom, findStandard(now, catalogue)).datumId : `m-${toId(line.zero)}`;
    const deviceId = Object.keys(now.devices).find((id) => now.devices[id]!.at === null && now.devices[id]!.name === line.name) ?? null;
    const entry: SurveyEntry = {
      id: `e0000000-0000-4000-8000-${String(index).padStart(12, '0')}`,
      kind: 'mark',
      loomId,
      author: 'Jun Okafor',
      at: '2026-11-25T08:00:00Z',
      zeroNodeId,
      viaSegmentId: line.leg === 'on' ? via : null,
      atMm: line.atMm,
      what: line.what,
      name: line.name,
      holeMm: line.holeMm ?? null,
      method: 'tape',
      ticks: line.ticks ?? [],
      deviceId,
      nodeId: `m-${toId(line.name)}`,
      segmentId: `r-${toId(line.name)}`,
    };
    const taken = applySurveyEntry(now, entry, catalogue, findStandard(now, catalogue));
    if (taken.kind === 'conflict') throw new Error(`${line.name}: ${taken.theirs}`);
    now = taken.job;
    if (line.leg === 'new') via = entry.segmentId;
  });
  return now;
}
