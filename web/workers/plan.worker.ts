import { createPlanSession, type FindingsAnswer, type PlanAnswer, type PlanRequest } from '../client/planSession';
import { today } from '../client/today';

const { answer, check, rehearse } = createPlanSession(today, () => performance.now());
const scope = self as unknown as {
  onmessage: ((event: MessageEvent<PlanRequest>) => void) | null;
  postMessage(answer: PlanAnswer | FindingsAnswer): void;
};

/** lengths tried after a job was opened, one at a time while nothing is asked for */
const REHEARSALS = 24;
/** where one takes longer it would keep a person waiting; the first ones, of code that never ran, take longer everywhere */
const LONGEST_MS = 120;
const COLD = 12;
const LONGEST_COLD_MS = 300;
const PAUSE_MS = 20;
/** so long a drag goes on without findings: its next plan comes first */
const UNCHECKED_MS = 250;
/** within which the page asks again where it has something waiting */
const ASKS_AGAIN_MS = 10;

let round = REHEARSALS;
let timer: ReturnType<typeof setTimeout> | undefined;
let checkedAt = -Infinity;

function rehearseNext(): void {
  const started = performance.now();
  round += 1;
  const longestMs = round <= 2 ? Infinity : round <= COLD ? LONGEST_COLD_MS : LONGEST_MS;
  if (!rehearse(round - 1) || performance.now() - started > longestMs) round = REHEARSALS;
  else if (round < REHEARSALS) timer = setTimeout(rehearseNext, PAUSE_MS);
}

function checkPlan(): void {
  const found = check();
  checkedAt = performance.now();
  if (found) scope.postMessage(found);
  if (round < REHEARSALS) timer = setTimeout(rehearseNext, PAUSE_MS);
}

scope.onmessage = ({ data }) => {
  clearTimeout(timer);
  if ('job' in data) round = 0;
  // for whoever looks at a trace: what the thread worked in between
  performance.clearMarks();
  performance.mark('plan asked');
  const planned = answer(data);
  performance.mark('plan made');
  scope.postMessage(planned);
  if (performance.now() - checkedAt > UNCHECKED_MS) checkPlan();
  else timer = setTimeout(checkPlan, ASKS_AGAIN_MS);
};
