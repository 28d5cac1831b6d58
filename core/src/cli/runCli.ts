import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { CATALOGUE, createLookup } from '../catalogue';
import { createSheets, PAPERS, type Paper } from '../draw';
import { toPdf } from '../draw/toPdf';
import { fromJsonText, toCutListCsv, toPinsCsv, toWireListCsv } from '../exchange';
import { createBuild, listFindings } from '../make';
import { checkJob, type Job, type Problem } from '../model';
import { plan, type JobPlan, type LoomPlan } from '../plan';

const USAGE = `wattograph plan FILE              the plan as JSON
wattograph check FILE             the findings; exit code by the worst that is not accepted: 0 none or note, 3 check, 1 stop
wattograph sheets FILE --pdf OUT  the build pack as PDF   [--loom ID] [--paper A4|Letter]
wattograph convert FILE --csv wires|cuts|pins   a list as CSV  [--loom ID]
`;
const MOST_BYTES = 8 * 1024 * 1024;

/** Where a command writes; the terminal unless a test says otherwise. */
export interface Output {
  out(text: string): void;
  error(text: string): void;
}

const TERMINAL: Output = { out: (text) => void process.stdout.write(text), error: (text) => void process.stderr.write(text) };

/** An input that is not as expected, with its place; ends the command with exit code 2. */
class BadInput extends Error {
  constructor(readonly problems: Problem[]) {
    super('bad input');
  }
}

/**
 * Run one command.
 * @returns the exit code: 0; of check 1 where it found a stop, 3 where it found nothing worse than a check; 2 on bad input or usage
 */
export async function runCli(words: readonly string[], output: Output = TERMINAL): Promise<number> {
  try {
    const { positionals, values } = readWords(words);
    const [command, file] = positionals;
    if (command === undefined || file === undefined) throw new BadInput([{ path: '', message: `expected a command and a file\n${USAGE}` }]);
    const job = readJobFile(file);
    switch (command) {
      case 'plan':
        output.out(`${JSON.stringify(plan(job, CATALOGUE), null, 2)}\n`);
        return 0;
      case 'check':
        return check(job, output);
      case 'sheets':
        await writeSheets(job, values.loom, values.paper ?? 'A4', values.pdf, output);
        return 0;
      case 'convert':
        output.out(toCsv(job, values.loom, values.csv));
        return 0;
      default:
        throw new BadInput([{ path: '', message: `expected plan, check, sheets or convert, got "${command}"\n${USAGE}` }]);
    }
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    for (const { path, message } of error.problems) output.error(`${path ? `${path}: ` : ''}${message}\n`);
    return 2;
  }
}

function readWords(words: readonly string[]) {
  try {
    return parseArgs({
      args: [...words],
      allowPositionals: true,
      options: { pdf: { type: 'string' }, csv: { type: 'string' }, loom: { type: 'string' }, paper: { type: 'string' } },
    });
  } catch (error) {
    throw new BadInput([{ path: '', message: `${error instanceof Error ? error.message : String(error)}\n${USAGE}` }]);
  }
}

function readJobFile(file: string): Job {
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
  const checked = checkJob(parsed.value, createLookup(CATALOGUE));
  if (!checked.ok) throw inFile(checked.problems);
  return checked.value;
}

function check(job: Job, output: Output): number {
  const findings = listFindings(job, plan(job, CATALOGUE), CATALOGUE, new Date().toISOString().slice(0, 10));
  for (const { grade, code, sentence, key, fix } of findings) {
    const accepted = Object.hasOwn(job.accepted, key) ? ` [stands: ${job.accepted[key]!.reason}]` : '';
    output.out(`${grade} ${code} ${sentence}${fix ? ` Fix: ${fix.label}.` : ''}${accepted}\n`);
  }
  if (findings.length === 0) output.out('no findings\n');
  const open = findings.filter(({ key }) => !Object.hasOwn(job.accepted, key));
  if (open.some(({ grade }) => grade === 'stop')) return 1;
  return open.some(({ grade }) => grade === 'check') ? 3 : 0;
}

function findLoom({ looms }: JobPlan, loomId: string | undefined): LoomPlan {
  const found = loomId === undefined ? looms[0] : looms.find((one) => one.loomId === loomId);
  if (!found)
    throw new BadInput([{ path: '--loom', message: `expected one of ${looms.map((one) => one.loomId).join(', ')}, got "${loomId}"` }]);
  return found;
}

async function writeSheets(job: Job, loomId: string | undefined, paper: string, file: string | undefined, output: Output): Promise<void> {
  if (file === undefined) throw new BadInput([{ path: '--pdf', message: 'expected the name of the file to write' }]);
  if (!Object.hasOwn(PAPERS, paper)) throw new BadInput([{ path: '--paper', message: `expected A4 or Letter, got "${paper}"` }]);
  const whole = plan(job, CATALOGUE);
  const loomPlan = findLoom(whole, loomId);
  const now = new Date();
  const pages = createSheets(
    job,
    whole,
    loomPlan,
    createBuild(job, loomPlan, CATALOGUE),
    listFindings(job, whole, CATALOGUE, new Date().toISOString().slice(0, 10)),
    CATALOGUE,
    {
      paper: paper as Paper,
      job: job.name,
      loom: job.looms[loomPlan.loomId]!.name,
      revision: 'from file',
      date: now.toISOString().slice(0, 10),
    },
  );
  writeFileSync(file, await toPdf(pages, job.name, now, fileURLToPath(new URL('../../assets/fonts/', import.meta.url))));
  output.out(`${file}: ${pages.length} pages\n`);
}

function toCsv(job: Job, loomId: string | undefined, what: string | undefined): string {
  const loomPlan = findLoom(plan(job, CATALOGUE), loomId);
  if (what === 'wires') return toWireListCsv(job, loomPlan);
  if (what === 'pins') return toPinsCsv(job, plan(job, CATALOGUE).power);
  if (what === 'cuts') return toCutListCsv(createBuild(job, loomPlan, CATALOGUE));
  throw new BadInput([{ path: '--csv', message: `expected wires, cuts or pins, got ${what === undefined ? 'nothing' : `"${what}"`}` }]);
}
