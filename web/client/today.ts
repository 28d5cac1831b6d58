/** The day by this machine's clock, as in 2026-11-25. */
export const today = (): string => new Date().toISOString().slice(0, 10);
