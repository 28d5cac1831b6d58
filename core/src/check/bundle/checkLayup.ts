import { findBundling } from '../../model';
import { toLayerWords, toThreadWords, type LaidLayer, type PlannedLayup } from '../../plan';
import { pushTo, toCount } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

const toName = ({ loom, plan }: RuleContext, layup: PlannedLayup, mark: number) => {
  const { nodeId, mm } = layup.marks[mark]!;
  return nodeId === null ? `${Math.round(plan.tree.segments[layup.id]!.startMm + mm)} mm` : loom.nodes[nodeId]!.name;
};

/** BU4, check: something has to come out through a layer where it leaves. */
export const checkCrossings: Rule = (context) =>
  context.plan.layups.flatMap((layup): Finding[] => {
    if (layup.crossings.length === 0) return [];
    const numbers = new Map(context.plan.wires.map(({ id, number }) => [id, number]));
    const words = layup.crossings.map(({ threadId, mark }) => {
      const thread = layup.threads.find(({ id }) => id === threadId)!;
      return `${toThreadWords(thread, numbers, thread.from.mark === mark ? mark : mark - 1)} at ${toName(context, layup, mark)}`;
    });
    const way = `${toName(context, layup, 0)} to ${toName(context, layup, layup.marks.length - 1)}`;
    return [
      createFinding(
        context,
        'BU4',
        [{ kind: 'segment', id: layup.id }],
        `In the lay-up of ${way} ${toCount(words.length, 'element has', 'elements have')} to come out through a layer: ${words.join(', ')}.`,
        { measured: words.length, limit: 0 },
      ),
    ];
  });

/** BU5, note: a lay-up that nobody searched, or that does not fit any more, and what dead wire it takes. */
export const checkSearched: Rule = (context) =>
  context.plan.layups.flatMap((layup): Finding[] => {
    // a branch of a core alone has nothing to be searched
    if (layup.by === 'search' || layup.stretches.every(({ layers }) => layers.length === 1)) return [];
    const way = `${toName(context, layup, 0)} to ${toName(context, layup, layup.marks.length - 1)}`;
    const why = layup.by === 'stale' ? 'what was found does not fit what lies there now' : 'it was not searched for yet';
    return [
      createFinding(
        context,
        'BU5',
        [{ kind: 'segment', id: layup.id }],
        `${way} is laid up once from end to end, with ${toCount(layup.fillers.length, 'piece')} of dead wire: ${why}. Search it under Bundle, Lay-up.`,
        { measured: layup.fillers.length, limit: null },
      ),
    ];
  });

/** BU6, check: a pair lies untwisted for longer than the shop allows. */
export const checkUntwisted: Rule = (context) => {
  const { loom, plan, standard } = context;
  const groups = new Map<string, string[]>();
  for (const [id, { twist, cable }] of Object.entries(loom.circuits)) if (twist && !cable) pushTo(groups, twist.groupId, id);
  return [...groups].flatMap(([groupId, circuitIds]): Finding[] => {
    const ids = new Set(circuitIds);
    const untwisted = plan.wires
      .filter(({ circuitId }) => ids.has(circuitId))
      .map(({ pieces }) =>
        pieces.reduce(
          (sum, { segmentId, fromMm, toMm }) => sum + (findBundling(loom, segmentId, standard) === 'straight' ? toMm - fromMm : 0),
          0,
        ),
      );
    const most = Math.max(0, ...untwisted);
    if (most <= standard.untwistedMostMm) return [];
    const names = circuitIds.map((id) => loom.circuits[id]!.name).join(' and ');
    return [
      createFinding(
        context,
        'BU6',
        circuitIds.map((id) => ({ kind: 'circuit', id })),
        `${names} (twisted together as ${groupId}) lie untwisted for ${Math.round(most)} mm, for their bundle is laid all straight; the shop allows ${standard.untwistedMostMm} mm.`,
        { measured: Math.round(most), limit: standard.untwistedMostMm },
      ),
    ];
  });
};

/** BU7, check: the heavy conductors of a layer lie all to one side. */
export const checkHeavy: Rule = (context) => {
  const { heavyMm2, asideMostShare } = context.standard;
  return listLayers(context, (layup, layer, index) => {
    const aside = index > 0 ? measureAside(layup, layer, heavyMm2) : 0;
    return aside > asideMostShare ? { measured: Math.round(aside * 100) / 100, limit: asideMostShare, words: '' } : null;
  }).map(({ layup, where, measured, limit }) =>
    createFinding(
      context,
      'BU7',
      [{ kind: 'segment', id: layup.id }],
      `Heavy conductors lie to one side in ${where}: the bundle would be stiff there. Put them in the core, or evenly round a layer.`,
      { measured, limit },
    ),
  );
};

/** BU8, check: the lay of a layer is shorter or longer than the shop lays. */
export const checkLays: Rule = (context) => {
  const { layRatioLeast, layRatioMost } = context.standard;
  return listLayers(context, (_, { layMm, outerOdMm }) => {
    const ratio = layMm === null ? null : layMm / outerOdMm;
    if (ratio === null || (ratio >= layRatioLeast - 1e-9 && ratio <= layRatioMost + 1e-9)) return null;
    return {
      measured: Math.round(ratio * 10) / 10,
      limit: ratio > layRatioMost ? layRatioMost : layRatioLeast,
      words: ` (${ratio.toFixed(1)})`,
    };
  }).map(({ layup, where, measured, limit }) =>
    createFinding(
      context,
      'BU8',
      [{ kind: 'segment', id: layup.id }],
      `The lay is outside ${layRatioLeast} to ${layRatioMost} times the diameter in ${where}.`,
      { measured, limit },
    ),
  );
};

interface Told {
  measured: number;
  limit: number;
  words: string;
}

/** Of each lay-up the layers of which something is to be said, in words, with the first figure. */
function listLayers(
  context: RuleContext,
  tell: (layup: PlannedLayup, layer: LaidLayer, index: number) => Told | null,
): { layup: PlannedLayup; where: string; measured: number; limit: number }[] {
  return context.plan.layups.flatMap((layup) => {
    const told = layup.stretches.flatMap(({ layers, fromMark, toMark }) =>
      layers.flatMap((layer, index) => {
        const one = tell(layup, layer, index);
        const way = `${toName(context, layup, fromMark)} to ${toName(context, layup, toMark)}`;
        return one ? [{ ...one, where: `${toLayerWords(index)} of ${way}${one.words}` }] : [];
      }),
    );
    return told.length
      ? [{ layup, where: told.map(({ where }) => where).join(', '), measured: told[0]!.measured, limit: told[0]!.limit }]
      : [];
  });
}

/** How far the copper of a layer with heavy conductors lies to one side; 0: evenly, or none is heavy. */
function measureAside({ threads }: PlannedLayup, { slots }: LaidLayer, heavyMm2: number): number {
  const areas = slots.map(({ threadId }) => threads.find(({ id }) => id === threadId)?.areaMm2 ?? 0);
  if (!areas.some((area) => area >= heavyMm2)) return 0;
  const [x, y, sum] = slots.reduce(
    ([ax, ay, all], { startDeg }, at) => {
      const turn = (startDeg * Math.PI) / 180;
      return [ax + areas[at]! * Math.sin(turn), ay + areas[at]! * Math.cos(turn), all + areas[at]!] as const;
    },
    [0, 0, 0] as readonly [number, number, number],
  );
  return Math.hypot(x, y) / sum;
}
