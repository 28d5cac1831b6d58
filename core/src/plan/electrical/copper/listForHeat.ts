import { toSizeWords, type Conductor, type ShopStandard } from '../../../catalogue';
import type { MinimumSize } from '../../size/chooseConductors';
import { isZoneTooHot } from '../../heat/measureAmpacity';
import { mostOf } from '../currents/currents';
import type { NetlistWire } from '../drop/measureLoads';
import { measureTrialMiddle } from '../drop/measureTrial';
import type { SizedLoom } from '../sizedLoom';

/** A wire that makes less of a bundle's heat is not thickened for it: it would not help. */
const WORTH = 0.02;

export interface SizesSoFar {
  /** asked for by the heat in the round before, and to be looked at again */
  warm: ReadonlyMap<number, MinimumSize>;
  /** conductors that a wire may still have, the thinnest first: the first is what it is asked for so far */
  optionsOf: (edge: number) => readonly Conductor[];
}

interface AskedEdge {
  edge: number;
  minimum: MinimumSize;
}

interface SizingWires {
  /** by edge of the netlist */
  wires: readonly NetlistWire[];
  /** edge of a wire, by loom and wire */
  edgeOf: ReadonlyMap<string, ReadonlyMap<string, number>>;
  standard: ShopStandard;
}

type Section = SizedLoom['bundles'][number]['sections'][number];
type Heat = SizedLoom['heats'][number];

/** Thicker conductors of a loom whose bundles would be too warm in their middle (calculations 3), section by section. */
export function* listForHeat(context: SizingWires, loom: SizedLoom, sizes: SizesSoFar): Generator<AskedEdge> {
  const edgeOf = context.edgeOf.get(loom.loomId)!;
  for (const heat of loom.heats) {
    const { segmentId, middleC, limitC, wattsPerM } = heat;
    if (limitC === null || wattsPerM === 0) continue;
    const isOver = middleC === null || middleC > limitC - context.standard.heatMarginK;
    if (!isOver && sizes.warm.size === 0) continue;
    const at = loom.bundles.findIndex((one) => one.segmentId === segmentId);
    const { sections } = loom.bundles[at]!;
    if (!isOver && !sections.some(({ elements }) => elements.some((ids) => ids.some((id) => sizes.warm.has(edgeOf.get(id)!))))) continue;
    const wallMm = loom.coverings[at]!.odOutsideMm - Math.max(...sections.map((one) => one.odMm));
    for (const section of sections) if (section.odMm > 0) yield* coolSection(context, edgeOf, { heat, section, wallMm }, sizes);
  }
}

/** The wire that heats most is thickened first, until the middle of the section stays cool enough. */
function* coolSection(
  { wires, standard }: SizingWires,
  edgeOf: ReadonlyMap<string, number>,
  { heat, section, wallMm }: { heat: Heat; section: Section; wallMm: number },
  { optionsOf, warm }: SizesSoFar,
): Generator<AskedEdge> {
  const { ambientC } = heat;
  const most = heat.limitC! - standard.heatMarginK;
  const here = section.elements.flat().map((id): WireHere => {
    const edge = edgeOf.get(id)!;
    const conductor = optionsOf(edge)[0]!;
    return { edge, netlistWire: wires[edge]!, was: conductor, conductor };
  });
  const isTooWarm = () => {
    const trialC = measureTrialMiddle(here, section, wallMm, ambientC, standard.altitudeM);
    return trialC === null || trialC > most;
  };
  while (isTooWarm()) {
    const sum = here.reduce((total, one) => total + measureWatts(one), 0);
    const thicker = here
      .filter(({ conductor }) => !isZoneTooHot(ambientC, conductor.table, standard))
      .map((one) => ({ one, to: optionsOf(one.edge).find(({ areaMm2 }) => areaMm2 > one.conductor.areaMm2) }))
      .filter(({ one, to }) => to && measureWatts(one) >= WORTH * sum)
      .sort((a, b) => measureWatts(b.one) - measureWatts(a.one))[0];
    if (!thicker) break;
    thicker.one.conductor = thicker.to!;
  }
  for (const { edge, was, conductor } of here)
    if (conductor !== was) yield { edge, minimum: explainHeat(heat, most, was, conductor, warm.get(edge)) };
}

interface WireHere {
  edge: number;
  netlistWire: NetlistWire;
  was: Conductor;
  conductor: Conductor;
}

const measureWatts = ({ netlistWire, conductor }: WireHere) => (mostOf(netlistWire.current.heatA) ** 2 * conductor.r20MilliohmPerM) / 1000;

/** What the heat asks for, in the words of the round before where that asked for the same. */
function explainHeat({ middleC }: Heat, most: number, was: Conductor, conductor: Conductor, known: MinimumSize | undefined): MinimumSize {
  const start = `with ${toSizeWords(was)} the middle of the bundle would`;
  if (known?.conductor === conductor && known.because.startsWith(start)) return known;
  const would = middleC === null ? 'heat up without end' : middleC > most ? `reach ${middleC.toFixed(0)} °C` : 'be too warm';
  return { conductor, ruledBy: 'heat', because: `${start} ${would}; the shop keeps ${most} °C` };
}
