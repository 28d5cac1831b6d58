import type { Person } from '../server/accounts/rights';

/** Who works at the pages of the tests, where nothing else is said. */
export const IMKE: Person = { id: 'imke', name: 'Imke Dorsey', role: 'owner', jobId: null };
export const TOBIN: Person = { id: 'tobin', name: 'Tobin Ashgrove', role: 'crew', jobId: null };
