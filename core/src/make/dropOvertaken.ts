/** A tick or what takes it back, with what its device knew when it was made. */
export interface SeenTick {
  /** left out where all are of one loom */
  loomId?: string;
  stepId: string;
  itemId: string;
  kind: string;
  /** which came first to the server; null: not there yet */
  serial?: number | null;
  /** the device that made it; null: one that does not say */
  device?: string | null;
  /** serial of the last event that the device knew of; null: it does not say */
  after?: number | null;
}

/**
 * What counts of ticks that came in any order, no device's clock asked: a tick whose device had not heard that another one had opened the item
 * again does not close it. Of two that did not know of each other the one that asks for work wins, for work done twice hurts nobody.
 * @param events in the order of their serials, those that are not at the server yet last
 */
export function dropOvertaken<T extends SeenTick>(events: readonly T[]): T[] {
  const opened = new Map<string, T[]>();
  return events.filter((event) => {
    const key = `${event.loomId ?? ''} ${event.stepId} ${event.itemId}`;
    if (event.kind === 'untick') opened.set(key, [...(opened.get(key) ?? []), event]);
    if (event.kind !== 'tick' || event.after === undefined || event.after === null) return true;
    const known = event.after;
    return !opened.get(key)?.some(({ serial, device }) => (serial ?? 0) > known && device !== event.device);
  });
}
