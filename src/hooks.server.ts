import { randomBytes } from 'node:crypto';
import { dev } from '$app/environment';
import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { defaultContext, knownContext } from '$lib/server/access/context';
import { answering } from '$lib/server/access/events';
import { database, readingDatabase } from '$lib/server/db/open';
import { endWithProcess } from '$lib/server/ending';
import { checkAsking } from '$lib/server/http/who-asks';
import { log } from '$lib/server/log';
import { findProject } from '$lib/server/projects';
import { Refusal } from '$lib/server/access/refusal';
import { start } from '$lib/server/start';
import { PROJECT_COOKIE, refused } from './routes/answer';

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
  // long work gets through, while a transaction is under way. A handler that changes declares it (`changes`).
  const [db, aside] = [await database(), await readingDatabase()];
  const who = (await knownContext(aside)) ?? (await defaultContext(db));
  event.locals.ctx = { ...who, db: aside, writes: db };
  event.locals.changing = { ...who, db };
  const chosen = event.cookies.get(PROJECT_COOKIE);
  if (chosen && (await findProject(event.locals.ctx, chosen))) event.locals.projectId = chosen;
  const page = event.request.headers.get('x-page')?.slice(0, 40);
  const { answer: response, changed } = await answering(page, async () => resolve(event));
  if (changed.length) response.headers.set('x-changed', changed.join(' '));
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
