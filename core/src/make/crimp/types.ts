/** Step under which samples, gauges and changes of reel are told: they are of a tool and what it works, not of one step. */
export const CRIMP_STEP = 'crimping';

/** Steps at which something is crimped begin so. */
export const CRIMPED_AT = ['crimp.', 'splice.'] as const;
export const isCrimpStep = (stepId: string): boolean => CRIMPED_AT.some((begins) => stepId.startsWith(begins));

/** What is seen at a sample before it is pulled (craft D3). */
export const SAMPLE_LOOKS = ['brush', 'wings', 'strands', 'bellmouth'] as const;
export type SampleLook = (typeof SAMPLE_LOOKS)[number];

/** As the card asks for it. */
export const LOOK_WORDS: Readonly<Record<SampleLook, string>> = {
  brush: 'conductor brush visible in front of the barrel',
  wings: 'insulation held in its wings or support',
  strands: 'no strand cut, nicked or outside',
  bellmouth: 'bellmouth at the end of the barrel',
};

/** Why samples are made. none: they are not, and the words say why. */
export const SAMPLE_REASONS = ['first', 'every', 'reel', 'lot', 'tool', 'mended', 'last', 'none'] as const;
export type SampleReason = (typeof SAMPLE_REASONS)[number];

/** What another one of asks for another sample. */
export const CHANGEOVERS = ['reel', 'lot', 'tool'] as const;
/** "reel, lot or tool" */
export const toChangeoverWords = (): string => `${CHANGEOVERS.slice(0, -1).join(', ')} or ${CHANGEOVERS.at(-1)!}`;
export type Changeover = (typeof CHANGEOVERS)[number];
export const isChangeover = (words: string): words is Changeover => (CHANGEOVERS as readonly string[]).includes(words);

/** One crimp that was made to be pulled apart. */
export interface CrimpSample {
  /** what does not look as it must; empty: all does */
  bad: SampleLook[];
  /** null: not measured */
  heightMm: number | null;
  /** force at which each of its wires came out, N; null: none is asked for */
  pullsN: (number | null)[];
}

/** Samples that were made together, and with what they were measured. */
export interface SampleSet {
  reason: SampleReason;
  samples: CrimpSample[];
  pullTester: string;
  /** null: no height was measured */
  heightGauge: string | null;
}

/** Crimps that are made alike and proved by the same samples: by tool and die, contact or barrel, and what is in it. */
export interface CrimpSeries {
  /** the same in every revision and loom where they are made so */
  id: string;
  tool: string;
  positioner: string;
  /** of a splice its barrel */
  contactName: string;
  /** "AWG 22 tinned", "2 × AWG 22 tinned with AWG 18 tinned" */
  wires: string;
  /** of each of its wires: least pull-off force, N; null: not pulled */
  leastN: (number | null)[];
  /** by the maker's sheet, mm; null: it gives none */
  heightMm: number | null;
  /** crimps of the loom that are made so */
  places: CrimpPlace[];
  /** and of the other looms of the vehicle: samples are of the tool, whichever loom lies under it */
  elsewhere: CrimpPlace[];
}

export interface CrimpPlace {
  loomId: string;
  stepId: string;
  itemId: string;
  /** null: a splice, within the loom */
  endId: string | null;
  /** or the label of the splice */
  cavity: string;
}

/** "four-indent crimper, positioner H22" */
export const toToolWords = ({ tool, positioner }: Pick<CrimpSeries, 'tool' | 'positioner'>): string =>
  positioner ? `${tool}, ${positioner}` : tool;

/** Under which the name of a place is kept: an end of a loom, or its splices. */
export const toPlaceKey = ({ loomId, endId }: Pick<CrimpPlace, 'loomId' | 'endId'>): string => `${loomId} ${endId ?? ''}`;
