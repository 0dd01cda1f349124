import { error, json, type RequestEvent, type RequestHandler } from '@sveltejs/kit';
import type { z } from 'zod';
import type { Context } from '$lib/server/access/context';
import type { From, Signed } from '$lib/server/accounts';
import { config } from '$lib/server/config';
import { bodyOf, parsedJson } from '$lib/server/http/bodies';
import { MOST_BYTES, MOST_JSON } from '$lib/server/limits';
import { Refusal } from '$lib/server/access/refusal';

export const PROJECT_COOKIE = 'retexa-project';
export const LIBRARY_COOKIE = 'retexa-library';
export const SESSION_COOKIE = 'retexa-session';

/** Turns a Refusal into Kit's error, for loads and for handlers that do not answer JSON; others pass through. */
export async function orRefuse<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (e) {
    if (e instanceof Refusal) error(e.status, { message: e.message, details: e.details });
    throw e;
  }
}

/** A JSON answer to a Refusal. */
export function refused(e: Refusal): Response {
  return json({ message: e.message, details: e.details, code: e.code }, { status: e.status });
}

/** A value the request gives, held against its schema; refuses with a line for each problem. */
function checked<S extends z.ZodType>(schema: S, raw: unknown): z.infer<S> {
  const given = schema.safeParse(raw);
  if (given.success) return given.data;
  const details = given.error.issues.map((i) => `${i.path.join(' › ') || 'body'}: ${i.message}`);
  throw new Refusal(422, 'The request could not be understood:', details);
}

/** A value in JSON in the request's address, such as what goes with a file that is the body. */
export const inAddress = <S extends z.ZodType>(url: URL, name: string, schema: S): z.infer<S> =>
  checked(schema, parsedJson(url.searchParams.get(name) ?? '{}').value);

async function refusing(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (e) {
    if (e instanceof Refusal) return refused(e);
    throw e;
  }
}

/** Told in an answer when characters were taken out of what was sent. */
const TAKEN_OUT = 'x-taken-out';

/** An answer of JSON that was written down already, in a thread of its own. */
const written = (bytes: Uint8Array, headers: Record<string, string>): Response =>
  new Response(bytes as Uint8Array<ArrayBuffer>, {
    headers: { 'content-type': 'application/json', ...headers },
  });

const handler =
  <S extends z.ZodType, T>(
    schema: S,
    as: (event: RequestEvent) => Context,
    work: (body: z.infer<S>, ctx: Context, event: RequestEvent) => Promise<T>,
  ): RequestHandler =>
  (event) =>
    refusing(async () => {
      const bytes = await bodyOf(event.request, /^application\/json$/, MOST_JSON);
      const { value, takenOut } = parsedJson(new TextDecoder().decode(bytes));
      const result = (await work(checked(schema, value), as(event), event)) ?? {};
      const headers: Record<string, string> = takenOut ? { [TAKEN_OUT]: 'characters' } : {};
      return result instanceof Uint8Array ? written(result, headers) : json(result, { headers });
    });

/**
 * A handler that asks: it validates a JSON body, calls `work` with a context that can only read, and answers JSON. It is
 * answered beside whatever is being written.
 */
export const asks = <S extends z.ZodType, T>(
  schema: S,
  work: (body: z.infer<S>, ctx: Context, event: RequestEvent) => Promise<T>,
): RequestHandler => handler(schema, ({ locals }) => locals.ctx, work);

/** The context of a request that changes; what it says it is sent as is taken once. */
function changing({ locals, request }: RequestEvent): Context {
  const id = request.headers.get('x-once');
  return id && /^[\w-]{8,60}$/.test(id) ? { ...locals.changing, once: { id, used: false } } : locals.changing;
}

/** A handler that changes: the same, with a context that can write. */
export const changes = <S extends z.ZodType, T>(
  schema: S,
  work: (body: z.infer<S>, ctx: Context, event: RequestEvent) => Promise<T>,
): RequestHandler => handler(schema, changing, work);

/** Most bytes of what somebody says at the door. */
const MOST_AT_DOOR = 20_000;

