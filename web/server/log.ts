import pino from 'pino';

/** One JSON line an event on standard error, so that standard output stays the start command's. */
export const log = pino(
  { name: 'wattograph', level: process.env.LOG_LEVEL ?? 'info', base: null, timestamp: pino.stdTimeFunctions.isoTime },
  pino.destination(2),
);
