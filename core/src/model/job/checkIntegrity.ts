import { compareIds } from '../../units';
import type { CatalogueLookup, FamilyLookup } from './catalogueLookup';
import { checkBrief } from './checkBrief';
import { checkFamily, toCavityWords } from '../shop/checkFamily';
import { listCavities, type ConnectorFamily } from '../shop/family';
import type { Job } from './job';
import type { Loom } from '../loom/loom';
import { createPassed, isFrozenThrough } from '../passed';
import type { Problem } from '../problem';

/** looms of which every reference leads somewhere, with what the references lead to beside them */
const sound = createPassed();

/**
 * What a schema cannot say: references lead somewhere, the route is one tree, no cavity holds two circuits.
 * A document with a problem here is not stored; what can be planned but should not be built is a finding instead. It pauses now and then.
 */
export function* checkIntegrity(job: Job, lookup: CatalogueLookup): Generator<undefined, Problem[]> {
  const families = createFamilies((id) => (Object.hasOwn(job.families, id) ? job.families[id] : lookup.family(id)));
  const known = lookup.standardIds.includes(job.standardId);
  const standard = known
    ? []
    : [{ path: '/standardId', message: `expected one of ${lookup.standardIds.join(', ')}, got "${job.standardId}"` }];
  const looms: Problem[] = [];
  for (const loomId of Object.keys(job.looms).sort(compareIds)) {
    const loom = job.looms[loomId]!;
    const at = `/looms/${loomId}`;
    // a part of the job that is not frozen may be another by now
    const beside = [lookup, ...[job.families, job.zones].map((one) => (isFrozenThrough(one) ? one : {}))];
    if (sound.has(loom, loomId, beside)) continue;
    const before = looms.length;
    looms.push(...checkTree(loom, at), ...checkSegments(loom, at, job));
    yield;
    looms.push(...checkEnds(loom, at, families));
    yield;
    looms.push(...checkCircuits(loom, at, families, lookup), ...checkSplicePins(loom, at));
    yield;
    if (looms.length === before) sound.add(loom, loomId, beside);
  }
  const own = Object.entries(job.families).flatMap(([id, one]) => checkFamily(one, `/families/${id}`));
  return [...standard, ...own, ...looms, ...checkBrief(job, lookup)];
}

/** Families of a job and of its shop; the cavities of one are listed once, however many pins it has. */
interface Families {
  find: FamilyLookup;
  cavitiesOf(family: ConnectorFamily): ReadonlySet<string>;
}

function createFamilies(find: FamilyLookup): Families {
  const known = new Map<ConnectorFamily, ReadonlySet<string>>();
  return {
    find,
    cavitiesOf(family) {
      let cavities = known.get(family);
      if (!cavities) known.set(family, (cavities = new Set(listCavities(family))));
      return cavities;
    },
  };
}

const has = (record: object, id: string) => Object.hasOwn(record, id);

function checkTree(loom: Loom, at: string): Problem[] {
  const problems: Problem[] = [];
  const datums = Object.keys(loom.nodes).filter((id) => loom.nodes[id]!.kind === 'datum');
  if (datums.length !== 1) {
    return [
      { path: `${at}/nodes`, message: `expected exactly one datum, got ${datums.length}${datums.length ? ` (${datums.join(', ')})` : ''}` },
    ];
  }
  const neighbours = new Map<string, { segmentId: string; nodeId: string }[]>(Object.keys(loom.nodes).map((id) => [id, []]));
  for (const [segmentId, { fromNodeId, toNodeId }] of Object.entries(loom.segments)) {
    for (const [field, nodeId] of [
      ['fromNodeId', fromNodeId],
      ['toNodeId', toNodeId],
    ] as const) {
      if (!has(loom.nodes, nodeId))
        problems.push({ path: `${at}/segments/${segmentId}/${field}`, message: `expected a node of this loom, got "${nodeId}"` });
    }
    neighbours.get(fromNodeId)?.push({ segmentId, nodeId: toNodeId });
    neighbours.get(toNodeId)?.push({ segmentId, nodeId: fromNodeId });
  }
  if (problems.length) return problems;

  const cameBy = new Map<string, string | null>([[datums[0]!, null]]);
  const queue = [datums[0]!];
  for (let nodeId = queue.shift(); nodeId !== undefined; nodeId = queue.shift()) {
    for (const next of neighbours.get(nodeId)!) {
      if (next.segmentId === cameBy.get(nodeId)) continue;
      if (cameBy.has(next.nodeId)) {
        const loop = listLoop(loom, cameBy, next.segmentId);
        return [{ path: `${at}/segments/${next.segmentId}`, message: `expected a tree, got a loop through segments ${loop.join(', ')}` }];
      }
      cameBy.set(next.nodeId, next.segmentId);
      queue.push(next.nodeId);
    }
  }
  const detached = Object.keys(loom.segments)
    .filter((id) => !cameBy.has(loom.segments[id]!.fromNodeId))
    .sort(compareIds);
  if (detached.length) {
    problems.push({
      path: `${at}/segments/${detached[0]}`,
      message: `expected every segment to reach the datum, got a detached piece: segments ${detached.join(', ')}`,
    });
  }
  for (const nodeId of Object.keys(loom.nodes)) {
    if (!cameBy.has(nodeId) && neighbours.get(nodeId)!.length === 0) {
      problems.push({ path: `${at}/nodes/${nodeId}`, message: 'expected a segment that leads to this node, got none' });
    }
  }
  return problems;
}

