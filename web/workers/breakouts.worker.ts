import { priceBreakouts, type PlannedLayup, type PricedBreakout, type ShopStandard, type SizedWire } from 'wattograph-core';

/** A line of runs that is twisted in layers, with the wires in it. */
export interface BreakoutsQuestion {
  layup: PlannedLayup;
  standard: ShopStandard;
  wires: readonly SizedWire[];
}

export type BreakoutsAnswer = { priced: PricedBreakout[] } | { failure: string };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<BreakoutsQuestion>) => void) | null;
  postMessage(answer: BreakoutsAnswer): void;
};

scope.onmessage = ({ data: { layup, standard, wires } }) => {
  try {
    scope.postMessage({ priced: priceBreakouts(layup, standard, new Map(wires.map((wire) => [wire.id, wire]))) });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
