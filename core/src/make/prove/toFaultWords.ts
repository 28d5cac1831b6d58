import { toOhmWords } from '../toMeterReading';
import { nameProbe } from './createSeen';
import type { LoomFault, MovedAt } from './faultTypes';
import { toReadingWords } from './toReadingWords';
import type { RingOut } from './types';

/** What is wrong in a sentence, and where to look, and how it is put right. */
export interface FaultWords {
  what: string;
  look: string;
}

/** Says a fault as the person at the bench would. */
export function toFaultWords(ringOut: RingOut, fault: LoomFault): FaultWords {
  const net = (id: string) => ringOut.nets.find((one) => one.id === id)?.name ?? id;
  const nets = fault.netIds.map(net).join(', ');
  const end = (id: string) => ringOut.ends.find((one) => one.id === id)?.name ?? id;
  switch (fault.kind) {
    case 'exchanged':
    case 'turned':
    case 'mirrored':
    case 'astray':
      return { what: toMoved(fault, end), look: toMovedLook(fault, end) };
    case 'open':
      return {
        what: `${listWires(ringOut, fault.wireIds)} ${fault.wireIds.length > 1 ? 'are in one line that is open' : 'is open'}: ${nets}.`,
        look: `Tug it at ${listPlaces(ringOut, fault.wireIds)}; look for a contact that is not home, a wire that was never pinned, a crimp on insulation.`,
      };
    case 'poor':
      return {
        what: `${listWires(ringOut, fault.wireIds)} ${fault.wireIds.length > 1 ? 'have' : 'has'} a poor joint: ${toReadingWords({ unit: 'Ω' }, fault.ohm)} where at most ${toReadingWords({ unit: 'Ω' }, fault.mostOhm)} passes.`,
        look: `Look at the crimps at ${listPlaces(ringOut, fault.wireIds)}: cut strands, insulation in the barrel, a pin that was not pushed home.`,
      };
    case 'joined':
      return {
        what: `${fault.netIds.map(net).join(' and ')} are joined.`,
        look: fault.nearestEndId
          ? `Least lies between them at ${end(fault.nearestEndId)}: look there for a strand beside its crimp, a splice that wears through.`
          : 'They meet at no end: look where they lie side by side, at splices first.',
      };
    case 'screen':
      return {
        what: `The screen ${net(fault.screenId)} touches ${net(fault.netIds.find((id) => id !== fault.screenId)!)}.`,
        look: `${fault.nearestEndId ? `Nearest to ${end(fault.nearestEndId)}: look` : 'Look'} where the cable is opened, for strands of the screen under the sleeve of a core.`,
      };
    case 'part': {
      const part = ringOut.parts.find(({ id }) => id === fault.partId)!;
      return {
        what: `The ${part.words} reads ${fault.ohm === Infinity ? 'open' : toOhmWords(fault.ohm)}.`,
        look: `Between ${nameProbe(ringOut, part.a)} and ${nameProbe(ringOut, part.b)}: is it the right one, and is it in?`,
      };
    }
    case 'many':
      return {
        what: `${fault.netIds.length} nets are not isolated, all at once.`,
        look: 'That is hardly the pinning: is everything unplugged, is the loom dry, is the tester tied as the list says? Measure the isolation again.',
      };
    case 'unclear':
      return {
        what: `No single cause explains what failed on ${nets}.`,
        look: 'Measure those again, one by one; mend what is certain first.',
      };
  }
}

function toMoved(fault: Extract<LoomFault, MovedAt>, end: (id: string) => string): string {
  const { moves, endId, kind } = fault;
  const [first, last] = [moves[0]![0], moves.at(-1)![0]];
  if (kind === 'exchanged') return `${first} and ${moves[0]![1]} of ${end(endId)} are exchanged.`;
  if (kind === 'turned')
    return `The row ${first} to ${last} of ${end(endId)} is turned by ${Math.abs(fault.by)}: each wire sits ${Math.abs(fault.by)} ${fault.by > 0 ? 'further on' : 'further back'}.`;
  if (kind === 'mirrored') return `The row ${first} to ${last} of ${end(endId)} is the wrong way round: it was read from the mating side.`;
  return `At ${end(endId)} ${moves.map(([belongs, sits]) => `what belongs in ${belongs} sits in ${sits}`).join(', ')}.`;
}

function toMovedLook({ or, moves, endId }: MovedAt & { or: MovedAt[] }, end: (id: string) => string): string {
  const also = or.map((one) => `${one.moves.map(([cavity]) => cavity).join(', ')} of ${end(one.endId)}`);
  const look = `Look at the numbers of ${moves.map(([cavity]) => cavity).join(', ')} of ${end(endId)}, wire side.`;
  return also.length > 0 ? `${look} The same reads so when it is at ${also.join(', or ')}: the numbers tell which.` : look;
}

const listWires = ({ copper }: RingOut, wireIds: readonly string[]): string =>
  wireIds.map((id) => copper.find(({ wireId }) => wireId === id)!.number).join(', ');

function listPlaces(ringOut: RingOut, wireIds: readonly string[]): string {
  const keys = new Set(ringOut.copper.filter(({ wireId }) => wireIds.includes(wireId)).flatMap(({ from, to }) => [from, to]));
  const places = [...keys].map((key) => {
    const [endId, cavity] = key.split(' ');
    return endId === 'splice' ? `splice ${cavity}` : nameProbe(ringOut, { endId: endId!, cavity: cavity! });
  });
  return places.join(', ');
}
