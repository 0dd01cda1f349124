/**
 * Something the server will not or cannot do, in words for the person: what happened and what to do. `status` is the
 * HTTP status it answers with; `details` lists single problems, each naming its field or line.
 */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details: string[] = [],
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

/** Refuses with 409: somebody, or another window, changed it first. */
export function changedMeanwhile(what: string): Refusal {
  return new Refusal(
    409,
    `This ${what} was changed somewhere else in the meantime. Your change was not saved over it; look at the new state and make it again.`,
  );
}
