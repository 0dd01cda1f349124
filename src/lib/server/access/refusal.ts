/** What a refusal is, for programs; what it says is for people, and may be said otherwise tomorrow. */
export type RefusalCode =
  | 'refused'
  | 'not-understood'
  | 'not-allowed'
  /** Whoever asks must sign in first. */
  | 'signed-out'
  | 'not-here'
  | 'changed-meanwhile'
  /** What is sent once was sent before, and is kept. */
  | 'sent-before'
  | 'too-large'
  | 'busy'
  /** Text to capture that is a file of references, a reference, or a thought. */
  | 'is-references'
  | 'is-reference'
  | 'is-text';

const CODES: Partial<Record<number, RefusalCode>> = {
  401: 'signed-out',
  403: 'not-allowed',
  404: 'not-here',
  409: 'changed-meanwhile',
  413: 'too-large',
  422: 'not-understood',
  429: 'busy',
  503: 'busy',
};

/**
 * Something the server will not or cannot do, in words for the person: what happened and what to do. `status` is the
 * HTTP status it answers with; `details` lists single problems, each naming its field or line;
 * `code` says for programs what it is.
 */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details: string[] = [],
    readonly code: RefusalCode = CODES[status] ?? 'refused',
  ) {
    super(message);
    this.name = 'Refusal';
  }
}

/** Refuses with 404: the thing is not in this library. */
export function notHere(what: string): Refusal {
  return new Refusal(
    404,
    `This ${what} is not in the library. It may have been removed, or the link is incomplete.`,
  );
}

/** Refuses with 409: somebody, or another window, changed it first. `details` name what differs, field by field. */
export function changedMeanwhile(what: string, details: string[] = []): Refusal {
  return new Refusal(
    409,
    `This ${what} was changed somewhere else in the meantime. Your change was not saved over it; look at the new state and make it again.`,
    details,
  );
}
