import { withoutControls } from '../../core/text';
import { megabytes } from '../limits';
import { Refusal } from '../access/refusal';

/** The media type of a request's body, in lower case and without parameters; empty when there is none. */
const mediaTypeOf = (request: Request): string =>
  (request.headers.get('content-type') ?? '').split(';')[0]!.trim().toLowerCase();

/**
 * The bytes of a request's body, at most `most`. Refuses a body of another media type than `types` name: one that says
 * none, or that of a form, can be sent by any page of the web.
 */
export async function bodyOf(request: Request, types: RegExp, most: number): Promise<Uint8Array> {
  if (!types.test(mediaTypeOf(request)))
    throw new Refusal(
      415,
      'The request does not say what it sends, or sends something else than is taken here.',
    );
  const tooLarge = () =>
    new Refusal(
      413,
      `What was sent is larger than ${megabytes(most)}, the most that is taken at once. Nothing of it was kept.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let next = await reader?.read(); next && !next.done; next = await reader!.read()) {
    size += next.value.byteLength;
    // The rest is read and dropped, so that whoever sends it gets to hear why.
    if (size <= most) parts.push(next.value);
    else parts.length = 0;
  }
  if (size > most) throw tooLarge();
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.byteLength;
  }
  return whole;
}

/**
 * A value in JSON; refuses what is none. Characters no text holds (control characters, half of a surrogate pair) are taken
 * out, and `takenOut` says so.
 */
export function parsedJson(text: string): { value: unknown; takenOut: boolean } {
  let takenOut = false;
  const clean = (_key: string, value: unknown) => {
    if (typeof value !== 'string') return value;
    const left = withoutControls(value);
    takenOut ||= left !== value;
    return left;
  };
  try {
    // Most requests have none of them, and then no value needs looking at.
    const value: unknown = /[^ -~\u00A0-\uD7FF\uE000-\uFFFD\s]|\\u/u.test(text)
      ? JSON.parse(text, clean)
      : JSON.parse(text);
    return { value, takenOut };
  } catch {
    throw new Refusal(422, 'The request could not be understood: it is not JSON.');
  }
}
