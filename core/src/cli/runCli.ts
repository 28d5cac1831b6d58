import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { createDemoShop, createLookup, type Catalogue } from '../catalogue';
import {
  fromJobFile,
  fromJsonText,
  listTables,
  toBuildJson,
  toCutListCsv,
  toDressJson,
  toLabelsCsv,
  toLayupJson,
  toPartsCsv,
  toPinsCsv,
  toWireListCsv,
} from '../exchange';
import { createBuild, listFindings } from '../make';
import { writeWorkbook } from '../exchange/xlsx';
import { writeBoard } from './writeBoard';
import { writePower } from './writePower';
import { writeProof } from './writeProof';
import { writeSheets } from './writeSheets';
import { BadInput, findLoom, type Output } from './cliTypes';
import { checkJob, checkShop, findBundling, type Checked, type Job, type Loom, type Problem, type Shop } from '../model';
import { findStandard, listMarks, plan, searchLayups, USUAL_TRIES } from '../plan';
import { toCount } from '../units';

const USAGE = `wattograph plan FILE              the plan as JSON
wattograph check FILE             the findings; exit code by the worst that is not accepted: 0 none or note, 3 check, 1 stop
wattograph sheets FILE --pdf OUT  the build pack as PDF, or the cards of one post  [--post crew|kit|cut|crimp|board|twist|sleeve|test|vehicle|office] [--loom ID] [--paper A4|Letter|A3]
wattograph sheets FILE --dxf OUT  its sheets side by side as DXF, or one of them  [--sheet NAME] [--post …] [--loom ID] [--paper A4|Letter|A3]
wattograph convert FILE --csv wires|cuts|parts|labels|pins  a list as CSV  [--loom ID]
wattograph convert FILE --build   the build of a loom as JSON, by core/schema/build-1.json  [--loom ID]
wattograph convert FILE --xlsx OUT  every list of a loom in one workbook, numbers as numbers  [--loom ID]
wattograph layup FILE             lay-up of a loom by search, as JSON  [--loom ID] [--seed N]; a loom that is not twisted in layers as if it were
wattograph dress FILE             what covers and finishes a loom, as JSON  [--loom ID]
wattograph board FILE             a loom laid out at full scale by search: --svg OUT, --dxf OUT, --pdf OUT, or --json  [--loom ID] [--size WxH] [--seed N]
wattograph prove FILE              the measurements that prove a loom, as CSV for a tester  [--loom ID]
wattograph prove FILE --stand-in sound|open|short|exchange|screen|poor|turn  readings of the tester that ships, of a loom with such a fault  [--loom ID] [--seed N]
wattograph prove FILE --readings CSV  what is wrong with the loom that was measured; exit code 0 nothing, 3 nothing so far, 1 something  [--loom ID]
wattograph prove FILE --power      first power of the vehicle, as CSV: no power, grounds, every cavity in every switch state, boxes, feeds, lamps, inputs, actuators, cranking
wattograph prove FILE --power --readings CSV  what its readings come to; exit codes as above
wattograph prove FILE --live       what is live in each mode, with its fuse, and how long the battery lasts, as CSV
each with --shop SHOP: the shop's own parts and standards, a file that the application exports (demo: the one that ships); where none is given those that the job carries
`;
const MOST_BYTES = 8 * 1024 * 1024;

const TERMINAL: Output = { out: (text) => void process.stdout.write(text), error: (text) => void process.stderr.write(text) };

/**
 * Run one command.
 * @returns the exit code: 0; of check 1 where it found a stop, 3 where it found nothing worse than a check; 2 on bad input or usage
 */
