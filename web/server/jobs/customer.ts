import { today } from '../../client/today';
import { answerOpenItem, createCommand, editDocument, measureProgress, type Job, type OpenItem } from 'wattograph-core';
import type { Person } from '../accounts/rights';
import { readJob, takeEditOf } from '../documents';
import { listFrozen, readFrozen } from '../frozen';
import { Refusal } from '../refusal';
import { listFloorEvents, listReleases, readCarried } from '../releases';

/** Something that the shop asks the customer. */
export interface Asked {
  id: string;
  question: string;
  /** needed by; null: no day said */
  due: string | null;
  isLate: boolean;
  /** does work wait for it? */
  isHolding: boolean;
  answer: string | null;
  answeredBy: string;
}

/** How far a loom is, in the customer's words. */
export interface LoomStanding {
  id: string;
  name: string;
  ends: number;
  /** of its runs, how many are measured at the vehicle */
  runs: number;
  measured: number;
  /** of the pieces of work of the newest revision, how many are done; null: nothing is released yet */
  work: { revision: number; of: number; done: number } | null;
}

/** What a customer sees of a job: no prices, findings, parts or notes of the shop. */
export interface CustomerView {
  id: string;
  name: string;
  vehicle: string;
  customer: string;
  promisedOn: string | null;
  agreed: { on: string; devices: string[] } | null;
  looms: LoomStanding[];
  asked: Asked[];
}

/** Is an item put to the customer? By the name of the customer in the job, or that of who signs in for them. */
const isAsked = ({ owner }: OpenItem, { customer }: Job, names: readonly string[]): boolean =>
  owner !== '' && (owner === customer || names.includes(owner));

export async function readCustomerView(jobId: string, person: Person): Promise<CustomerView> {
  const { document } = await readJob(jobId, '');
  const newest = (await listReleases(jobId)).at(-1)?.number ?? null;
  const events = newest === null ? [] : await listFloorEvents(jobId, newest);
  const frozen = new Set(newest === null ? [] : (await listFrozen(jobId, newest)).map(({ loomId }) => loomId));
  const looms: LoomStanding[] = [];
  for (const [id, loom] of Object.entries(document.looms)) {
    const segments = Object.values(loom.segments);
    looms.push({
      ...{ id, name: loom.name, ends: Object.keys(loom.ends).length },
      runs: segments.length,
      measured: segments.filter(({ status }) => status !== 'guessed').length,
      work: newest !== null && frozen.has(id) ? await measureWork(jobId, newest, id, events) : null,
    });
  }
  const names = person.role === 'customer' ? [person.name] : [];
  return {
    ...{
      id: jobId,
      name: document.name,
      vehicle: document.brief.vehicle,
      customer: document.customer,
      promisedOn: document.brief.promisedOn,
    },
    agreed: document.brief.agreed && {
      on: document.brief.agreed.on,
      devices: document.brief.agreed.deviceIds.flatMap((id) => document.devices[id]?.name ?? []),
    },
    looms,
    asked: Object.entries(document.openItems)
      .filter(([, item]) => item.kind === 'question' && isAsked(item, document, names))
      .map(([id, item]) => ({
        ...{ id, question: item.question, due: item.due, answer: item.answer, answeredBy: item.answeredBy },
        isLate: item.answer === null && item.due !== null && item.due < today(),
        isHolding: item.answer === null && item.blocks.length > 0,
      })),
  };
}

async function measureWork(
  jobId: string,
  number: number,
  loomId: string,
  events: Awaited<ReturnType<typeof listFloorEvents>>,
): Promise<LoomStanding['work']> {
  const [{ build }, carried] = await Promise.all([readFrozen(jobId, number, loomId), readCarried(jobId, number, loomId)]);
  const progress = measureProgress(
    build.steps,
    events.filter((event) => event.loomId === loomId),
    carried,
  );
  let [of, done] = [0, 0];
  for (const { id, items } of build.steps) {
    const { ticked, failed } = progress.get(id)!;
    of += items.length;
    done += items.filter((item) => ticked.has(item.id) && !failed.has(item.id)).length;
  }
  return { revision: number, of, done };
}

/** Answer what the shop asked; what somebody else has answered stays. The same id again counts once. */
export async function answerAsked(
  jobId: string,
  { id, item, answer }: { id: string; item: string; answer: string },
  person: Person,
): Promise<void> {
  await takeEditOf(jobId, { id, author: person.name, about: { item, answer } }, (document) => {
    const open = Object.hasOwn(document.openItems, item) ? document.openItems[item] : undefined;
    const names = person.role === 'customer' ? [person.name] : [];
    if (!open || open.kind !== 'question' || !isAsked(open, document, names))
      throw Refusal.at(404, 'item', 'This is not asked, or not any more.');
    if (open.answer !== null && open.answeredBy !== person.name)
      throw Refusal.at(409, 'item', `${open.answeredBy || 'Somebody'} has answered it: “${open.answer}”. Tell the shop if that is not so.`);
    const label = `answer: ${open.question}`;
    const told = createCommand(label, (draft) => {
      answerOpenItem(item, answer, person.name).apply(draft);
      // said by who must know: no guess
      draft.openItems[item]!.evidence = 'told';
    });
    return { label: told.label, patch: editDocument(document, told.apply).patch };
  });
}
