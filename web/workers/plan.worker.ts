import { createPlanSession, type PlanAnswer, type PlanRequest } from '../client/planSession';
import { today } from '../client/today';

const answer = createPlanSession(today, () => performance.now());
const scope = self as unknown as { onmessage: ((event: MessageEvent<PlanRequest>) => void) | null; postMessage(answer: PlanAnswer): void };

scope.onmessage = ({ data }) => scope.postMessage(answer(data));
