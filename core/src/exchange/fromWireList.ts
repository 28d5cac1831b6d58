import { findFamily, toSizeWords, type Catalogue } from '../catalogue';
import {
  CAVITY_NAME,
  COLOUR_NAMES,
  createCircuit,
  createEnd,
  createLoom,
  createNode,
  createSegment,
  fromColourWords,
  listCavities,
  toCavityWords,
  type Checked,
  type Circuit,
  type Colour,
  type Conductor,
  type Job,
  type Loom,
  type Problem,
  type Termination,
} from '../model';
import { compareIds } from '../units';
import type { CsvTable } from './readCsv';

/** Which column holds what; null: the file does not say. */
export interface WireListMapping {
  fromEnd: string;
  fromCavity: string;
  toEnd: string;
  toCavity: string;
  circuit: string | null;
  colour: string | null;
  size: string | null;
}

export interface WireListOptions {
  name: string;
  prefix: string;
  /** rows that meet in one cavity become one spliced circuit; else they are refused */
  joinShared: boolean;
  /** family by end name; the housing of any other is still to be chosen, which a finding says */
  families: Readonly<Record<string, string>>;
  /** kind of wire of the shop that it is made of */
  wireTable: string;
}

const GUESS_MM = 300;
const HINTS: Record<keyof WireListMapping, RegExp> = {
  fromEnd: /^(from|source|start)( ?(end|connector|device))?$/i,
  fromCavity: /^(from|source|start) ?(cavity|pin)$/i,
  toEnd: /^(to|target|dest\w*)( ?(end|connector|device))?$/i,
  toCavity: /^(to|target|dest\w*) ?(cavity|pin)$/i,
  circuit: /circuit|signal|function|net|name/i,
  colour: /colou?r/i,
  size: /size|awg|gauge|mm2|mm²/i,
};

/** A first guess at which column holds what, by the names of the columns; the planner confirms it. */
export function toMapping(columns: readonly string[]): Partial<WireListMapping> {
  const found: Partial<WireListMapping> = {};
  const taken = new Set<string>();
  for (const [field, hint] of Object.entries(HINTS) as [keyof WireListMapping, RegExp][]) {
    const column = columns.find((name) => !taken.has(name) && hint.test(name.trim()));
    if (column === undefined) continue;
    taken.add(column);
    found[field] = column;
  }
  return found;
}

interface Row {
  line: number;
  from: Termination & { name: string };
  to: Termination & { name: string };
  circuit: string;
  colour: Colour;
  size: string | null;
}

/**
 * A new loom from a from-to wire list. The end with most wires becomes the anchor at the datum, every other end a leg of
 * 300 mm that is marked as guessed, so that nothing is cut before it is measured. Every problem names its line.
 */
export function fromWireList(
  job: Job,
  table: CsvTable,
  mapping: WireListMapping,
  options: WireListOptions,
  catalogue: Catalogue,
): Checked<Loom> {
  const problems: Problem[] = [];
  const ids = new Map<string, string>();
  const sizes = catalogue.wires[options.wireTable]!;
  const rows = table.rows.flatMap((row) => readRow(table, row, mapping, ids, sizes, problems));
  if (problems.length) return { ok: false, problems: problems.slice(0, 20) };
  const circuits = joinRows(rows, options, problems);
  const loom = createLoom(options.name, options.prefix);
  placeEnds(loom, rows, ids, { options, job, catalogue }, problems);
  circuits.forEach((circuit, index) => {
    loom.circuits[`c${index + 1}`] = { ...circuit, number: String(101 + index) };
  });
  return problems.length ? { ok: false, problems: problems.slice(0, 20) } : { ok: true, value: loom };
}

function readRow(
  table: CsvTable,
  { line, cells }: CsvTable['rows'][number],
  mapping: WireListMapping,
  ids: Map<string, string>,
  /** of its wire; null: not asked for */
  sizes: readonly Conductor[] | null,
  problems: Problem[],
): Row[] {
  const cell = (column: string | null) => (column === null ? '' : (cells[table.columns.indexOf(column)] ?? '').trim());
  const before = problems.length;
  const termination = (endColumn: string, cavityColumn: string) => {
    const name = cell(endColumn);
    const cavity = cell(cavityColumn);
    if (name === '') problems.push({ path: `line ${line}, ${endColumn}`, message: 'expected the name of an end, got nothing' });
    if (!CAVITY_NAME.test(cavity))
      problems.push({
        path: `line ${line}, ${cavityColumn}`,
        message: `expected a cavity of 1 to 6 letters or digits, got ${JSON.stringify(cavity)}`,
      });
    if (name.length > 80) problems.push({ path: `line ${line}, ${endColumn}`, message: 'expected at most 80 letters' });
    if (!ids.has(name)) ids.set(name, `e${ids.size + 1}`);
    return { endId: ids.get(name)!, cavity, name };
  };
  const from = termination(mapping.fromEnd, mapping.fromCavity);
  const to = termination(mapping.toEnd, mapping.toCavity);
  const colour = readColour(cell(mapping.colour));
  if (colour === null)
    problems.push({
      path: `line ${line}, ${mapping.colour}`,
      message: `expected colours such as "red" or "red/black" of ${COLOUR_NAMES.join(', ')}, got ${JSON.stringify(cell(mapping.colour))}`,
    });
  const wanted = cell(mapping.size)
    .replace(/^awg ?/i, '')
    .replace(/ ?mm[2²]$/i, '');
  const size = wanted === '' ? null : wanted;
  if (size !== null && sizes && !sizes.some((one) => one.size === size))
    problems.push({
      path: `line ${line}, ${mapping.size}`,
      message: `expected one of ${sizes.map(toSizeWords).join(', ')}, got ${JSON.stringify(cell(mapping.size))}`,
    });
  return problems.length > before || colour === null ? [] : [{ line, from, to, circuit: cell(mapping.circuit).slice(0, 80), colour, size }];
}

