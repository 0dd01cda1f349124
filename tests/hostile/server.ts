/** The built server with the stand-ins behind it, asked as a program asks and not as a browser does. */
import { startApp, type App } from '../browser/app';

export interface Asked extends App {
  /** Asks as a page of the application would: with its own origin and content type, unless told otherwise. */
  ask(
    method: string,
    path: string,
    given?: { body?: BodyInit; headers?: Record<string, string> },
  ): Promise<Response>;
  json(method: string, path: string, body: unknown): Promise<Response>;
}

/** Starts the application; whoever starts it stops it. */
export async function startServer(env: Record<string, string> = {}): Promise<Asked> {
  const app = await startApp({ env });
  const ask: Asked['ask'] = (method, path, { body, headers = {} } = {}) =>
    fetch(app.url + path, {
      method,
      redirect: 'manual',
      headers: { origin: app.url, ...headers },
      ...(body === undefined ? {} : { body, duplex: 'half' }),
    } as RequestInit);
  return {
    ...app,
    ask,
    json: (method, path, body) =>
      ask(method, path, { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  };
}
