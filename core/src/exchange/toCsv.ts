import Papa from 'papaparse';
import { toSizeWords } from '../catalogue';
import { listCutPieces, type LoomBuild } from '../make';
import { toColourWords, toInsulationWords, type Job } from '../model';
import { isHeldFromCutting, type LoomPlan, type PlannedWire } from '../plan';

/** RFC 4180 with a header line; what a spreadsheet would run as a formula is led by an apostrophe. */
export const writeCsv = (fields: string[], data: unknown[][]) =>
  `${Papa.unparse({ fields, data }, { newline: '\r\n', escapeFormulae: true })}\r\n`;

/** The wire list of a loom (CSV, RFC 4180): one line a wire, lengths in mm. Columns are described in docs/format.md. */
export function toWireListCsv(job: Job, plan: LoomPlan): string {
  const loom = job.looms[plan.loomId]!;
  const label = new Map(plan.splices.map((splice) => [splice.id, splice.label]));
  const where = (end: PlannedWire['from']) =>
    end.kind === 'cavity' ? [loom.ends[end.endId]!.name, end.cavity] : [`splice ${label.get(end.spliceId)}`, ''];
  return writeCsv(
    ['wire', 'circuit', 'from', 'from cavity', 'to', 'to cavity', 'colour', 'size', 'cut mm', 'rough mm', 'sigma mm', 'held'],
    plan.wires.map((wire) => [
      wire.number,
      loom.circuits[wire.circuitId]!.name,
      ...where(wire.from),
      ...where(wire.to),
      toColourWords(wire.colour),
      toSizeWords(wire.conductor),
      wire.cutMm,
      wire.roughMm,
      Number(wire.sigmaMm.toFixed(1)),
      isHeldFromCutting(wire) ? 'yes' : 'no',
    ]),
  );
}

/** The cut list of a loom (CSV): one line a piece, in the order of the reels; a cable is one piece. */
export function toCutListCsv(build: LoomBuild): string {
  return writeCsv(
    ['reel', 'wire', 'colour', 'size', 'rough mm', 'final mm', 'held'],
    [
      ...build.cuts.flatMap((cut) =>
        listCutPieces(cut).map(({ wires, isHeld, roughMm, cutMm }) => [
          cut.reel,
          wires.map(({ number }) => number).join(' '),
          cut.cableId === null ? toInsulationWords(wires[0]!.colour) : '',
          toSizeWords(wires[0]!.conductor),
          roughMm,
          cutMm,
          isHeld ? 'yes' : 'no',
        ]),
      ),
      ...build.fillers.map(({ reel, number, conductor, cutMm }) => [
        `dead wire, ${reel}`,
        number,
        'any',
        toSizeWords(conductor),
        cutMm,
        cutMm,
        'no',
      ]),
    ],
  );
}

/** The parts of a loom (CSV): one line a part, with packs to have and what it costs where the shop states it. */
export const toPartsCsv = ({ parts }: LoomBuild, currency: string | null): string =>
  writeCsv(
    ['group', 'part', 'name', 'pieces', 'metres', 'packs', currency === null ? 'cost' : `cost ${currency}`],
    parts.map(({ group, id, name, pieces, lengthMm, packs, cost }) => [
      group,
      id,
      name,
      pieces,
      lengthMm === null ? '' : lengthMm / 1000,
      packs ?? '',
      cost ?? '',
    ]),
  );
