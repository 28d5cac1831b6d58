import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { createNetlist, type JoinedWire } from '../netlist';
import { listContactFloors } from './electrical/copper/listContactFloors';
import { createVehicleSums, joinVehicle, type VehicleSums } from './electrical/createVehicleSums';
import { isSameCarried, listCarriedCurrents, type CarriedCurrent } from './electrical/currents/listCarriedCurrents';
import type { VehicleCurrents } from './electrical/currents/vehicleCurrents';
import type { SizedLoom } from './electrical/sizedLoom';
import type { PlanStore } from './planStore';
import { isSameWiring } from './route/isSameWiring';
import type { RoutedLoom } from './route/routeLoom';

/** A vehicle as it is wired: what flows in it, and its sums for looms as they are sized at one time or another. */
export interface JoinedLooms {
  flows: VehicleCurrents;
  /** current of every wire, by loom */
  ofLooms: ReadonlyMap<string, ReadonlyMap<string, CarriedCurrent>>;
  sum: (looms: readonly SizedLoom[]) => VehicleSums;
}

/** Join the looms of a vehicle: one netlist, what flows in it, what protects it. */
export function joinLooms(
  job: Job,
  routes: readonly RoutedLoom[],
  catalogue: Catalogue,
  standard: ShopStandard,
  store: Pick<PlanStore, 'flows' | 'copper'>,
): JoinedLooms {
  const netlist = createNetlist(job, catalogue, routes);
  const vehicle = joinVehicle(job, netlist, standard);
  const { flows } = vehicle;
  const byLoom = listCarriedCurrents(netlist, flows, vehicle.ways, vehicle.edgeGuards);
  const contactFloors = listContactFloors(job, routes, byLoom, catalogue, standard);
  const ofLooms = new Map(
    routes.map(({ loomId }) => {
      const ofLoom = byLoom.get(loomId) ?? new Map<string, CarriedCurrent>();
      const before = store.flows.get(loomId);
      // one that is as it was stays the same object: what was made of it holds
      const kept = before && isSameCarried(before, flows.modeIds, ofLoom) ? before.flows : ofLoom;
      store.flows.set(loomId, { modeIds: flows.modeIds, flows: kept });
      return [loomId, kept];
    }),
  );
  return { flows, ofLooms, sum: createVehicleSums(vehicle, routes, contactFloors, standard, store.copper) };
}

/** The wires of a loom as they are joined; those of the last plan while no wire has other ends. */
export function keepWiring(store: Pick<PlanStore, 'wirings'>, { loomId, wires }: RoutedLoom): readonly JoinedWire[] {
  const before = store.wirings.get(loomId);
  if (before && isSameWiring(before, wires)) return before;
  store.wirings.set(loomId, wires);
  return wires;
}
