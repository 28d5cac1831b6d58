import { CATALOGUE, createTaker, listHousings } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { listFindings } from '../../make';
import { changeDocument } from '../../model';
import { createPlanner } from '../../plan';

test('the housing that is offered for an end without one takes its wires, where any does: taking it leaves no contact too large or small', () => {
  const clean = createCleanSkerry();
  // a planner that remembers: each job differs from the one before in an end or two
  const planner = createPlanner(CATALOGUE);
  let offered = 0;
  for (const [loomId, loom] of Object.entries(clean.looms))
    for (const [endId, end] of Object.entries(loom.ends)) {
      if (end.kind !== 'connector' || Object.values(clean.mates).some(({ a, b }) => [a, b].some((one) => one.endId === endId))) continue;
      const job = changeDocument(clean, ({ looms }) => Object.assign(looms[loomId]!.ends[endId]!, { familyId: null, key: null }));
      const planned = planner(job);
      const finding = listFindings(job, planned, CATALOGUE, null).find(({ code, places }) => code === 'EN6' && places[0]!.id === endId)!;
      const change = finding.fix?.patch.find(({ path }) => path.endsWith('/familyId'));
      if (!change || !('value' in change)) continue;
      const at = planned.looms
        .find((one) => one.loomId === loomId)!
        .wires.flatMap(({ from, to, conductor }) =>
          [from, to].flatMap((one) => (one.kind === 'cavity' && one.endId === endId ? [{ cavity: one.cavity, conductor }] : [])),
        );
      const takes = (familyId: string) => {
        const family = job.families[familyId] ?? CATALOGUE.families[familyId]!;
        return at.every(({ cavity, conductor }) => createTaker(CATALOGUE, family, cavity)(conductor));
      };
      const cavities = [...new Set(at.map(({ cavity }) => cavity)), ...Object.keys(end.pins), ...Object.keys(end.offers)];
      const any = listHousings(job, CATALOGUE, cavities).some(([id]) => takes(id));
      expect({ endId, takes: takes(change.value as string) }).toEqual({ endId, takes: any });
      offered += 1;
      if (offered >= 24) return;
    }
});
