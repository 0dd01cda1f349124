/** An answer that is not what was asked for, in words for the person. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details: string[] = [],
    /** What the refusal is; empty when the server was not reached. */
    readonly code = '',
  ) {
    super(message);
  }
}

/** This page, among those a person has open: what it changed itself it need not be told. */
export const PAGE = Math.random().toString(36).slice(2);

/** Called with what a request of this page changed. */
export const changed = { tell: (_topics: string[]): void => undefined };

/** Called when the server was asked and answered, or did not. */
export const reached = { tell: (_yes: boolean): void => undefined };

/** Called when the server took characters out of what was sent that no text holds. */
export const takenOut = { tell: (): void => undefined };

/** Calls the API with a JSON body (or a file's bytes) and gives its JSON answer. Throws an ApiError. */
export async function call<T = unknown>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  /** What it is sent as, so that it is taken once however often it comes. */
  once?: string,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: {
        'x-page': PAGE,
        ...(once ? { 'x-once': once } : {}),
        ...(body instanceof Blob
          ? { 'content-type': 'application/octet-stream' }
          : body === undefined
            ? {}
            : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: body instanceof Blob ? body : JSON.stringify(body) }),
    });
  } catch {
    reached.tell(false);
    throw new ApiError(0, 'The server does not answer. What you typed is still here; try again in a moment.');
  }
  reached.tell(true);
  if (response.headers.has('x-taken-out')) takenOut.tell();
  const topics = response.headers.get('x-changed');
  if (topics) changed.tell(topics.split(' '));
  const answer = (await response.json().catch(() => ({}))) as T & {
    message?: string;
    details?: string[];
    code?: string;
  };
  if (!response.ok)
    throw new ApiError(
      response.status,
      answer.message ?? `The server answered ${response.status}.`,
      answer.details ?? [],
      answer.code ?? '',
    );
  return answer;
}

/** Saves text or bytes as a file. */
export function download(name: string, mediaType: string, body: string | Uint8Array<ArrayBuffer>): void {
  const url = URL.createObjectURL(new Blob([body], { type: mediaType }));
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  // The browser reads the address after this returns.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** The bytes of an answer that holds them as base64. */
export const bytesOf = (base64: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));

/** A file as the server makes one; what is binary is base64. */
export interface MadeFile {
  name: string;
  mediaType: string;
  body: string;
  binary: boolean;
}

/** Saves a file the server made. */
export const downloadMade = ({ name, mediaType, body, binary }: MadeFile): void =>
  download(name, mediaType, binary ? bytesOf(body) : body);

/** Puts text on the clipboard, with a rich form beside it where the browser allows. */
export async function copyText(plain: string, rich?: string): Promise<void> {
  if (rich && 'ClipboardItem' in globalThis && navigator.clipboard?.write) {
    const item = (type: string, text: string) => [type, new Blob([text], { type })] as const;
    await navigator.clipboard.write([
      new ClipboardItem(Object.fromEntries([item('text/plain', plain), item('text/html', rich)])),
    ]);
  } else await navigator.clipboard.writeText(plain);
}

/** Calls `run` when calls have paused for `ms` milliseconds. */
export function debounce<A extends unknown[]>(run: (...args: A) => void, ms: number): (...args: A) => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  return (...args) => {
    clearTimeout(timer);
    timer = setTimeout(() => run(...args), ms);
  };
}

/** Whether a key event comes from a place where people type. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return Boolean(target?.closest('input, textarea, select, [contenteditable="true"], dialog'));
}

/** How the interface names the kinds of copies. */
export const COPY_KINDS = { page: 'page', pdf: 'PDF', image: 'picture', audio: 'recording' } as const;

/** What documents kept as pages are called that are no pages of the web. */
const WRITTEN: Record<string, string> = {
  'application/epub+zip': 'EPUB',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': '.docx',
  'text/markdown': 'Markdown text',
  'text/plain': 'text',
  'application/octet-stream': 'file',
};
/** What kind of document a copy is, in a word. */
export const copyKind = ({
  kind,
  media_type,
}: {
  kind: keyof typeof COPY_KINDS;
  media_type: string;
}): string =>
  (kind === 'page' && Object.hasOwn(WRITTEN, media_type) && WRITTEN[media_type]) || COPY_KINDS[kind];
