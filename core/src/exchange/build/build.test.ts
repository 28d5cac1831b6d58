import Ajv2020 from 'ajv';
import ExcelJS from 'exceljs';
import { readFileSync } from 'node:fs';
import { CATALOGUE } from '../../catalogue';
import { createFenRanger } from '../../demo/createFenRanger';
import { createSkerry } from '../../demo/createSkerry';
import { createBuild, listFindings } from '../../make';
import type { Job } from '../../model';
import { plan } from '../../plan';
import { BUILD_FORMAT_VERSION, BuildSchema, type BuildJson } from './buildSchema';
import { listTables } from './listTables';
import { toBuildJson } from './toBuildJson';
import { writeWorkbook } from './writeWorkbook';

const listSources = (job: Job) => {
  const whole = plan(job, CATALOGUE);
  const findings = listFindings(job, whole, CATALOGUE, null);
  return whole.looms.map((planned) => ({
    job,
    plan: planned,
    build: createBuild(job, planned, CATALOGUE),
    findings,
    catalogue: CATALOGUE,
  }));
};
const createLaidUp = () => {
  const job = createSkerry();
  job.looms.engine!.bundling = 'concentric';
  return job;
};
const SOURCES = [createLaidUp(), createFenRanger()].flatMap(listSources);

describe('a build for another program', () => {
  const published = JSON.parse(
    readFileSync(new URL(`../../../schema/build-${BUILD_FORMAT_VERSION}.json`, import.meta.url), 'utf8'),
  ) as object;

  test('the published schema is the one that the program has', () => {
    expect(published).toEqual(JSON.parse(JSON.stringify(BuildSchema)));
  });
  test.each(SOURCES.map((source) => [`${source.job.name} ${source.plan.loomId}`, source] as const))(
    '%s is as the published schema says',
    (_, source) => {
      const check = new Ajv2020({ allErrors: true }).compile(published);
      const read = JSON.parse(JSON.stringify(toBuildJson(source, 'revision 1'))) as unknown;
      expect([check(read), check.errors]).toEqual([true, null]);
    },
  );
  test('who reads it alone can follow every wire: ends, splices and runs that are named are there, terms add up, continuity can be walked', () => {
    for (const source of SOURCES) {
      const build = JSON.parse(JSON.stringify(toBuildJson(source, 'x'))) as BuildJson;
      const [ends, splices, runs] = [build.ends, build.splices, build.runs].map((list) => new Set(list.map(({ id }) => id)));
      const known = new Set(build.wires.map(({ id }) => id));
      for (const { from, to, runs: lies, terms, cutMm } of build.wires) {
        for (const place of [from, to]) expect('end' in place ? ends!.has(place.end) : splices!.has(place.splice)).toBe(true);
        for (const { run } of lies) expect(runs!.has(run)).toBe(true);
        expect(terms.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(cutMm, 6);
      }
      expect(build.cuts.flatMap(({ pieces }) => pieces.flatMap(({ wires }) => wires)).sort()).toEqual([...known].sort());
      for (const { near, far } of build.splices) for (const id of [...near, ...far]) expect(known.has(id)).toBe(true);
      const steps = build.steps.map(({ id }) => id);
      build.steps.forEach(({ needs }, at) => needs.forEach(({ step }) => expect(steps.indexOf(step)).toBeLessThan(at)));
      for (const { from, to } of build.continuity) {
        const place = ({ end, cavity }: { end: string; cavity: string }) =>
          build.ends.find(({ id }) => id === end)!.cavities.some((one) => one.cavity === cavity);
        expect([place(from), place(to)]).toEqual([true, true]);
      }
    }
  });
});

describe('lists as a workbook', () => {
  const read = async (bytes: Uint8Array) => {
    const workbook = new ExcelJS.Workbook();
    await workbook.xlsx.load(bytes as unknown as ExcelJS.Buffer);
    return workbook;
  };
  test('every list is a sheet; every cell comes back as it was, of its own type', async () => {
    const tables = listTables(SOURCES[0]!);
    expect(tables.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['Wires', 'Cut list', 'Ends', 'Splices', 'Runs', 'Labels', 'Parts', 'Steps', 'Continuity', 'Findings']),
    );
    const workbook = await read(await writeWorkbook(tables, 'x'));
    expect(workbook.worksheets.map(({ name }) => name)).toEqual(tables.map(({ name }) => name));
    for (const { name, columns, rows } of tables) {
      const sheet = workbook.getWorksheet(name)!;
      expect(columns.map((_, at) => sheet.getRow(1).getCell(at + 1).value)).toEqual(columns.map((column) => column.name));
      expect(rows.map((cells, line) => cells.map((_, at) => sheet.getRow(line + 2).getCell(at + 1).value))).toEqual(rows);
      const types = { text: 'string', number: 'number', 'yes-no': 'boolean' };
      const isOther = (cells: (typeof rows)[number]) =>
        columns.some(({ kind }, at) => cells[at] !== null && typeof cells[at] !== types[kind]);
      expect([name, rows.filter(isOther)]).toEqual([name, []]);
    }
  });
  test('a name that looks like a formula stays a name', async () => {
    const job = createFenRanger();
    const loom = Object.values(job.looms)[0]!;
    Object.values(loom.circuits)[0]!.name = '=1+1';
    const workbook = await read(await writeWorkbook(listTables(listSources(job)[0]!), 'x'));
    const values = workbook.getWorksheet('Wires')!.getColumn(2).values;
    expect(values).toContain('=1+1');
  });
  test('cut lengths of the wires and the cut list are the plan’s', () => {
    for (const source of SOURCES) {
      const tables = listTables(source);
      const [wires, cut] = ['Wires', 'Cut list'].map((name) => tables.find((table) => table.name === name)!);
      const at = wires!.columns.findIndex(({ name }) => name === 'cut');
      expect(wires!.rows.map((row) => row[at])).toEqual(source.plan.wires.map(({ cutMm }) => cutMm));
      expect(cut!.rows).toHaveLength(
        new Set(source.plan.wires.map(({ id, cable }) => cable?.groupId ?? id)).size + source.build.fillers.length,
      );
    }
  });
  test('a loom with nothing in it has no empty sheets', () => {
    const job = createFenRanger();
    const [loomId] = Object.keys(job.looms);
    const loom = job.looms[loomId!]!;
    job.looms[loomId!] = {
      ...loom,
      segments: {},
      ends: {},
      circuits: {},
      splicePins: {},
      nodes: { [Object.keys(loom.nodes)[0]!]: Object.values(loom.nodes)[0]! },
    };
    for (const { rows } of listTables({ ...listSources(job)[0]!, findings: [] })) expect(rows.length).toBeGreaterThan(0);
  });
});
