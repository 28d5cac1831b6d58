import type { Catalogue } from '../../catalogue';
import { findSurroundings } from '../../model';
import type { PlannedMark } from '../../plan';
import { createKeeper } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, FindingPlace, PlainContext } from '../types';

/** At what each sleeve, boot and transition of the shop is shrunk, °C; null: nobody said. */
const mapShrinks = (catalogue: Catalogue): ReadonlyMap<string, number | null> =>
  remember(catalogue, [], () => {
    const items = [...catalogue.coverings, ...catalogue.boots, ...catalogue.transitions];
    return new Map(items.map((item) => [item.id, 'shrinkC' in item ? item.shrinkC : null]));
  });
const remember = createKeeper<Catalogue, ReadonlyMap<string, number | null>>();

/** How hot a label gets, and by what. */
interface Heated {
  place: FindingPlace;
  gotC: number;
  standsC: number;
  words: string;
}

/**
 * MA5, check: a label lies where it is hotter than it stands for good, or under what is shrunk hotter than it stands for a minute (craft A3: a hot
 * piece over a cold-rated label). What the shop does not know of a label or a sleeve is not asked.
 */
export function listLabelHeats(context: PlainContext, marks: readonly PlannedMark[]): Finding[] {
  const { job, loom, plan, catalogue, standard } = context;
  const stocks = new Map(catalogue.labels.map((stock) => [stock.id, stock]));
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const dressed = new Map(plan.endDress.map((one) => [one.endId, one]));
  const shrinks = mapShrinks(catalogue);
  const ambients = new Map<string, number | null>();
  const findAmbient = (segmentId: string): number | null => {
    let ambientC = ambients.get(segmentId);
    if (ambientC === undefined) {
      ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
      ambients.set(segmentId, ambientC);
    }
    return ambientC;
  };
  const listEnds = ({ kind, id }: PlannedMark): string[] => {
    if (kind === 'end' || kind === 'caution') return [id];
    if (kind !== 'wire') return [];
    const { from, to } = wires.get(id)!;
    return [from, to].flatMap((end) => ('endId' in end ? [end.endId] : []));
  };
  /** where it lies: its run, the leg of its end, or the legs at both ends of its wire */
  const listPlaces = (mark: PlannedMark, standsC: number): Heated[] => {
    const segmentIds = mark.kind === 'zone' ? [mark.id] : listEnds(mark).flatMap((endId) => dressed.get(endId)?.segmentId ?? []);
    return segmentIds.flatMap((id) => {
      const gotC = findAmbient(id);
      return gotC === null || gotC <= standsC ? [] : [{ place: { kind: 'segment', id }, gotC, standsC, words: 'lies where it gets' }];
    });
  };
  /** what is shrunk over it: its clear sleeve, or what closes the ends of its wire */
  const listShrunk = (mark: PlannedMark, standsC: number): Heated[] => {
    const over = [
      ...(mark.clear
        ? [{ ...mark.clear, place: { kind: mark.kind === 'zone' ? 'segment' : 'end', id: mark.id } satisfies FindingPlace }]
        : []),
      ...(mark.kind === 'wire' ? listEnds(mark) : []).flatMap((id) =>
        (dressed.get(id)?.pieces ?? []).map((piece) => ({ ...piece, place: { kind: 'end', id } satisfies FindingPlace })),
      ),
    ];
    return over.flatMap(({ itemId, itemName, place }) => {
      const gotC = shrinks.get(itemId) ?? null;
      return gotC === null || gotC <= standsC ? [] : [{ place, gotC, standsC, words: `lies under ${itemName}, which shrinks at` }];
    });
  };
  return marks.flatMap((mark): Finding[] => {
    const stock = mark.stockId === null ? undefined : stocks.get(mark.stockId);
    if (!stock) return [];
    const { limitC, shortC, name } = stock;
    const [told] = [...(limitC === null ? [] : listPlaces(mark, limitC)), ...(shortC === null ? [] : listShrunk(mark, shortC))];
    if (!told) return [];
    const { gotC, standsC, words, place } = told;
    return [
      createFinding(
        context,
        'MA5',
        [place, { kind: 'item', id: `${mark.kind}.${mark.id}` }],
        `"${mark.text}" (${name}) ${words} ${gotC} °C and stands ${standsC}.`,
        {
          measured: gotC,
          limit: standsC,
        },
      ),
    ];
  });
}
