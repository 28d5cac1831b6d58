import { findFamily } from '../../catalogue';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** RO1, stop: a bundle, or a housing that hangs beyond, does not pass a hole on the way. */
export const checkHoles: Rule = (context) => {
  const { job, loom, plan, catalogue } = context;
  const endAt = new Map(Object.entries(loom.ends).map(([id, end]) => [end.nodeId, id]));
  return Object.keys(loom.nodes)
    .sort(compareIds)
    .flatMap((nodeId) => {
      const { holeMm, name } = loom.nodes[nodeId]!;
      if (holeMm === null) return [];
      const findings: Finding[] = [];
      const node = plan.tree.nodes[nodeId]!;
      const outside = plan.coverings.filter(
        ({ segmentId }) => node.childSegmentIds.includes(segmentId) || node.parentSegmentId === segmentId,
      );
      const widest = Math.max(0, ...outside.map(({ odOutsideMm }) => odOutsideMm));
      if (widest > holeMm) {
        findings.push(
          createFinding(
            context,
            'RO1',
            [{ kind: 'node', id: nodeId }],
            `The bundle is ${widest.toFixed(1)} mm over its covering and does not pass ${name} (${holeMm} mm).`,
            { measured: widest, limit: holeMm },
          ),
        );
      }
      const beyond = [...node.childSegmentIds];
      for (let segmentId = beyond.pop(); segmentId !== undefined; segmentId = beyond.pop()) {
        const far = plan.tree.nodes[plan.tree.segments[segmentId]!.farNodeId]!;
        beyond.push(...far.childSegmentIds);
        const endId = endAt.get(far.id);
        const family = endId === undefined ? undefined : findFamily(job, catalogue, loom.ends[endId]!.familyId);
        if (endId === undefined || !family || family.envelopeMm <= holeMm) continue;
        findings.push(
          createFinding(
            context,
            'RO1',
            [
              { kind: 'end', id: endId },
              { kind: 'node', id: nodeId },
            ],
            `${loom.ends[endId]!.name} (${family.name}, ${family.envelopeMm} mm) does not pass ${name} (${holeMm} mm): pin it after routing or change the housing.`,
            { measured: family.envelopeMm, limit: holeMm },
          ),
        );
      }
      return findings;
    });
};