/** A handler at the door: it is answered to everybody, knows of no library, and takes little. */
export const opens =
  <S extends z.ZodType, T>(
    schema: S,
    work: (body: z.infer<S>, event: RequestEvent) => Promise<T>,
  ): RequestHandler =>
  (event) =>
    refusing(async () => {
      const bytes = await bodyOf(event.request, /^application\/json$/, MOST_AT_DOOR);
      const { value } = parsedJson(new TextDecoder().decode(bytes));
      return json((await work(checked(schema, value), event)) ?? {});
    });

/** A handler of somebody's own account: for who signed in, and no program. */
export const ofOneself = <S extends z.ZodType, T>(
  schema: S,
  work: (body: z.infer<S>, who: Signed, event: RequestEvent) => Promise<T>,
): RequestHandler => opens(schema, (body, event) => work(body, signedIn(event.locals), event));

/** Who signed in; refuses a program, and who works alone. */
export function signedIn({ asker }: App.Locals): Signed {
  if (asker?.kind !== 'person')
    throw new Refusal(403, 'This is for who signed in with an account, and not for a program.');
  return asker;
}

/** Refuses a program: a token is for what is in one library. */
export function notByProgram({ asker }: App.Locals): void {
  if (asker?.kind === 'token') throw new Refusal(403, 'This is not for a program with a token.');
}

/** Lets a browser in: what it keeps is not for scripts, nor sent along by other sites. */
export const keepSession = ({ cookies, url }: RequestEvent, secret: string): void =>
  cookies.set(SESSION_COOKIE, secret, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: url.protocol === 'https:',
    maxAge: 365 * 86_400,
  });

/** Opens a library in this browser, as a whole. */
export function keepLibrary({ cookies, url }: RequestEvent, id: string): void {
  cookies.set(LIBRARY_COOKIE, id, { path: '/', maxAge: 31_536_000, secure: url.protocol === 'https:' });
  cookies.delete(PROJECT_COOKIE, { path: '/' });
}

/** The address a page that asks is open at: which pages may ask was looked at before (`who-asks`). */
export const originOf = ({ request, url }: RequestEvent): string => {
  const said = request.headers.get('origin');
  return said && said !== 'null' ? said : url.origin;
};

/** The address of a path of this server as others open it. */
export const addressOf = (event: RequestEvent, path: string): string =>
  (config.origin ?? originOf(event)) + path;

/** Where a request comes from. */
export const fromOf = (event: RequestEvent): From => ({
  address: event.getClientAddress(),
  agent: event.request.headers.get('user-agent') ?? '',
});

/** A handler that changes, whose body is a file; what goes with it is in the address. Answers JSON. */
export function takesFile<T>(
  work: (bytes: Uint8Array, ctx: Context, event: RequestEvent) => Promise<T>,
  types = /^application\/octet-stream$/,
): RequestHandler {
  return (event) =>
    refusing(async () =>
      json(await work(await bodyOf(event.request, types, MOST_BYTES), changing(event), event)),
    );
}

/** The id in a route's address. */
export const idOf = (event: RequestEvent): string => (event.params as Record<string, string>).id ?? '';

/** A kept file as an answer that never runs in the page, with the one byte range asked for (RFC 9110, 14). */
export function fileAnswer(
  bytes: Buffer,
  mediaType: string,
  request: Request,
  name?: string,
  as: 'inline' | 'attachment' = 'inline',
): Response {
  const headers: Record<string, string> = {
    'content-type': mediaType,
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=31536000, immutable',
    'content-security-policy': "default-src 'none'; sandbox",
    ...(name ? { 'content-disposition': `${as}; filename*=UTF-8''${encodeURIComponent(name)}` } : {}),
  };
  const range = /^bytes=(\d+)-(\d*)$/.exec(request.headers.get('range') ?? '');
  if (!range) return new Response(new Uint8Array(bytes), { headers });
  const from = Number(range[1]);
  const to = Math.min(range[2] ? Number(range[2]) : bytes.length - 1, bytes.length - 1);
  if (from > to)
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${bytes.length}` } });
  return new Response(new Uint8Array(bytes.subarray(from, to + 1)), {
    status: 206,
    headers: { ...headers, 'content-range': `bytes ${from}-${to}/${bytes.length}` },
  });
}

/** A file made for this answer, to be saved; it never runs in the page. */
export const savedAnswer = ({ bytes, name }: { bytes: Buffer; name: string }, mediaType: string): Response =>
  new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': mediaType,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'content-security-policy': "default-src 'none'; sandbox",
      'cache-control': 'no-store',
    },
  });
