import { pino } from 'pino';

/** Structured logs: one JSON object a line, on standard output. HARROW_LOG sets the level. */
export const log = pino({ level: process.env.HARROW_LOG ?? 'info', base: undefined });