function listLoop(loom: Loom, cameBy: Map<string, string | null>, closing: string): string[] {
  const climb = (nodeId: string): string[] => {
    const way: string[] = [];
    for (let at = nodeId, by = cameBy.get(at); by; by = cameBy.get(at)) {
      way.push(by);
      const segment = loom.segments[by]!;
      at = segment.fromNodeId === at ? segment.toNodeId : segment.fromNodeId;
    }
    return way;
  };
  const { fromNodeId, toNodeId } = loom.segments[closing]!;
  const one = climb(fromNodeId);
  const other = climb(toNodeId);
  const shared = new Set(one.filter((id) => other.includes(id)));
  return [closing, ...one, ...other].filter((id) => !shared.has(id)).sort(compareIds);
}

function checkSegments(loom: Loom, at: string, job: Job): Problem[] {
  const problems: Problem[] = [];
  for (const [id, segment] of Object.entries(loom.segments)) {
    if (segment.zoneId !== null && !has(job.zones, segment.zoneId)) {
      problems.push({ path: `${at}/segments/${id}/zoneId`, message: `expected a zone of this job, got "${segment.zoneId}"` });
    }
  }
  for (const [id, { status, fittedMm }] of Object.entries(loom.segments)) {
    if ((status === 'fitted') !== (fittedMm !== null))
      problems.push({
        path: `${at}/segments/${id}/fittedMm`,
        message: `expected ${status === 'fitted' ? 'the fitted length in mm' : `null for a run that is ${status}`}, got ${JSON.stringify(fittedMm)}`,
      });
  }
  for (const [id, node] of Object.entries(loom.nodes)) {
    const onward = node.onwardSegmentId;
    if (
      onward !== null &&
      !(has(loom.segments, onward) && [loom.segments[onward]!.fromNodeId, loom.segments[onward]!.toNodeId].includes(id))
    ) {
      problems.push({ path: `${at}/nodes/${id}/onwardSegmentId`, message: `expected a segment at this node, got "${onward}"` });
    }
  }
  return problems;
}

function checkEnds(loom: Loom, at: string, families: Families): Problem[] {
  const problems: Problem[] = [];
  const taken = new Map<string, string>();
  for (const [id, end] of Object.entries(loom.ends)) {
    const node = has(loom.nodes, end.nodeId) ? loom.nodes[end.nodeId] : undefined;
    if (!node) problems.push({ path: `${at}/ends/${id}/nodeId`, message: `expected a node of this loom, got "${end.nodeId}"` });
    else if (node.kind !== 'end' && node.kind !== 'datum')
      problems.push({
        path: `${at}/ends/${id}/nodeId`,
        message: `expected an end node or the datum, got the ${node.kind} "${end.nodeId}"`,
      });
    const other = taken.get(end.nodeId);
    if (other)
      problems.push({
        path: `${at}/ends/${id}/nodeId`,
        message: `expected one end at a node, got "${other}" and "${id}" at "${end.nodeId}"`,
      });
    taken.set(end.nodeId, id);
    if (end.kind === 'connector' && end.familyId !== null && !families.find(end.familyId)) {
      problems.push({
        path: `${at}/ends/${id}/familyId`,
        message: `expected a connector family of the catalogue or of this job, got ${JSON.stringify(end.familyId)}`,
      });
    }
    if (end.kind === 'blade' && end.tongueMm === null)
      problems.push({ path: `${at}/ends/${id}/tongueMm`, message: 'expected the width of its tongues in mm, got null' });
    if (end.kind === 'ring' && end.studMm === null)
      problems.push({ path: `${at}/ends/${id}/studMm`, message: 'expected the diameter of the stud in mm, got null' });
    problems.push(...Object.keys(end.pins).flatMap((cavity) => checkCavity(loom, id, cavity, families, `${at}/ends/${id}/pins/${cavity}`)));
  }
  return problems;
}

