import { toPresentFormat, type Job } from 'wattograph-core';

/** A stored document in the present format: it may have been stored by an older Wattograph. */
export const toPresent = (document: Job): Job => toPresentFormat(document as unknown as Record<string, unknown>) as unknown as Job;
