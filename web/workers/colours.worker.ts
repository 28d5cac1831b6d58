import {
  findStandard,
  proposeColours,
  proposeScheme,
  type Catalogue,
  type ColourProposal,
  type Job,
  type LoomPlan,
  type SchemeProposal,
} from 'wattograph-core';

/** What the page asks for: looks for the wires of a loom, by the least change or by the shop's scheme. */
export interface ColoursQuestion {
  job: Pick<Job, 'looms' | 'mates' | 'standardId' | 'brief'>;
  plan: LoomPlan;
  shop: Catalogue;
  way: 'least' | 'scheme';
}

export type ColoursAnswer = { way: 'least'; proposal: ColourProposal } | { way: 'scheme'; proposal: SchemeProposal } | { failure: string };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<ColoursQuestion>) => void) | null;
  postMessage(answer: ColoursAnswer): void;
};

scope.onmessage = ({ data: { job, plan, shop, way } }) => {
  try {
    const standard = findStandard(job, shop);
    scope.postMessage(
      way === 'least'
        ? { way, proposal: proposeColours(job.looms[plan.loomId]!, plan, standard) }
        : { way, proposal: proposeScheme(job, plan, standard) },
    );
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
