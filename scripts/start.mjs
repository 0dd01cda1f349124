/** Starts the built application. Settings come from `RETEXA_…` in the environment; see the README. */
const host = process.env.RETEXA_HOST ?? '127.0.0.1';
const port = process.env.RETEXA_PORT ?? '5180';
process.env.HOST = host;
process.env.PORT = port;
process.env.ORIGIN = process.env.RETEXA_ORIGIN ?? `http://${host}:${port}`;
process.env.BODY_SIZE_LIMIT = process.env.RETEXA_BODY_LIMIT ?? '48M';
await import('../build/index.js');
console.log(`Retexa is at ${process.env.ORIGIN}`);
