import { searchLayups, type Loom, type LoomPlan, type ShopStandard } from 'wattograph-core';

/** A loom whose bundles are to be laid up, as it is planned now. */
export interface LayupQuestion {
  loom: Loom;
  plan: Pick<LoomPlan, 'tree' | 'wires' | 'bundles' | 'splices'>;
  standard: ShopStandard;
  seed: number;
  tries: number;
}

/** How far it is, with the best so far now and then, and in the end what was found. */
export type LayupAnswer = { done: number; best?: Loom['laidUp'] } | { laidUp: Loom['laidUp']; ms: number } | { failure: string };

/** the page is told so often at most, ms */
const EVERY_MS = 60;
/** and of the best so far: a large loom has much to tell */
const BEST_EVERY_MS = 500;

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<LayupQuestion>) => void) | null;
  postMessage(answer: LayupAnswer): void;
};

scope.onmessage = ({ data: { loom, plan, standard, seed, tries } }) => {
  const started = performance.now();
  let told = started;
  let toldBest = started;
  const progress = (done: number, toBest: () => Loom['laidUp']) => {
    const now = performance.now();
    if (now - told > EVERY_MS) {
      told = now;
      const isDue = now - toldBest > BEST_EVERY_MS;
      if (isDue) toldBest = now;
      scope.postMessage(isDue ? { done, best: toBest() } : { done });
    }
    // given up by ending the worker
    return false;
  };
  try {
    const { laidUp } = searchLayups(loom, plan, standard, { seed, tries, progress });
    scope.postMessage({ laidUp, ms: performance.now() - started });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
