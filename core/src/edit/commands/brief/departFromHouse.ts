import { createCommand, type Command } from '../command';

/** The job answers a question of the house style otherwise; side null: as the house does. words: the question, as the history says it. */
export const departFromHouse = (questionId: string, words: string, departure: { side: number; reason: string } | null): Command =>
  createCommand(departure === null ? `${words}: as the house does` : `${words}: departs`, (draft) => {
    if (departure === null) delete draft.brief.departures[questionId];
    else draft.brief.departures[questionId] = departure;
  });
