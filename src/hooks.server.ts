import { randomBytes } from 'node:crypto';
import { dev } from '$app/environment';
import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { defaultContext, knownContext } from '$lib/server/context';
import { database, readingDatabase } from '$lib/server/db/open';
import { endWithProcess } from '$lib/server/ending';
import { checkAsking } from '$lib/server/http/who-asks';
import { log } from '$lib/server/log';
import { findProject } from '$lib/server/repositories/projects';
import { Refusal } from '$lib/server/refusal';
import { start } from '$lib/server/start';
import { PROJECT_COOKIE, refused } from './routes/answer';

/** What is asked by POST for the length of the question, and changes nothing. */
const QUESTIONS = new Set([
  '/api/cited',
  '/api/citations',
  '/api/export',
  '/api/printed',
  '/api/references',
  '/api/sources/[id]/preview',
]);

export const init: ServerInit = () => {
  // While developing, the tool that serves ends the process.
  if (!dev) endWithProcess();
};

/** Resolves who asks, in which library, and which project is chosen: the one place that does. */
export const handle: Handle = async ({ event, resolve }) => {
  try {
    checkAsking(event.request);
  } catch (e) {
    if (e instanceof Refusal) return refused(e);
    throw e;
  }
  await start();
  // What only reads, and who asks, is read beside the connection that writes: pages are answered, and a request to stop
  // long work gets through, while a long transaction is under way.
  const [db, aside] = [await database(), await readingDatabase()];
  const known = await knownContext(aside);
  const { method } = event.request;
  const reads = method === 'GET' || method === 'HEAD' || QUESTIONS.has(event.route.id ?? '');
  const connections = reads ? { db: aside, writes: db } : { db };
  event.locals.ctx = known ? { ...known, ...connections } : await defaultContext(db);
  const chosen = event.cookies.get(PROJECT_COOKIE);
  if (chosen && (await findProject({ ...event.locals.ctx, db: aside }, chosen)))
    event.locals.projectId = chosen;
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  return response;
};

/** A request that fails for a reason nobody foresaw: one line in the log, and its id on the page. */
export const handleError: HandleServerError = ({ error, event, status, message }) => {
  if (status === 404) return { message: 'There is no page at this address.' };
  const id = randomBytes(4).toString('hex');
  log.error({ id, method: event.request.method, path: event.url.pathname, err: error }, message);
  return { message: 'Something went wrong inside Retexa. What you had saved is safe.', id };
};
