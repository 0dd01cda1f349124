/** Starts the built application. Settings come from `RETEXA_…` in the environment; see the README. */
import { setFlagsFromString } from 'node:v8';

// The heap may grow by so much of what lives in it before it is looked through: by itself it grows to several times that, of
// which nothing is given back.
setFlagsFromString('--heap-growing-percent=40');

const host = process.env.RETEXA_HOST ?? '127.0.0.1';
const port = process.env.RETEXA_PORT ?? '5180';
process.env.HOST = host;
process.env.PORT = port;
process.env.ORIGIN = process.env.RETEXA_ORIGIN ?? `http://${host}:${port}`;
// How much is taken is told in words by the application itself.
process.env.BODY_SIZE_LIMIT = 'Infinity';
// Requests under way are given so long to be finished when the server is told to end.
process.env.SHUTDOWN_TIMEOUT ??= '5';
await import('../build/index.js');
console.log(`Retexa is at ${process.env.ORIGIN}`);