function checkCavity(loom: Loom, endId: string, cavity: string, families: Families, path: string): Problem[] {
  const end = loom.ends[endId]!;
  if (end.kind !== 'connector' || end.familyId === null) return [];
  const found = families.find(end.familyId);
  if (!found) return [];
  return families.cavitiesOf(found).has(cavity)
    ? []
    : [{ path, message: `expected a cavity of ${end.name} (${found.name}, ${toCavityWords(found)}), got "${cavity}"` }];
}

function checkCircuits(loom: Loom, at: string, families: Families, { sizes, cableIds }: CatalogueLookup): Problem[] {
  const problems: Problem[] = [];
  const inCavity = new Map<string, string>();
  const numbers = new Map<string, string>();
  const cables = new Map<string, string>();
  for (const id of Object.keys(loom.circuits).sort(compareIds)) {
    const circuit = loom.circuits[id]!;
    const twin = numbers.get(circuit.number);
    if (twin)
      problems.push({
        path: `${at}/circuits/${id}/number`,
        message: `expected a number of its own, got "${circuit.number}", which circuit "${twin}" has`,
      });
    numbers.set(circuit.number, id);
    const known = Object.hasOwn(sizes, circuit.wireTable) ? sizes[circuit.wireTable]! : null;
    if (!known)
      problems.push({
        path: `${at}/circuits/${id}/wireTable`,
        message: `expected a kind of wire of the shop (${Object.keys(sizes).join(', ')}), got "${circuit.wireTable}"`,
      });
    if (known && circuit.sizePin && !known.includes(circuit.sizePin.size)) {
      problems.push({
        path: `${at}/circuits/${id}/sizePin/size`,
        message: `expected one of ${known.join(', ')} (${circuit.wireTable}), got "${circuit.sizePin.size}"`,
      });
    }
    if (circuit.cable) {
      const { groupId, itemId } = circuit.cable;
      const before = cables.get(groupId) ?? itemId;
      cables.set(groupId, before);
      const wanted = cableIds.includes(itemId)
        ? before === itemId
          ? null
          : `"${before}" as in the rest of cable "${groupId}"`
        : `one of ${cableIds.join(', ')}`;
      if (wanted) problems.push({ path: `${at}/circuits/${id}/cable/itemId`, message: `expected ${wanted}, got "${itemId}"` });
    }
    circuit.terminations.forEach(({ endId, cavity }, index) => {
      const path = `${at}/circuits/${id}/terminations/${index}`;
      if (!has(loom.ends, endId)) {
        problems.push({ path: `${path}/endId`, message: `expected an end of this loom, got "${endId}"` });
        return;
      }
      problems.push(...checkCavity(loom, endId, cavity, families, `${path}/cavity`));
      const place = `${endId} ${cavity}`;
      const other = inCavity.get(place);
      if (other)
        problems.push({
          path: `${path}/cavity`,
          message: `expected one wire in a cavity, got circuits "${other}" and "${id}" both in ${loom.ends[endId]!.name} cavity ${cavity}`,
        });
      inCavity.set(place, id);
    });
  }
  return problems;
}

function checkSplicePins(loom: Loom, at: string): Problem[] {
  return Object.entries(loom.splicePins)
    .filter(([, pin]) => !has(loom.segments, pin.segmentId))
    .map(([id, pin]) => ({ path: `${at}/splicePins/${id}/segmentId`, message: `expected a segment of this loom, got "${pin.segmentId}"` }));
}
