import type { CableItem } from '../../catalogue';
import { type Circuit, type EditOperation, isOffered, type Job } from '../../model';
import { createFinding, toPlacesAt } from '../createFinding';
import type { Finding, WiringContext, WiringRule } from '../types';
import { type NetPin, listNetPins, toPinWords } from '../../netlist';

/**
 * CI18, stop: a pin that wants a screen, or a pin it is twisted with, lies on plain wire in one of the looms on its way. The fix lays the pair
 * in a screened cable, or twists it.
 */
export const checkScreenedPins: WiringRule = (context) => {
  const { job, plan } = context;
  const netOf = new Map<string, readonly NetPin[]>();
  for (const net of plan.power.nets) {
    const pins = listNetPins(job, net);
    for (const { loomId, endId, cavity } of pins) netOf.set(`${loomId}/${endId}/${cavity}`, pins);
  }
  const done = new Set<string>();
  return [...netOf.values()].flatMap((pins) =>
    pins.flatMap((pin): Finding[] => {
      const key = `${pin.loomId}/${pin.endId}/${pin.cavity}`;
      const partner = pin.need?.twistWith ?? null;
      if (!pin.need || (!pin.need.screened && partner === null) || done.has(key)) return [];
      done.add(key);
      const others = partner === null ? [] : (netOf.get(`${pin.loomId}/${pin.endId}/${partner}`) ?? []);
      if (partner !== null) done.add(`${pin.loomId}/${pin.endId}/${partner}`);
      const looms = [...new Set(pins.map(({ loomId }) => loomId))];
      const bare = looms.flatMap((loomId) => {
        const ids = [...new Set([...pins, ...others].filter((one) => one.loomId === loomId).map(({ circuitId }) => circuitId))];
        const isMet = pin.need!.screened ? isScreened(context, loomId, ids) : isTwisted(job, loomId, ids);
        return isMet ? [] : [{ loomId, ids }];
      });
      if (bare.length === 0) return [];
      const where = bare.map(({ loomId }) => job.looms[loomId]!.name).join(' and ');
      const wants = pin.need.screened ? 'wants a screened cable' : `is to be twisted with ${partner}`;
      return [
        createFinding(
          pin,
          'CI18',
          toPlacesAt(pin.endId, pin.cavity),
          `${toPinWords(job, pin)} (${pin.need.function}) ${wants}; in ${where} it lies on plain wire.`,
          { fix: pin.need.screened ? layInCable(context, bare) : twist(job, bare, context.standard.canPitchMm) },
        ),
      ];
    }),
  );
};

const circuitsOf = (job: Job, loomId: string, ids: readonly string[]): Circuit[] => ids.map((id) => job.looms[loomId]!.circuits[id]!);

/** Do they lie together in one screened cable? */
function isScreened({ job, catalogue }: WiringContext, loomId: string, ids: readonly string[]): boolean {
  const circuits = circuitsOf(job, loomId, ids);
  const [first] = circuits;
  return circuits.every(({ cable }) => {
    const item = catalogue.cables.find(({ id }) => id === cable?.itemId);
    return cable !== null && item?.screened === true && cable.groupId === first!.cable?.groupId;
  });
}

function isTwisted(job: Job, loomId: string, ids: readonly string[]): boolean {
  const circuits = circuitsOf(job, loomId, ids);
  const [first] = circuits;
  if (circuits.length < 2) return true;
  return circuits.every(
    ({ twist, cable }) =>
      (twist !== null && twist.groupId === first!.twist?.groupId) || (cable !== null && cable.groupId === first!.cable?.groupId),
  );
}

type Bare = readonly { loomId: string; ids: readonly string[] }[];

/** The smallest screened cable of the wires' own insulation that has a conductor for each; null where the catalogue has none. */
function layInCable({ job, catalogue, standard }: WiringContext, bare: Bare): Finding['fix'] {
  const patch: EditOperation[] = [];
  for (const { loomId, ids } of bare) {
    const tables = new Set(circuitsOf(job, loomId, ids).map(({ wireTable }) => wireTable));
    const isFit = ({ id, screened, conductors, table, size }: CableItem) =>
      isOffered(catalogue, 'cables', id) &&
      screened &&
      conductors >= ids.length &&
      tables.size === 1 &&
      tables.has(table) &&
      size === standard.minimumSize[table];
    const item = catalogue.cables.find(isFit);
    if (!item) return null;
    const groupId = ids[0]!;
    for (const id of ids) {
      const at = `/looms/${loomId}/circuits/${id}`;
      patch.push({ op: 'replace', path: `${at}/cable`, value: { groupId, itemId: item.id } });
      patch.push({ op: 'replace', path: `${at}/sizePin`, value: null });
      if (ids.length > 1) patch.push({ op: 'replace', path: `${at}/twist`, value: { groupId, pitchMm: standard.canPitchMm } });
    }
  }
  return { label: 'Lay it in a screened cable', patch };
}

function twist(job: Job, bare: Bare, pitchMm: number): Finding['fix'] {
  const patch = bare.flatMap(({ loomId, ids }) => {
    const groupId = circuitsOf(job, loomId, ids).find((one) => one.twist)?.twist?.groupId ?? ids[0]!;
    return ids.map((id): EditOperation => ({ op: 'replace', path: `/looms/${loomId}/circuits/${id}/twist`, value: { groupId, pitchMm } }));
  });
  return { label: 'Twist them together', patch };
}
