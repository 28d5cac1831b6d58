/** Path under which this installation is served, as `/loom`; empty: at the root of its name. */
const BASE = process.env.WATTOGRAPH_BASE ?? '';

/** The address of a path of the application, for all that does not go through its router. */
export const toUrl = (path: string): string => `${BASE}${path}`;