export async function runCli(words: readonly string[], output: Output = TERMINAL): Promise<number> {
  try {
    const { positionals, values } = readWords(words);
    const [command, file] = positionals;
    if (command === undefined || file === undefined) throw new BadInput([{ path: '', message: `expected a command and a file\n${USAGE}` }]);
    const { job, shop } = readJob(file, values.shop);
    switch (command) {
      case 'plan':
        output.out(`${JSON.stringify(plan(job, shop), null, 2)}\n`);
        return 0;
      case 'check':
        return check(job, shop, output);
      case 'sheets':
        await writeSheets(job, shop, values, output);
        return 0;
      case 'convert':
        if (values.xlsx === undefined) output.out(toText(job, shop, values));
        else await writeLists(job, shop, values.loom, values.xlsx, output);
        return 0;
      case 'layup':
        output.out(`${JSON.stringify(layUp(job, shop, values), null, 2)}\n`);
        return 0;
      case 'dress': {
        const found = findLoom(plan(job, shop), values.loom);
        output.out(`${JSON.stringify(toDressJson(job, found, shop, findStandard(job, shop)), null, 2)}\n`);
        return 0;
      }
      case 'board':
        await writeBoard(job, shop, values, output);
        return 0;
      case 'prove':
        return values.power === true || values.live === true
          ? writePower(job, shop, values, output)
          : writeProof(job, shop, values, output);
      default:
        throw new BadInput([
          { path: '', message: `expected plan, check, sheets, convert, layup, dress, board or prove, got "${command}"\n${USAGE}` },
        ]);
    }
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    for (const { path, message } of error.problems) output.error(`${path ? `${path}: ` : ''}${message}\n`);
    return 2;
  }
}

/** A job, and the shop that it is planned with: the one that was asked for, else what the job carries. */
function readJob(file: string, shopFile: string | undefined): { job: Job; shop: Shop } {
  let shop = shopFile === undefined ? null : shopFile === DEMO ? createDemoShop() : readChecked<Shop>(shopFile, checkShop);
  const job = readChecked(file, (value) => {
    const { document, shop: carried } = fromJobFile(value);
    if (shop === null) {
      if (carried === null) return { ok: false, problems: [{ path: '/shop', message: NO_SHOP }] };
      const checked = checkShop(carried);
      if (!checked.ok) return { ok: false, problems: checked.problems.map(({ path, message }) => ({ path: `/shop${path}`, message })) };
      shop = checked.value;
    }
    return checkJob(document, createLookup(shop));
  });
  return { job, shop: shop! };
}

const DEMO = 'demo';
const NO_SHOP = `expected the shop that it is planned with, as in a file that the application exports, or --shop SHOP, or --shop ${DEMO}; got none`;

function readWords(words: readonly string[]) {
  try {
    return parseArgs({
      args: [...words],
      allowPositionals: true,
      options: {
        power: { type: 'boolean' },
        live: { type: 'boolean' },
        pdf: { type: 'string' },
        dxf: { type: 'string' },
        sheet: { type: 'string' },
        post: { type: 'string' },
        csv: { type: 'string' },
        loom: { type: 'string' },
        paper: { type: 'string' },
        shop: { type: 'string' },
        seed: { type: 'string' },
        build: { type: 'boolean' },
        xlsx: { type: 'string' },
        size: { type: 'string' },
        svg: { type: 'string' },
        readings: { type: 'string' },
        'stand-in': { type: 'string' },
        json: { type: 'boolean' },
      },
    });
  } catch (error) {
    throw new BadInput([{ path: '', message: `${error instanceof Error ? error.message : String(error)}\n${USAGE}` }]);
  }
}

function readChecked<T>(file: string, toChecked: (value: unknown) => Checked<T>): T {
  const inFile = (problems: Problem[]) =>
    new BadInput(problems.map(({ path, message }) => ({ path: path ? `${file} ${path}` : file, message })));
  let text: string;
  try {
    const { size } = statSync(file);
    if (size > MOST_BYTES) throw inFile([{ path: '', message: `expected at most 8 MB, got ${(size / 1024 / 1024).toFixed(0)} MB` }]);
    text = readFileSync(file, 'utf8');
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw inFile([{ path: '', message: `expected a file that can be read: ${error instanceof Error ? error.message : String(error)}` }]);
  }
  const parsed = fromJsonText(text);
  if (!parsed.ok) throw inFile(parsed.problems);
  const checked = toChecked(parsed.value);
  if (!checked.ok) throw inFile(checked.problems);
  return checked.value;
}

