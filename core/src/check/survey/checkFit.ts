import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** SC4, check: the trial fit has begun and wires cannot be cut final yet. SC9, stop: a wire was cut too short for where it turned out to go. */
export const checkFit: Rule = (context) => {
  const { loom, plan } = context;
  const isBegun = Object.values(loom.segments).some(({ fittedMm, method }) => fittedMm !== null && method !== 'fitted');
  if (!isBegun) return [];
  const unfitted = new Set(plan.wires.flatMap(({ unfittedIds }) => unfittedIds));
  const waiting = plan.wires.filter(({ unfittedIds }) => unfittedIds.length > 0).length;
  const short = plan.wires.filter((wire) => wire.unfittedIds.length === 0 && wire.firstCutMm < wire.cutMm);
  const findings: Finding[] = short.map((wire) =>
    createFinding(
      context,
      'SC9',
      [{ kind: 'wire', id: wire.id }],
      `${wire.number} was cut to ${wire.firstCutMm} mm and needs ${wire.cutMm} mm as fitted: cut it again.`,
      { measured: wire.firstCutMm, limit: wire.cutMm },
    ),
  );
  if (waiting)
    findings.push(
      createFinding(
        context,
        'SC4',
        [...unfitted].slice(0, 6).map((id) => ({ kind: 'segment', id })),
        `The trial fit has begun; ${unfitted.size} ${unfitted.size === 1 ? 'run is' : 'runs are'} not fitted yet, so ${waiting} ${waiting === 1 ? 'wire has' : 'wires have'} no final length.`,
        { measured: unfitted.size, limit: 0 },
      ),
    );
  return findings;
};