const readColour = (words: string): Colour | null => (words === '' ? { base: 'white', stripe: null, bands: [] } : fromColourWords(words));

/** One circuit a row, or one for all rows that meet in a cavity. */
function joinRows(rows: readonly Row[], { joinShared, wireTable }: WireListOptions, problems: Problem[]): Circuit[] {
  const at = new Map<string, { circuit: Circuit; line: number }>();
  const circuits: Circuit[] = [];
  for (const row of rows) {
    const places = [row.from, row.to].map(({ endId, cavity }) => ({ endId, cavity }));
    const met = [...new Set(places.flatMap(({ endId, cavity }) => at.get(`${endId} ${cavity}`) ?? []))];
    const first = met[0];
    if (first && !joinShared) {
      const shared = [row.from, row.to].find(({ endId, cavity }) => at.has(`${endId} ${cavity}`))!;
      problems.push({
        path: `line ${row.line}`,
        message: `expected one wire in a cavity, got a second in ${shared.name} ${shared.cavity} (first in line ${at.get(`${shared.endId} ${shared.cavity}`)!.line}); tick "join rows that share a cavity" to splice them`,
      });
      continue;
    }
    const merged = met.map(({ circuit }) => circuit).filter((circuit, index, all) => all.indexOf(circuit) === index);
    const target =
      merged[0] ??
      createCircuit('1', row.circuit || `${row.from.name} ${row.from.cavity} to ${row.to.name} ${row.to.cavity}`.slice(0, 80), [], {
        wireTable,
        colour: row.colour,
        sizePin: row.size === null ? null : { size: row.size, reason: 'as in the imported wire list' },
      });
    if (merged.length === 0) circuits.push(target);
    for (const other of merged.slice(1)) {
      target.terminations.push(...other.terminations);
      circuits.splice(circuits.indexOf(other), 1);
    }
    for (const place of places)
      if (!target.terminations.some((one) => one.endId === place.endId && one.cavity === place.cavity)) target.terminations.push(place);
    for (const place of target.terminations)
      at.set(`${place.endId} ${place.cavity}`, { circuit: target, line: at.get(`${place.endId} ${place.cavity}`)?.line ?? row.line });
  }
  return circuits;
}

function placeEnds(
  loom: Loom,
  rows: readonly Row[],
  ids: ReadonlyMap<string, string>,
  { options, job, catalogue }: { options: WireListOptions; job: Job; catalogue: Catalogue },
  problems: Problem[],
): void {
  const uses = new Map<string, Map<string, number>>();
  for (const row of rows)
    for (const { endId, cavity } of [row.from, row.to]) uses.set(endId, new Map([...(uses.get(endId) ?? []), [cavity, row.line]]));
  const names = [...ids.keys()].sort((a, b) => uses.get(ids.get(b)!)!.size - uses.get(ids.get(a)!)!.size || compareIds(a, b));
  loom.nodes.trunk = createNode('breakout', 'trunk');
  loom.segments.s0 = createSegment('datum', 'trunk', GUESS_MM, { method: 'estimate', status: 'guessed' });
  names.forEach((name, index) => {
    const endId = ids.get(name)!;
    const cavities = [...uses.get(endId)!.keys()].sort(compareIds);
    const familyId = Object.hasOwn(options.families, name) ? options.families[name]! : null;
    const family = findFamily(job, catalogue, familyId);
    if (familyId !== null && !family) {
      problems.push({ path: name, message: `expected a family of the shop, got "${familyId}"` });
      return;
    }
    const missing = family && cavities.find((cavity) => !listCavities(family).includes(cavity));
    if (missing !== undefined) {
      problems.push({
        path: `line ${uses.get(endId)!.get(missing)}`,
        message: `expected a cavity of ${family!.name} (${toCavityWords(family!)}), got ${name} cavity ${missing}`,
      });
      return;
    }
    const nodeId = index === 0 ? 'datum' : `n-${endId}`;
    if (index > 0) {
      loom.nodes[nodeId] = createNode('end', name);
      loom.segments[`s-${endId}`] = createSegment('trunk', nodeId, GUESS_MM, { method: 'estimate', status: 'guessed' });
    }
    loom.ends[endId] = createEnd(nodeId, name, familyId, { kind: 'connector' });
  });
  if (names.length === 1) {
    delete loom.nodes.trunk;
    delete loom.segments.s0;
  }
}

/** An end of a wire list with the cavities that its rows name. */
export interface ListedEnd {
  name: string;
  cavities: string[];
}

/** The ends of a list and what each is wired in, the one with most cavities first; rows that cannot be read are passed over. */
export function listListedEnds(table: CsvTable, mapping: WireListMapping): ListedEnd[] {
  const ids = new Map<string, string>();
  const uses = new Map<string, Set<string>>();
  for (const row of table.rows.flatMap((one) => readRow(table, one, mapping, ids, null, [])))
    for (const { name, cavity } of [row.from, row.to]) uses.set(name, (uses.get(name) ?? new Set<string>()).add(cavity));
  return [...uses]
    .map(([name, cavities]) => ({ name, cavities: [...cavities].sort(compareIds) }))
    .sort((a, b) => b.cavities.length - a.cavities.length || compareIds(a.name, b.name));
}
