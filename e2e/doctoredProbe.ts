/** Reads everything of a revision as the server does, for a test that gives it another engine, catalogue and standard: node probe.cjs JOB NUMBER LOOM. */
import { toCutListCsv, toSvg, toWireListCsv } from 'wattograph-core';
import { readFrozen } from '../web/server/frozen';
import { readLoom, readPages, readSource } from '../web/server/buildPacks';
import { readCarried } from '../web/server/releases';

async function read(jobId: string, number: string, loomId: string) {
  const source = await readSource(jobId, number);
  const { plan, build } = await readLoom(source, loomId);
  const toSvgs = async (paper: string) => (await readPages(source, loomId, paper)).pages.map((page) => toSvg(page));
  return {
    a4: await toSvgs('A4'),
    letter: await toSvgs('Letter'),
    wires: toWireListCsv(source.job, plan),
    cuts: toCutListCsv(build),
    families: Object.keys((await readFrozen(jobId, Number(number), loomId)).families).sort(),
    carried: await readCarried(jobId, Number(number), loomId),
  };
}

const [jobId, number, loomId] = process.argv.slice(2) as [string, string, string];
read(jobId, number, loomId)
  .then((all) => {
    process.stdout.write(JSON.stringify(all), () => process.exit(0));
  })
  .catch((error: unknown) => {
    console.error(error);
    process.exit(1);
  });
