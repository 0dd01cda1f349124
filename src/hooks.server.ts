import { randomBytes } from 'node:crypto';
import {
  redirect,
  type Handle,
  type HandleServerError,
  type RequestEvent,
  type ServerInit,
} from '@sveltejs/kit';
import { dev } from '$app/environment';
import {
  contextFor,
  defaultContext,
  knownContext,
  makeLibrary,
  type Context,
} from '$lib/server/access/context';
import { answering } from '$lib/server/access/events';
import { Refusal } from '$lib/server/access/refusal';
import {
  accountsThere,
  askerOf,
  atMostWith,
  secretToSetUp,
  tokenReaches,
  type Asker,
} from '$lib/server/accounts';
import { keepBackups } from '$lib/server/backup';
import { database, readingDatabase } from '$lib/server/db/open';
import { endWithProcess } from '$lib/server/ending';
import { noteAnswer } from '$lib/server/http/metrics';
import { checkAsking } from '$lib/server/http/who-asks';
import { log } from '$lib/server/log';
import { findProject } from '$lib/server/projects';
import { start } from '$lib/server/start';
import { LIBRARY_COOKIE, PROJECT_COOKIE, refused, SESSION_COOKIE } from './routes/answer';
import { isOpen } from './routes/open';

export const init: ServerInit = async () => {
  // While developing, the tool that serves ends the process, and listens to this machine.
  if (dev) return;
  endWithProcess();
  process.env.HOST ??= '0.0.0.0';
  keepBackups();
  const secret = await secretToSetUp(await database());
  if (secret)
    console.log(
      `Nobody has an account yet. Open /set-up and give this secret to make the first one:\n  ${secret}`,
    );
};

/** The context of who asks; nothing where they are in no library. */
async function contextOfAsker(event: RequestEvent, asker: Asker): Promise<Context> {
  const [db, aside] = [await database(), await readingDatabase()];
  const chosen = event.cookies.get(LIBRARY_COOKIE);
  if (asker.kind === 'alone') return (await knownContext(aside, chosen)) ?? (await defaultContext(db));
  const { personId } = asker;
  if (asker.kind === 'token') {
    const ctx = await contextFor(aside, personId, asker.libraryId, atMostWith(asker));
    if (ctx?.libraryId !== asker.libraryId) throw new Refusal(401, 'This token opens nothing any more.');
    return ctx;
  }
  const known = await contextFor(aside, personId, chosen);
  if (known) return known;
  // Who was taken out of the only library they were in has one of their own from then on.
  await db.transaction((trx) => makeLibrary(trx, personId, 'My library'));
  return (await contextFor(db, personId))!;
}

/** What is answered to who must sign in first: the way there to a browser that goes to a page, words to all else. */
async function atTheDoor(event: RequestEvent): Promise<Response> {
  const { url, request } = event;
  const navigates = request.method === 'GET' && !url.pathname.startsWith('/api/');
  if (navigates && request.headers.get('authorization') === null) {
    const there = await accountsThere(await readingDatabase());
    const to = url.pathname === '/' ? '' : `?to=${encodeURIComponent(url.pathname + url.search)}`;
    redirect(303, there ? `/sign-in${to}` : '/set-up');
  }
  return refused(
    new Refusal(401, 'You are signed out. Sign in again in another tab; what you typed here is still here.'),
  );
}

/** What the page of an error says in its head. */
const STATUS = /<meta name="retexa-status" content="(\d{3})"/;

/** Answers, with the status of the error where there is one: SvelteKit leaves it out of a page that has more behind it. */
async function answered(event: RequestEvent, resolve: Parameters<Handle>[0]['resolve']): Promise<Response> {
  let status: string | undefined;
  const response = await resolve(event, {
    transformPageChunk({ html }) {
      status ??= STATUS.exec(html.slice(0, html.indexOf('</head>')))?.[1];
      return html;
    },
  });
  if (!status || response.status !== 200) return response;
  return new Response(response.body, { status: Number(status), headers: response.headers });
}

/** Resolves who asks, in which library, and which project is chosen: the one place that does. */
export const handle: Handle = async ({ event, resolve }) => {
  const { request, url, locals, cookies } = event;
  try {
    checkAsking(request);
  } catch (e) {
    if (e instanceof Refusal) return refused(e);
    throw e;
  }
  await start();
  // What only reads, and who asks, is read beside the connection that writes: pages are answered, and a request to stop
  // long work gets through, while a transaction is under way. A handler that changes declares it (`changes`).
  const [db, aside] = [await database(), await readingDatabase()];
  locals.db = db;
  const asker = await askerOf(aside, db, {
    cookie: cookies.get(SESSION_COOKIE),
    authorization: request.headers.get('authorization'),
  });
  if (asker) locals.asker = asker;
  if (!isOpen(event.route.id)) {
    if (!asker) return atTheDoor(event);
    try {
      if (asker.kind === 'token' && !tokenReaches(asker, url.pathname))
        throw new Refusal(403, 'This token does not reach so far. It is for capturing only.');
      const who = await contextOfAsker(event, asker);
      locals.ctx = { ...who, db: aside, writes: db };
      locals.changing = { ...who, db };
    } catch (e) {
      if (e instanceof Refusal) return refused(e);
      throw e;
    }
    const chosen = cookies.get(PROJECT_COOKIE);
    if (chosen && (await findProject(locals.ctx, chosen))) locals.projectId = chosen;
  }
  const page = request.headers.get('x-page')?.slice(0, 40);
  const begun = performance.now();
  const { answer: response, changed } = await answering(page, async () => answered(event, resolve));
  noteAnswer(response.status, (performance.now() - begun) / 1_000);
  if (changed.length) response.headers.set('x-changed', changed.join(' '));
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  return response;
};

/** What is said of a request that is wrong in itself, by its status. */
const ASKED_WRONG: Record<number, string> = {
  400: 'This address cannot be read.',
  404: 'There is no page at this address.',
  405: 'Nothing can be sent to this address.',
};

/** A request that fails for a reason nobody foresaw: one line in the log, and its id on the page. What was asked wrong is answered alone. */
export const handleError: HandleServerError = ({ error, event, status, message }) => {
  if (status < 500) return { message: ASKED_WRONG[status] ?? message };
  const id = randomBytes(4).toString('hex');
  log.error({ id, method: event.request.method, path: event.url.pathname, err: error }, message);
  return { message: 'Something went wrong inside Retexa. What you had saved is safe.', id };
};
