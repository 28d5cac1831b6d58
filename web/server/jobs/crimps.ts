import { sql } from 'drizzle-orm';
import { CRIMP_STEP, findTool, isChangeover, toChangeoverWords, type CrimpSeries, type SampleSet, type Shop } from 'wattograph-core';
import { today } from '../../client/today';
import type { Database } from '../database';
import { Refusal } from '../refusal';
import { toolCrimps } from '../schema';
import { readShop } from '../shop';

interface ToldCrimp {
  stepId: string;
  itemId: string;
  kind: string;
  words: string;
  samples?: SampleSet | null;
}

/** Crimps of a loom of a revision, by how they are made. */
export interface AskedCrimps {
  series: ReadonlyMap<string, CrimpSeries>;
  /** words of the tool of each, by step and item */
  toolOf: ReadonlyMap<string, string>;
}

export const toAskedCrimps = (series: readonly CrimpSeries[]): AskedCrimps => ({
  series: new Map(series.map((one) => [one.id, one])),
  toolOf: new Map(series.flatMap(({ tool, places }) => places.map(({ stepId, itemId }) => [`${stepId} ${itemId}`, tool] as const))),
});

/**
 * Samples are of crimps that the revision asks for, each wire of them pulled or said not to be; a gauge is of a tool that makes one. A set of none
 * says why. Throws 422.
 */
export async function expectCrimpAsked({ series, toolOf }: AskedCrimps, { itemId, kind, words, samples }: ToldCrimp): Promise<void> {
  const refuse = (message: string) => Refusal.at(422, `${CRIMP_STEP} ${itemId}`, message);
  if (kind === 'gauge') {
    const { tools } = (await readShop()).shop;
    if (![...new Set(toolOf.values())].some((tool) => toToolName(tools, tool) === itemId))
      throw refuse('expected a tool that the loom is crimped with, got another');
    return;
  }
  const one = series.get(itemId);
  if (!one) throw refuse('expected crimps that the loom has in this revision, got others');
  if (kind === 'changeover') {
    if (!isChangeover(words)) throw refuse(`expected ${toChangeoverWords()}, got another change`);
    return;
  }
  if (kind !== 'sample' || !samples) throw refuse('expected samples, a gauge or a change of reel, lot or setting');
  if (samples.reason === 'none') {
    if (samples.samples.length > 0 || words.trim() === '') throw refuse('expected no samples and the reason why there are none');
    return;
  }
  if (samples.samples.length === 0) throw refuse('expected a sample at least');
  if (samples.pullTester.trim() === '') throw refuse('expected what they were pulled with');
  const wires = one.leastN.length;
  if (samples.samples.some(({ pullsN }) => pullsN.length !== wires)) throw refuse(`expected a pull for each of its wires, ${wires}`);
  if (samples.heightGauge === null && samples.samples.some(({ heightMm }) => heightMm !== null))
    throw refuse('expected what the height was measured with');
}

/** A tool by the name that the shop has it under; by the words of the contact where the shop has none of it. */
export const toToolName = (tools: Shop['tools'], words: string): string => findTool(tools, words)?.name ?? words;

/** Crimps that are told of, by the words of their tool. */
export interface ToolUse {
  tool: string;
  crimps: number;
}

/** What is told as crimps made with a tool; null: it is no crimp. */
export function toUse({ series, toolOf }: AskedCrimps, { stepId, itemId, kind, samples }: ToldCrimp): ToolUse | null {
  if (kind === 'sample' && samples) return { tool: series.get(itemId)!.tool, crimps: samples.samples.length };
  const tool = kind === 'tick' ? toolOf.get(`${stepId} ${itemId}`) : undefined;
  return tool === undefined ? null : { tool, crimps: 1 };
}

/** The same by the name that the shop has the tool under: asked for once for all that is told together, and not where no crimp is. */
export async function nameUses<T extends { use: ToolUse | null }>(told: T[]): Promise<T[]> {
  if (told.every(({ use }) => use === null)) return told;
  const { tools } = (await readShop()).shop;
  return told.map((one) => ({ ...one, use: one.use && { ...one.use, tool: toToolName(tools, one.use.tool) } }));
}

/** Add to what the tools have done today. In the order of their names: two that count at once wait for one another, and never both. */
export async function addUses(tx: Pick<Database, 'insert'>, told: readonly (ToolUse | null)[]): Promise<void> {
  const uses = new Map<string, number>();
  for (const use of told) if (use) uses.set(use.tool, (uses.get(use.tool) ?? 0) + use.crimps);
  const rows = [...uses].filter(([, crimps]) => crimps > 0).sort(([a], [b]) => (a < b ? -1 : 1));
  if (rows.length === 0) return;
  await tx
    .insert(toolCrimps)
    .values(rows.map(([tool, crimps]) => ({ tool, crimps, day: today() })))
    .onConflictDoUpdate({
      target: [toolCrimps.tool, toolCrimps.day],
      set: { crimps: sql`${toolCrimps.crimps} + excluded.crimps` },
    });
}
