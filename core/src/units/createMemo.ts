import { createMemory, type Memory } from './createMemory';

/** A step of a computation with all that it reads: two runs whose inputs are the same objects give the same. */
export interface Stage<From, Result> {
  name: string;
  /** results kept for each id */
  keep: number;
  /** every object and figure that the run depends on */
  inputs: (from: From) => readonly unknown[];
  run: (from: From) => Result;
}

/** Runs stages, or gives what they came to with the same inputs. id: of what is worked on, as a loom. */
export type Memo = <From, Result>(stage: Stage<From, Result>, id: string, from: From) => Result;

/** A list that stays the same object as long as what is in it does, so that what was made of it is found. */
export const createListStage = <T>(name: string): Stage<readonly T[], readonly T[]> => ({
  name,
  keep: 8,
  inputs: (list) => list,
  run: (list) => list,
});

/** One memory for many stages. It is never more than a shortcut. */
export function createMemo(): Memo {
  const memories = new Map<string, Memory<unknown>>();
  return <From, Result>(stage: Stage<From, Result>, id: string, from: From): Result => {
    let memory = memories.get(stage.name);
    if (!memory) memories.set(stage.name, (memory = createMemory<unknown>(stage.keep)));
    return memory(id, stage.inputs(from), () => stage.run(from)) as Result;
  };
}
