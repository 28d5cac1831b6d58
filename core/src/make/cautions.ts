import type { TaskHazard } from '../model';
import type { Operation } from './step';

/** craft D5 */
const IN_THE_CAR =
  'A lifted car rests on stands, never on its jack. Alone at night: somebody knows where you are and when you will be out.';
const HOT_AIR = 'Hot-air tool parked nose-up and away from fuel; no flame on tubing.';

/** Usual practice, shown at the step; the makers' instructions, local codes and licensed practice come first. */
export const CAUTIONS = {
  undo: 'Blade at the sheath: cut away from the conductor and from your hand; a nicked wire is made anew.',
  cut: null,
  twist: 'Twisted wire under tension recoils: let it unwind before letting go.',
  mark: null,
  screen: 'Blade at the jacket: away from the conductor and from your hand, with a depth stop; a nicked core is made anew.',
  seal: null,
  thread: null,
  crimp: 'Tired hands make bad crimps: take the break, have a second person look next day. Eye protection when trimming.',
  bunch: null,
  seat: null,
  plug: null,
  ring: null,
  pot: 'Gloves, glasses, air: resin, hardener and the solvent that cleans up harm skin and lungs, and the solvent burns. A full cup gets hot by itself: small mixes, set on something that does not burn.',
  wait: null,
  yes: null,
  visit: IN_THE_CAR,
  fabricate: `Battery negative off before anything is made on the car. ${IN_THE_CAR}`,
  lay: null,
  splice: `Sleeve on the wire before the barrel. ${HOT_AIR}`,
  layup: 'Twisted wire under tension recoils: keep hold of the bundle until it is tied.',
  tie: null,
  photo: null,
  slide: null,
  cover: HOT_AIR,
  fit: `Battery negative off before work in the car. Pumps and fans can start by themselves. No sparks near fuel, extinguisher at hand. ${IN_THE_CAR}`,
  label: null,
  boot: null,
  shrink: HOT_AIR,
  close: `${HOT_AIR} Adhesive comes out hot: gloves.`,
  test: 'Loom unplugged at both ends, controllers disconnected. Airbags, traction batteries and any high voltage: qualified people only.',
  depin: 'Extraction tool straight in, by the sheet of its maker: a bent latch lets go on the road.',
  sign: null,
  torque: 'Battery negative off first and on last; main fuse out. Insulate the spanner. The maker’s torque comes first.',
  clip: 'Battery negative off. Look behind before you drill or weld for a clip: tank, lines, wires.',
  route: `Battery negative off before work in the car. Holes deburred, with grommet or trim, before anything goes through; look behind a panel before you drill. No sparks near fuel. ${IN_THE_CAR}`,
} satisfies Record<Operation, string | null>;

/** What can hurt while something is made for the loom, beside what always can. */
export const HAZARD_CAUTIONS: Readonly<Record<TaskHazard, string>> = {
  weld: 'Welding only by who is qualified: battery off and every controller unplugged first, clamp close to the seam, nothing that burns or holds fuel near, extinguisher at hand.',
  drill: 'Look behind before you drill: tank, lines, wires. Glasses; deburr.',
  grind: 'Sparks away from fuel, glass and wiring; guard on, glasses, no gloves near the wheel.',
  glue: 'Gloves, glasses, air: solvents and resins harm skin and lungs, and burn.',
};
