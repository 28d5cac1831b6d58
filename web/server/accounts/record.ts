import type { Database } from '../database';
import { audit } from '../schema';

/** Keep who decided what: rights, releases, signatures, jobs deleted. */
export const record = (tx: Pick<Database, 'insert'>, person: string, what: string, about: string) =>
  tx.insert(audit).values({ person, what, about });
