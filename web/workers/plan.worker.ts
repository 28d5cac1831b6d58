import { createPlanLoop } from '../client/planLoop';
import { createPlanSession, type FindingsAnswer, type PlanAnswer, type PlanRequest } from '../client/planSession';
import { today } from '../client/today';

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<PlanRequest>) => void) | null;
  postMessage(answer: PlanAnswer | FindingsAnswer): void;
};
const clock = () => performance.now();
const session = createPlanSession(today, clock);

/** For whoever looks at a trace: what the thread worked in between. */
function answer(request: PlanRequest): PlanAnswer {
  performance.clearMarks();
  performance.mark('plan asked');
  const planned = session.answer(request);
  performance.mark('plan made');
  return planned;
}

const ask = createPlanLoop({ ...session, answer }, (told) => scope.postMessage(told), clock);
scope.onmessage = ({ data }) => ask(data);
