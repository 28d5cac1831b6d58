import type { Catalogue, ShopStandard } from '../../../catalogue';
import { changeDocument, STATUS_OF_METHOD, type Job, type Loom, type Segment, type SurveyEntry } from '../../../model';
import { createTree, toClockWords, type Tree } from '../../../plan';
import { checkMark, writeMark } from './writeMark';

/** What an entry came to: a new document, or what stands against it. canForce: it can be put on top all the same. */
export type AppliedEntry = { kind: 'taken'; job: Job } | { kind: 'conflict'; theirs: string; canForce: boolean };

type Kind = SurveyEntry['kind'];
type EntryOf<K extends Kind> = Extract<SurveyEntry, { kind: K }>;
interface Against {
  theirs: string;
  canForce: boolean;
}
interface Context {
  loom: Loom;
  tree: Tree;
  catalogue: Catalogue;
}
interface Handler<K extends Kind> {
  /** what stands against it, or null */
  meet(job: Job, entry: EntryOf<K>, context: Context): Against | null;
  write(job: Job, entry: EntryOf<K>, context: Context, isForced: boolean): void;
}

const gone = (what: string): Against => ({ theirs: `${what} is no longer there`, canForce: false });
const same = (a: readonly string[], b: readonly string[]) => [...a].sort().join() === [...b].sort().join();

/** A handler that is about one run: gone where the run is gone. */
const ofRun = <E extends { segmentId: string; loomId: string }>(
  meet: (segment: Segment, entry: E) => Against | null,
  write: (segment: Segment, entry: E) => Segment,
) => ({
  meet: (_job: Job, entry: E, { loom }: Context): Against | null => {
    const segment = loom.segments[entry.segmentId];
    return segment ? meet(segment, entry) : gone('the run');
  },
  write: (job: Job, entry: E, { loom }: Context): void => {
    job.looms[entry.loomId]!.segments[entry.segmentId] = write(loom.segments[entry.segmentId]!, entry);
  },
});

const HANDLERS: { [K in Kind]: Handler<K> } = {
  mark: {
    meet: (_job, entry, { loom, tree }) => checkMark(loom, tree, entry),
    write: (job, entry, { tree, catalogue }, isForced) => writeMark(job, entry, tree, catalogue, isForced),
  },
  reading: ofRun<EntryOf<'reading'>>(
    (segment, { seen, lengthMm }) =>
      (segment.lengthMm === seen.lengthMm && segment.secondLengthMm === seen.secondLengthMm) || segment.lengthMm === lengthMm
        ? null
        : {
            theirs: `${[segment.lengthMm, segment.secondLengthMm].filter((mm) => mm !== null).join(' and ')} mm stands there`,
            canForce: true,
          },
    (segment, { lengthMm, method }) =>
      // a reading takes the place of a guess; of a reading it is the second
      segment.method === 'estimate'
        ? {
            ...segment,
            lengthMm,
            secondLengthMm: null,
            method,
            status: segment.fittedMm === null ? STATUS_OF_METHOD[method] : segment.status,
          }
        : { ...segment, secondLengthMm: lengthMm },
  ),
  fitted: ofRun<EntryOf<'fitted'>>(
    (segment, { seen, fittedMm }) =>
      segment.fittedMm === seen || segment.fittedMm === fittedMm
        ? null
        : { theirs: `fitted at ${segment.fittedMm ?? 'no length'} mm`, canForce: true },
    (segment, { fittedMm }) => ({ ...segment, fittedMm, status: 'fitted' }),
  ),
  ticks: ofRun<EntryOf<'ticks'>>(
    (segment, { seen, ticks }) =>
      same(segment.ticks, seen) || same(segment.ticks, ticks)
        ? null
        : { theirs: `ticked ${segment.ticks.join(', ') || 'nothing'}`, canForce: true },
    (segment, { ticks }) => ({ ...segment, ticks: [...new Set(ticks)] }),
  ),
  side: ofRun<EntryOf<'side'>>(
    (segment, { seen, leavesDeg }) =>
      segment.leavesDeg === seen || segment.leavesDeg === leavesDeg
        ? null
        : { theirs: segment.leavesDeg === null ? 'its side is not known' : `leaves at ${toClockWords(segment.leavesDeg)}`, canForce: true },
    (segment, { leavesDeg }) => ({ ...segment, leavesDeg }),
  ),
  anchor: {
    meet: (job, { anchorId, seen, state }) => {
      const anchor = job.anchors[anchorId];
      if (!anchor) return gone('the anchor');
      return anchor.state === seen || anchor.state === state
        ? null
        : { theirs: `${anchor.name}: ${anchor.state}, ${anchor.place || 'no place given'}`, canForce: true };
    },
    write: (job, { anchorId, state, place, author }) => {
      job.anchors[anchorId] = { ...job.anchors[anchorId]!, state, place, by: author };
    },
  },
  datum: {
    meet: (_job, { seen, name }, { loom, tree }) => {
      const now = loom.nodes[tree.datumId]!.name;
      return now === seen || now === name ? null : { theirs: `the datum is ${now}`, canForce: true };
    },
    write: (job, { loomId, name }, { tree }) => {
      job.looms[loomId]!.nodes[tree.datumId]!.name = name;
    },
  },
  clamp: {
    meet: () => null,
    write: (job, { loomId, clamped, author }) => {
      job.looms[loomId]!.clampedBy = clamped ? author : null;
    },
  },
  answer: {
    meet: (job, { itemId, seen, answer }) => {
      const item = job.openItems[itemId];
      if (!item) return gone('the question');
      return item.answer === seen || item.answer === answer
        ? null
        : { theirs: `answered "${item.answer ?? 'nothing'}" (${item.answeredBy})`, canForce: true };
    },
    write: (job, { itemId, answer, evidence, author }) => {
      job.openItems[itemId] = { ...job.openItems[itemId]!, answer, evidence, answeredBy: author };
    },
  },
  ask: {
    meet: (job, { itemId }) =>
      Object.hasOwn(job.openItems, itemId) ? { theirs: 'a question with this id is there already', canForce: false } : null,
    write: (job, { itemId, question, blocks, author }) => {
      job.openItems[itemId] = {
        kind: 'question',
        question,
        blocks,
        owner: author,
        due: null,
        atVisit: true,
        answer: null,
        stops: 'cut',
        evidence: null,
        answeredBy: '',
      };
    },
  },
};

/**
 * Take one entry of a survey into the job, or say what stands against it. Pure: the job given stays as it is. isForced: put
 * it on top of what stands there, where that can be done.
 */
export function applySurveyEntry(
  job: Job,
  entry: SurveyEntry,
  catalogue: Catalogue,
  standard: ShopStandard,
  isForced = false,
): AppliedEntry {
  const loom = job.looms[entry.loomId];
  if (!loom) return { kind: 'conflict', ...gone('the loom') };
  const context: Context = { loom, tree: createTree(loom, standard), catalogue };
  const handler = HANDLERS[entry.kind] as Handler<Kind>;
  const against = handler.meet(job, entry, context);
  if (against && !(isForced && against.canForce)) return { kind: 'conflict', ...against };
  return { kind: 'taken', job: changeDocument(job, (draft) => handler.write(draft, entry, context, isForced)) };
}
