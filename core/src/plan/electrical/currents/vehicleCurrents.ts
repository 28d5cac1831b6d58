import type { Currents } from './currents';
import type { SwitchgearLink } from '../../../netlist';
import type { ModeLive } from '../switching/findLive';

/** Currents of every mode over the whole of the copper, as a tree from its roots. */
export interface VehicleCurrents {
  modeIds: string[];
  /** by edge; null: no path to a root passes there */
  edges: (Currents | null)[];
  /** drawn at each node itself; null: nothing */
  drawn: (Currents | null)[];
  /** load pins of unknown current beyond an edge */
  unknownBeyond: number[];
  /** towards the root, by node: the edge to it; -1 at roots and what is off the tree */
  parentEdge: number[];
  nets: NetCurrents[];
  /** what is fed in each mode as its switches stand */
  live: readonly ModeLive[];
  /** pins that are switched off, by mode and node */
  isOff: readonly (readonly boolean[])[];
  bodies: Bodies;
}

/** A stud at which the current of a body leaves it by a wire. */
export interface BodyStud {
  node: number;
  net: number;
}

/** The bodies that current goes home through: the engine block by its strap, the chassis by the studs tied to battery negative. */
export interface Bodies {
  /** stud of the strap; null: the engine has none */
  engine: BodyStud | null;
  /** studs of the chassis that a wire joins to battery negative, the first of them the one that counts */
  ties: BodyStud[];
}

/** What feeds a net, and what goes through it. */
export interface NetCurrents {
  /** where its current comes from or goes to; null: nothing in it feeds or takes */
  root: number | null;
  /** the root is a plug or tail to which something outside the job is joined */
  isOutside: boolean;
  /** every node that feeds it; more than one is a fault */
  feeds: number[];
  fedBy: SwitchgearLink | null;
  current: Currents;
  /** load pins whose current nobody gave */
  unknown: number;
}
