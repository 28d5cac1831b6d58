import type { FindingsAnswer, PlanAnswer, PlanRequest, PlanSession } from './planSession';

/** lengths tried after a job was opened, one at a time while nothing is asked for */
export const REHEARSALS = 24;
/** where one takes longer it would keep a person waiting; the first ones, of code that never ran, take longer everywhere */
const LONGEST_MS = 120;
const COLD = 12;
const LONGEST_COLD_MS = 300;
/** the very first two are tried whatever they take */
const COLDEST = 2;
const PAUSE_MS = 20;
/** so long a drag goes on without findings: its next plan comes first */
const UNCHECKED_MS = 250;
/** within which the page asks again where it has something waiting */
const ASKS_AGAIN_MS = 10;

/**
 * What the plan worker does with its one thread: what is asked for first, then what is found in it, then, while nothing is asked, rehearsals.
 * post: tells the page; clock: ms. Returns what takes a question of the page.
 */
export function createPlanLoop(
  { answer, check, rehearse }: PlanSession,
  post: (told: PlanAnswer | FindingsAnswer) => void,
  clock: () => number,
): (request: PlanRequest) => void {
  let round = REHEARSALS;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let checkedAt = -Infinity;

  function goOn(): void {
    if (round < REHEARSALS) timer = setTimeout(rehearseNext, PAUSE_MS);
  }

  function rehearseNext(): void {
    const started = clock();
    round += 1;
    const longestMs = round <= COLDEST ? Infinity : round <= COLD ? LONGEST_COLD_MS : LONGEST_MS;
    if (!rehearse(round - 1) || clock() - started > longestMs) round = REHEARSALS;
    goOn();
  }

  function checkPlan(): void {
    const found = check();
    checkedAt = clock();
    if (found) post(found);
    goOn();
  }

  return (request) => {
    clearTimeout(timer);
    if ('job' in request) round = 0;
    post(answer(request));
    if (clock() - checkedAt > UNCHECKED_MS) checkPlan();
    else timer = setTimeout(checkPlan, ASKS_AGAIN_MS);
  };
}