function check(job: Job, shop: Catalogue, output: Output): number {
  const findings = listFindings(job, plan(job, shop), shop, new Date().toISOString().slice(0, 10));
  for (const { grade, code, sentence, key, fix } of findings) {
    const accepted = Object.hasOwn(job.accepted, key) ? ` [stands: ${job.accepted[key]!.reason}]` : '';
    output.out(`${grade} ${code} ${sentence}${fix ? ` Fix: ${fix.label}.` : ''}${accepted}\n`);
  }
  if (findings.length === 0) output.out('no findings\n');
  const open = findings.filter(({ key }) => !Object.hasOwn(job.accepted, key));
  if (open.some(({ grade }) => grade === 'stop')) return 1;
  return open.some(({ grade }) => grade === 'check') ? 3 : 0;
}

/** The lay-up of a loom that a search with this seed finds; a loom of which nothing is twisted in layers as if all of it were. */
function layUp(job: Job, shop: Catalogue, { loom: loomId, seed = '1' }: { loom?: string; seed?: string }): object {
  if (!/^\d{1,9}$/.test(seed)) throw new BadInput([{ path: '--seed', message: `expected a whole number up to 999999999, got "${seed}"` }]);
  const { loomId: id } = findLoom(plan(job, shop), loomId);
  const standard = findStandard(job, shop);
  const asked = job.looms[id]!;
  const isLaid = Object.keys(asked.segments).some((segmentId) => findBundling(asked, segmentId, standard) === 'concentric');
  const loom: Loom = isLaid ? asked : { ...asked, bundling: 'concentric' };
  const put = (changed: Loom): Job => ({ ...job, looms: { ...job.looms, [id]: changed } });
  const before = findLoom(plan(put(loom), shop), id);
  const { laidUp } = searchLayups(loom, before, standard, { seed: Number(seed), tries: USUAL_TRIES });
  const laid = put({ ...loom, laidUp });
  return {
    seed: Number(seed),
    as: isLaid ? 'the job says' : 'if all of it were twisted in layers',
    ...toLayupJson(laid, findLoom(plan(laid, shop), id), standard),
  };
}

function toText(job: Job, shop: Catalogue, { loom: loomId, csv: what, build }: { loom?: string; csv?: string; build?: boolean }): string {
  const loomPlan = findLoom(plan(job, shop), loomId);
  if (build) {
    const source = { job, plan: loomPlan, build: createBuild(job, loomPlan, shop), catalogue: shop };
    return `${JSON.stringify(toBuildJson(source, 'from file'), null, 2)}\n`;
  }
  if (what === 'wires') return toWireListCsv(job, loomPlan);
  if (what === 'pins') return toPinsCsv(job, plan(job, shop).power);
  if (what === 'parts') return toPartsCsv(createBuild(job, loomPlan, shop), shop.currency);
  if (what === 'labels') return toLabelsCsv(job, loomPlan.loomId, listMarks(job, loomPlan, shop));
  if (what === 'cuts') return toCutListCsv(createBuild(job, loomPlan, shop));
  throw new BadInput([
    { path: '--csv', message: `expected wires, cuts, parts, labels or pins, got ${what === undefined ? 'nothing' : `"${what}"`}` },
  ]);
}

async function writeLists(job: Job, shop: Catalogue, loomId: string | undefined, file: string, output: Output): Promise<void> {
  const whole = plan(job, shop);
  const loomPlan = findLoom(whole, loomId);
  const findings = listFindings(job, whole, shop, new Date().toISOString().slice(0, 10));
  const tables = listTables({ job, plan: loomPlan, build: createBuild(job, loomPlan, shop), findings, catalogue: shop });
  writeFileSync(file, await writeWorkbook(tables, job.name));
  output.out(`${file}: ${toCount(tables.length, 'list')}\n`);
}
