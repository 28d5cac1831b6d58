import type { ShopStandard } from '../model';

/** One side of a question: what it is called, and the defaults of the shop standard that stand for it. */
export interface HouseSide {
  words: string;
  sets: Partial<ShopStandard>;
}

/** One question on which shops differ, what it drives, and the sides they take. */
export interface HouseQuestion {
  id: string;
  question: string;
  drives: string;
  sides: readonly HouseSide[];
}

/**
 * Questions of the house style (craft G8). The side that a shop takes is the one whose defaults its standard has; a job may take another,
 * with a reason, and is planned with that one's. A question is asked once something hangs on its answer.
 */
export const HOUSE_STYLE: readonly HouseQuestion[] = [
  {
    id: 'rough',
    question: 'Lengths from',
    drives: 'how much longer a wire is cut than it ends up, and where its markers go on',
    sides: [
      { words: 'the vehicle itself: cut rough, trimmed after the fit', sets: { roughExtraMm: 50 } },
      { words: 'the same, with more to spare', sets: { roughExtraMm: 100 } },
    ],
  },
  {
    id: 'retermination',
    question: 'Slack',
    drives: 'length kept back at every end that states none of its own',
    sides: [
      { words: 'exact after fitting', sets: { reterminations: 0 } },
      { words: 'one new termination', sets: { reterminations: 1 } },
      { words: 'two', sets: { reterminations: 2 } },
      { words: 'three', sets: { reterminations: 3 } },
    ],
  },
  {
    id: 'deviceLabels',
    question: 'Devices',
    drives: 'a label for each device beside that of its end: what is printed and bought, and what lies in the bag of the end',
    sides: [
      { words: 'their ends say their names', sets: { deviceLabels: false } },
      { words: 'a label on the device too', sets: { deviceLabels: true } },
    ],
  },
  {
    id: 'zoneLabels',
    question: 'Zones',
    drives: 'whether runs that lead into another zone say so on a label, and what the crew slides on there',
    sides: [
      { words: 'their names on the loom', sets: { zoneLabels: true } },
      { words: 'on paper alone', sets: { zoneLabels: false } },
    ],
  },
  {
    id: 'clear',
    question: 'Labels where it is wet',
    drives: 'clear sleeves over labels of ends, warnings and zones: what is bought, and what the crew shrinks over them',
    sides: [
      { words: 'under a clear sleeve', sets: { clearOverLabels: true } },
      { words: 'as they are printed', sets: { clearOverLabels: false } },
    ],
  },
  {
    id: 'colours',
    question: 'How wires are told apart',
    drives:
      'the look that a circuit gets when its pins are assigned, what Ends proposes for a whole loom, and the bands that the crew puts on',
    sides: [
      { words: 'by function: insulation and stripe', sets: { colourScheme: 'function' } },
      { words: 'by their print, all of one colour', sets: { colourScheme: 'one-colour' } },
      { words: 'by bands on one colour', sets: { colourScheme: 'bands' } },
      { words: 'as the leads of boxes are, else by function', sets: { colourScheme: 'box-leads' } },
      { words: 'as the factory has them, else by function', sets: { colourScheme: 'factory-leads' } },
    ],
  },
  {
    id: 'rounding',
    question: 'Cut lengths',
    drives: 'what cut lengths are rounded up to',
    sides: [
      { words: 'to the next 5 mm', sets: { cutIncrementMm: 5 } },
      { words: 'to the next 10 mm', sets: { cutIncrementMm: 10 } },
      { words: 'to the millimetre', sets: { cutIncrementMm: 1 } },
    ],
  },
  {
    id: 'splicing',
    question: 'Splices',
    drives: 'how much wire a splice has to save to be made',
    sides: [
      { words: 'where they save a hand’s breadth', sets: { spliceCostMm: 250 } },
      { words: 'where they save a metre', sets: { spliceCostMm: 1000 } },
      { words: 'none: every wire by itself', sets: { spliceCostMm: 10_000 } },
    ],
  },
  {
    id: 'barrels',
    question: 'Barrels of splices',
    drives: 'barrel, strip length and joint diameter of every splice',
    sides: [
      { words: 'butt: each side in its own half', sets: { barrelKind: 'butt' } },
      { words: 'parallel: all wires in one crimp', sets: { barrelKind: 'parallel' } },
    ],
  },
  {
    id: 'bundles',
    question: 'Bundles',
    drives: 'how the wires of a bundle lie: their lengths, its diameter, dead wire, and the steps of laying up',
    sides: [
      { words: 'straight, pairs twisted', sets: { bundling: 'pairs-only' } },
      { words: 'twisted in layers', sets: { bundling: 'concentric' } },
      { words: 'all straight and tied', sets: { bundling: 'straight' } },
    ],
  },
  {
    id: 'plain-covering',
    question: 'Covering that comes first',
    drives: 'covering of every run whose zone it does for, its sleeves and masses',
    sides: [
      { words: 'elastomer shrink', sets: { covering: 'shrink' } },
      { words: 'braid', sets: { covering: 'braid' } },
      { words: 'lined shrink', sets: { covering: 'adhesive-shrink' } },
      { words: 'cloth tape', sets: { covering: 'cloth-tape' } },
    ],
  },
  {
    id: 'covering-choice',
    question: 'Of the coverings that do',
    drives: 'which of them a run gets that its zone leaves a choice',
    sides: [
      { words: 'the first of our order', sets: { coveringBy: 'order' } },
      { words: 'the cheapest with its work', sets: { coveringBy: 'cost' } },
    ],
  },
  {
    id: 'dressing',
    question: 'Ends and breakouts',
    drives: 'boots, build-ups and transitions, their steps, and the order things slide on',
    sides: [
      { words: 'sleeves meet', sets: { dressing: 'sleeves' } },
      { words: 'boots and transitions', sets: { dressing: 'boots' } },
    ],
  },
  {
    id: 'heat',
    question: 'Heat kept in hand',
    drives: 'sizes of warm runs, fuses behind them and what counts as too warm',
    sides: [
      { words: '20 K', sets: { heatMarginK: 20 } },
      { words: '40 K', sets: { heatMarginK: 40 } },
    ],
  },
  {
    id: 'feeds',
    question: 'Feeds of loads',
    drives: 'what assigning pins gives a feed of its own',
    sides: [
      { words: 'small loads, and loads of one kind, share', sets: { sharedLoadA: 1.5, smallLoadA: 0.2 } },
      { words: 'every load its own', sets: { sharedLoadA: 0, smallLoadA: 0 } },
    ],
  },
  {
    id: 'load-grounds',
    question: 'Grounds of loads',
    drives: 'what assigning pins gives a ground of its own',
    sides: [
      { words: 'up to 3 A share', sets: { ownGroundA: 3 } },
      { words: 'every load its own', sets: { ownGroundA: 0 } },
    ],
  },
  {
    id: 'ties',
    question: 'Ties and tape',
    drives: 'steps that are ticked run by run before a run is covered, and what they take',
    sides: [
      { words: 'with the laying', sets: { tieSteps: false } },
      { words: 'work of their own', sets: { tieSteps: true } },
    ],
  },
  {
    id: 'photo',
    question: 'Before it is covered',
    drives: 'a step with photos, before which nothing is covered',
    sides: [
      { words: 'looked over', sets: { photoBeforeCover: false } },
      { words: 'photographed', sets: { photoBeforeCover: true } },
    ],
  },
  {
    id: 'wiggle',
    question: 'At the test',
    drives: 'whether each leg is moved while it is logged, and what that takes',
    sides: [
      { words: 'measured at rest', sets: { wiggleS: 0 } },
      { words: 'each leg moved for 10 s as well', sets: { wiggleS: 10 } },
    ],
  },
];

/** The side of a question that a standard takes; null where it takes one of its own. */
export function findSide({ sides }: HouseQuestion, standard: ShopStandard): number | null {
  const at = sides.findIndex(({ sets }) => Object.entries(sets).every(([key, value]) => standard[key as keyof ShopStandard] === value));
  return at === -1 ? null : at;
}
