import { compareIds, toCount } from '../../units';
import { listScopeChange, type Anchor } from '../../model';
import { createFinding } from '../createFinding';
import type { Finding, WiringRule } from '../types';

const OF_JOB = { loomId: '' };
const name = (names: readonly string[]) => names.slice(0, 4).join(', ') + (names.length > 4 ? ` and ${names.length - 4} more` : '');

/** SC5, note: devices or circuits added since the scope was agreed. SC8, note: devices that are on no loom yet. */
export const checkScope: WiringRule = ({ job }) => {
  const findings: Finding[] = [];
  const change = listScopeChange(job);
  const added = change ? [...change.devicesAdded, ...change.circuitsAdded] : [];
  if (change && added.length)
    findings.push(
      createFinding(
        OF_JOB,
        'SC5',
        [],
        `${toCount(change.devicesAdded.length, 'device')} and ${toCount(change.circuitsAdded.length, 'circuit')} added since the scope was agreed on ${job.brief.agreed!.on}: ${name(added)}.`,
        { measured: added.length, limit: 0 },
      ),
    );
  const donated = new Set(Object.values(job.donors).flatMap(({ wires }) => Object.values(wires).flatMap(({ from, to }) => [from, to])));
  const loose = Object.values(job.devices).filter(
    (device) => device.at === null && device.decision !== 'remove' && !(device.decision === 'keep' && donated.has(device.name)),
  );
  if (loose.length)
    findings.push(
      createFinding(
        OF_JOB,
        'SC8',
        [],
        `${loose.length} ${loose.length === 1 ? 'device is' : 'devices are'} on no loom yet: ${name(loose.map((device) => device.name))}.`,
        { measured: loose.length, limit: 0 },
      ),
    );
  return findings;
};

/**
 * SC7, stop: anchors that are not fixed, and of which nobody has said where on the looms they are. Nothing is cut before. Of those that have a
 * place, the wires that pass them are found loom by loom.
 */
export const checkAnchors: WiringRule = ({ job }) => {
  const hasPlace = ({ nodes }: Anchor) => nodes.some(({ loomId, nodeId }) => Object.hasOwn(job.looms[loomId]?.nodes ?? {}, nodeId));
  const open = Object.values(job.anchors).filter((anchor) => anchor.state === 'open' && !hasPlace(anchor));
  if (open.length === 0) return [];
  return [
    createFinding(
      OF_JOB,
      'SC7',
      [],
      `Nothing is cut before the anchors are fixed: ${open.map((anchor) => anchor.name).join(', ')} ${open.length === 1 ? 'is' : 'are'} open.`,
      { measured: open.length, limit: 0 },
    ),
  ];
};

/** SC6, check: a concession past its day. Needs to be told the day. */
export const checkConcessions: WiringRule = ({ job, today }) =>
  Object.keys(job.openItems)
    .sort(compareIds)
    .flatMap((id) => {
      const { kind, due, question } = job.openItems[id]!;
      if (kind !== 'concession' || due === null || today === null || due >= today) return [];
      return [
        createFinding(OF_JOB, 'SC6', [{ kind: 'item', id }], `The concession "${question}" ended on ${due}: end it or give it a new day.`),
      ];
    });

/** SC10, check: entries of a survey that met something else and wait to be settled. */
export const checkSurveyConflicts: WiringRule = ({ job }) => {
  const waiting = Object.values(job.surveyConflicts);
  if (waiting.length === 0) return [];
  return [
    createFinding(
      OF_JOB,
      'SC10',
      [],
      `${waiting.length} survey ${waiting.length === 1 ? 'entry meets' : 'entries meet'} what somebody else entered: ${name(waiting.map(({ mine }) => mine))}.`,
      { measured: waiting.length, limit: 0 },
    ),
  ];
};

/** ST1, note: where this job departs from the house style. */
export const checkDepartures: WiringRule = ({ job, houseStyle }) => {
  const departures = houseStyle.filter(({ id }) => Object.hasOwn(job.brief.departures, id));
  if (departures.length === 0) return [];
  return [
    createFinding(
      OF_JOB,
      'ST1',
      [],
      `Departs from the house style: ${departures.map(({ id, question, sides }) => `${question.toLowerCase()} ${sides[job.brief.departures[id]!.side]?.words ?? '?'} (${job.brief.departures[id]!.reason})`).join('; ')}.`,
    ),
  ];
};
