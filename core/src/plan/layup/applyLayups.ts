import type { LaidBundle } from '../bundle/measureBundles';
import type { Circle, PlannedLayup, Section, SizedWire } from '../types';
import { listLaidCircles } from './listLaidCircles';

/** Bundles with the diameters that their lay-up comes to, and where each element lies in the middle of each section. */
export function applyLayups(
  laid: readonly LaidBundle[],
  layups: readonly PlannedLayup[],
  wires: readonly SizedWire[],
): readonly LaidBundle[] {
  if (layups.length === 0) return laid;
  const layupOf = new Map(layups.flatMap((layup) => layup.segmentIds.map((id) => [id, layup] as const)));
  const massOf = new Map(wires.map(({ id, conductor }) => [id, conductor.massGPerM]));
  return laid.map((one) => {
    const layup = layupOf.get(one.bundle.segmentId);
    return layup ? applyLayup(one, layup, layup.segmentMarks[layup.segmentIds.indexOf(one.bundle.segmentId)]!, massOf) : one;
  });
}

function applyLayup(one: LaidBundle, layup: PlannedLayup, firstMark: number, massOf: ReadonlyMap<string, number>): LaidBundle {
  const { bundle } = one;
  let mass = 0;
  const sections = bundle.sections.map((section, index): Section => {
    const mark = firstMark + index;
    const { mm } = layup.marks[mark]!;
    const lengthMm = section.toMm - section.fromMm;
    const circles = listLaidCircles(layup, mm + lengthMm / 2);
    const byWire = new Map(circles.flatMap((circle) => circle.wireIds.map((id) => [id, circle] as const)));
    for (const { wireIds, takeUp, fillerMassGPerM } of circles)
      mass += lengthMm * takeUp * (fillerMassGPerM ?? wireIds.reduce((sum, id) => sum + massOf.get(id)!, 0));
    const odMm = circles.reduce((most, { outerOdMm }) => Math.max(most, outerOdMm), 0);
    const placed = section.elements.map(([id], at): Circle => {
      const { x, y } = byWire.get(id!)!;
      return { x, y, r: section.diametersMm[at]! / 2 };
    });
    return { ...section, circles: placed, odMm, method: 'lay-up' };
  });
  const lengthMm = bundle.sections.at(-1)!.toMm;
  const odMm = sections.reduce((most, section) => Math.max(most, section.odMm), 0);
  const laid = { ...bundle, sections, odMm, massGPerM: mass / lengthMm };
  return { ...one, bundle: laid, content: laid };
}
