import { createOpenItem, type Anchor, type AnchorState, type Job, type OpenItem } from '../../../model';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

export const addOpenItem = (question: string, kind: OpenItem['kind'], owner: string): Command =>
  createCommand(`open item: ${question}`, (draft) => {
    draft.openItems[createId(draft.openItems, 'q')] = createOpenItem(question, { kind, owner });
  });

const change = (id: string, label: string, part: (item: OpenItem, draft: Job) => Partial<OpenItem>): Command =>
  createCommand(label, (draft) => void Object.assign(draft.openItems[id]!, part(draft.openItems[id]!, draft)));

const WORDS = {
  blocks: 'what an open item blocks',
  stops: 'what an open item stops',
  owner: 'owner',
  due: 'due',
  atVisit: 'where it is answered',
  evidence: 'evidence',
} as const;

export const setOpenItem = <Key extends keyof typeof WORDS>(id: string, key: Key, value: OpenItem[Key]): Command =>
  change(id, WORDS[key], () => ({ [key]: value }));

/** Where on the looms an anchor lies. of: what it is called. */
export const placeAnchor = (id: string, of: string, nodes: Anchor['nodes']): Command =>
  createCommand(`where ${of} lies`, (draft) => void (draft.anchors[id]!.nodes = nodes));

export const settleAnchor = (id: string, of: string, state: AnchorState, by: string): Command =>
  createCommand(
    `${of} ${state === 'not-here' ? 'not part of this job' : state}`,
    (draft) => void Object.assign(draft.anchors[id]!, { state, by }),
  );

/** An answer frees no wire before somebody says how it is known: until then it is a guess. Empty: it is open again. */
export const answerOpenItem = (id: string, answer: string, by: string): Command =>
  answer === ''
    ? change(id, 'open again', () => ({ answer: null, evidence: null, answeredBy: '' }))
    : change(id, 'answer', ({ evidence }) => ({ answer, evidence: evidence ?? 'guessed', answeredBy: by }));

export const strikeOpenItem = (id: string): Command => createCommand('strike an open item off', (draft) => void delete draft.openItems[id]);
