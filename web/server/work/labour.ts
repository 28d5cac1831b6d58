import { constants, setPriority } from 'node:os';
import { countLine } from '../jobSummaries';
import { log } from '../log';
import { becomeWorker } from './queue';
import { doStoredTask } from './storedTask';

/** A piece of work for a process of its own. */
export type Labour = { kind: 'task' | 'line'; id: string };

becomeWorker();
// who ticks or edits comes first, then who waits for sheets, then the wall
setPriority(process.argv[2] === 'line' ? constants.priority.PRIORITY_LOW : constants.priority.PRIORITY_BELOW_NORMAL);
process.on('disconnect', () => process.exit(0));
// it waits for work for as long as its parent is there
process.channel?.ref();
/** A parent that is gone hears nothing: what was asked for is asked for again by the next one. */
const answer = (message: { done: true } | { failed: string }): void => {
  process.send!(message, undefined, undefined, (error) => {
    if (error) process.exit(0);
  });
};
process.on('message', ({ kind, id }: Labour) => {
  void (kind === 'task' ? doStoredTask(id) : countLine(id)).then(
    () => answer({ done: true }),
    (error: unknown) => answer({ failed: error instanceof Error ? error.message : String(error) }),
  );
});
log.debug('labour ready');
