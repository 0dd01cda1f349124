import pino from 'pino';

/** The server's logger: one JSON line an event on standard error. */
export const log = pino({ level: process.env.RETEXA_LOG ?? 'info' }, pino.destination(2));
