import type { InlinePart, Job } from '../../model';
import { toPinKey } from '../../netlist';
import { listNetsAt, measurePartHeat } from './measurePartHeat';
import { createFinding } from '../createFinding';
import type { RuleCode } from '../register';
import type { Finding, WiringRule } from '../types';

/** What resistors are sold for, W. */
const RATINGS_W = [0.25, 0.5, 1, 2, 5, 10, 25, 50, 100, 250, 500];
/** At half of what it may give off a resistor in a loom stays cool enough to be lived with; in free air alone it bears all of it. */
const SHARE = 0.5;

const toWords = (job: Job, { kind, ohms, at }: InlinePart) =>
  `The ${kind}${ohms === null ? '' : ` of ${ohms} Ω`} between ${job.looms[at.loomId]!.ends[at.endId]!.name} ${at.cavities.join(' and ')}`;

/**
 * CI16, check: an inline part in the loom does nothing, for one of its cavities is not wired or both are on one net. The fix takes it
 * out. CI17, stop: a resistor gives off more than it may between the voltages of its nets, or (check) nobody said what it may. The fix
 * takes one of the next rating at which it runs at half.
 */
export const checkParts: WiringRule = ({ job, plan }) => {
  const netAt = listNetsAt(job, plan.power);
  return Object.entries(job.parts).flatMap(([id, part]): Finding[] => {
    const { at, watts } = part;
    const nets = at.cavities.map((cavity) => netAt.get(toPinKey({ ...at, cavity })));
    const find = (code: RuleCode, words: string, rest: Parameters<typeof createFinding>[4]) => [
      createFinding(
        at,
        code,
        [
          { kind: 'item', id },
          { kind: 'end', id: at.endId },
        ],
        `${toWords(job, part)} ${words}`,
        rest,
      ),
    ];
    const bare = at.cavities.filter((_, index) => !nets[index]);
    if (bare.length || nets[0] === nets[1]) {
      // one that is built into a device is there whether it is used or not
      if (part.inside) return [];
      const why = bare.length
        ? `does nothing: no circuit reaches ${bare.length === 2 ? 'either' : bare[0]}.`
        : 'does nothing: both its legs are on one circuit.';
      return find('CI16', why, { fix: { label: 'Take it out', patch: [{ op: 'remove', path: `/parts/${id}` }] } });
    }
    const heat = measurePartHeat(job, netAt, part);
    if (!heat || heat.watts === 0 || (watts !== null && heat.watts <= watts)) return [];
    const mostW = heat.watts;
    const [one, other] = heat.volts;
    const fitting = RATINGS_W.find((rating) => rating * SHARE >= mostW);
    const rest = {
      measured: mostW,
      limit: watts,
      fix:
        fitting === undefined || part.inside
          ? null
          : { label: `Take one of ${fitting} W`, patch: [{ op: 'replace' as const, path: `/parts/${id}/watts`, value: fitting }] },
    };
    const gives = `gives off ${Number(mostW.toPrecision(2))} W between ${one} V and ${other} V`;
    return watts === null
      ? find('CI17', `${gives}; what it may give off is not known.`, { ...rest, grade: 'check' })
      : find('CI17', `${gives}; it may give off ${watts} W, and burns.`, rest);
  });
};
