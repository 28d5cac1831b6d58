import type { Job } from '../model';
import type { PowerPlan } from '../plan';
import { compareIds } from '../units';
import { writeCsv } from './toCsv';

/** Every pin of every box with what it does and what hangs on it, for the set-up of controller and module: one row a device pin. */
export function toPinsCsv(job: Job, power: Pick<PowerPlan, 'nets'>): string {
  const netOf = new Map(power.nets.flatMap((net) => net.circuits.map(({ loomId, circuitId }) => [`${loomId}/${circuitId}`, net] as const)));
  const rows: string[][] = [];
  for (const loomId of Object.keys(job.looms).sort(compareIds)) {
    const loom = job.looms[loomId]!;
    for (const endId of Object.keys(loom.ends).sort(compareIds)) {
      const end = loom.ends[endId]!;
      const device = Object.values(job.devices).find(({ at }) => at?.loomId === loomId && at.endId === endId);
      for (const cavity of Object.keys(end.offers).sort(compareIds)) {
        const offer = end.offers[cavity]!;
        const circuit = Object.entries(loom.circuits).find(([, { terminations }]) =>
          terminations.some((one) => one.endId === endId && one.cavity === cavity),
        );
        const net = circuit && netOf.get(`${loomId}/${circuit[0]}`);
        const served = (net?.circuits ?? []).flatMap((one) =>
          job.looms[one.loomId]!.circuits[one.circuitId]!.terminations.flatMap((place) => {
            const need = job.looms[one.loomId]!.ends[place.endId]!.pins[place.cavity];
            return need ? [{ name: job.looms[one.loomId]!.ends[place.endId]!.name, cavity: place.cavity, need }] : [];
          }),
        );
        const start = [device?.unit || end.name, end.name, cavity, offer.name, offer.can.join(' '), offer.group ?? ''];
        if (served.length === 0) rows.push([...start, circuit ? circuit[1].name : '', '', '', '', '']);
        for (const { name, cavity: pin, need } of served)
          rows.push([...start, circuit![1].name, name, pin, need.function, need.currentA === null ? '' : String(need.currentA)]);
      }
    }
  }
  return writeCsv(['box', 'plug', 'pin', 'offer', 'can', 'group', 'circuit', 'device', 'device pin', 'function', 'current A'], rows);
}
