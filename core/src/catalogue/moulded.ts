import type { Boot, Transition } from '../model';

const boot = (name: string, body: [number, number], lead: [number, number], lengthMm: number, massG: number): Boot => ({
  id: `boot-${name}`,
  name: `boot ${name}, ${body[0]}/${body[1]} to ${lead[0]}/${lead[1]}`,
  lengthMm,
  wallMm: 1.4,
  lined: false,
  limitC: 150,
  shrinkC: 175,
  massG,
  bodySuppliedMm: body[0],
  bodyRecoveredMm: body[1],
  leadSuppliedMm: lead[0],
  leadRecoveredMm: lead[1],
});

/** Moulded boots, smallest first; each to be had lined. */
export const BOOTS: readonly Boot[] = [
  boot('10', [13, 7], [11, 3], 32, 2),
  boot('16', [19, 10], [16, 4.6], 38, 4),
  boot('22', [26, 14], [21, 6.2], 45, 7),
  boot('28', [33, 18], [27, 8], 52, 11),
  boot('36', [42, 24], [34, 11], 64, 18),
].flatMap((plain) => [plain, { ...plain, id: `${plain.id}-lined`, name: `${plain.name}, lined`, lined: true, limitC: 125, shrinkC: 150 }]);

const transition = (legs: number, trunk: [number, number], leg: [number, number], lengthMm: number, massG: number): Transition => ({
  id: `fork-${legs}-${trunk[0]}`,
  name: `transition of ${legs} legs, ${trunk[0]}/${trunk[1]} to ${leg[0]}/${leg[1]}`,
  lengthMm,
  wallMm: 1.5,
  lined: false,
  limitC: 150,
  shrinkC: 175,
  massG,
  legs,
  trunkSuppliedMm: trunk[0],
  trunkRecoveredMm: trunk[1],
  legSuppliedMm: leg[0],
  legRecoveredMm: leg[1],
  onwardSuppliedMm: null,
  onwardRecoveredMm: null,
});

const throughTransition = (
  trunk: [number, number],
  onward: [number, number],
  leg: [number, number],
  lengthMm: number,
  massG: number,
): Transition => ({
  ...transition(2, trunk, leg, lengthMm, massG),
  id: `fork-through-${trunk[0]}`,
  name: `transition, trunk ${trunk[0]}/${trunk[1]} straight on, one leg ${leg[0]}/${leg[1]}`,
  onwardSuppliedMm: onward[0],
  onwardRecoveredMm: onward[1],
});

/** Moulded transitions, by legs, smallest first; each to be had lined. */
export const TRANSITIONS: readonly Transition[] = [
  transition(2, [14, 5], [10, 2.6], 42, 4),
  transition(2, [22, 8], [17, 4], 58, 8),
  transition(2, [33, 12], [25, 6], 78, 15),
  transition(3, [22, 8], [14, 3.2], 62, 10),
  transition(3, [33, 12], [22, 5], 84, 18),
  // one thin leg out of a trunk that goes on
  throughTransition([14, 5], [14, 5], [9, 2.2], 44, 5),
  throughTransition([22, 8], [22, 8], [9, 2.2], 54, 8),
  throughTransition([33, 12], [33, 12], [14, 3.2], 70, 13),
].flatMap((plain) => [plain, { ...plain, id: `${plain.id}-lined`, name: `${plain.name}, lined`, lined: true, limitC: 125, shrinkC: 150 }]);
