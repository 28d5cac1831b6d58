/** What whoever plans says to a problem that the floor tells (craft D4). */
export const PROBLEM_ANSWERS = ['carry-on', 'redo', 'change', 'concession'] as const;
export type ProblemAnswer = (typeof PROBLEM_ANSWERS)[number];

export const isAnswer = (words: string): words is ProblemAnswer => (PROBLEM_ANSWERS as readonly string[]).includes(words);

/** As the step says it, before the words of whoever answers. */
export const ANSWER_WORDS: Readonly<Record<ProblemAnswer, string>> = {
  'carry-on': 'Carry on',
  redo: 'Do it over',
  change: 'It is changed: wait for the next revision',
  concession: 'Let pass',
};
