import type { Finding } from '$lib/core/proof';
import type { Credibility, Translation } from '$lib/core/source';
import type { ShownReference } from '$lib/server/lists';
import { ApiError, call, debounce } from '../frame/client';
import { renew, renewed, untilReached } from '../frame/live.svelte';
import { attempt, done, trouble } from '../frame/toasts.svelte';

/** A record as it prints, and what the proof says of it. */
export interface Preview {
  reference: ShownReference;
  citation: { html: string; text: string };
  findings: Finding[];
  /** What somebody let stand. */
  standing: Finding[];
}

/**
 * Editing of one source: saves at once on the revision last seen, and keeps the printed form in step with what is
 * being typed. `source` gives the source shown; saving always goes to that one.
 */
export function editing(source: () => { id: string; revision: number }) {
  let preview = $state<Preview | undefined>();
  /** How it would print with a fix that is pointed at. */
  let trial = $state<Preview | undefined>();
  /** What was typed into fields that another wrote into meanwhile, and the save it was part of. */
  let clash = $state.raw<
    { fields: { field: string; typed: unknown }[]; body: Record<string, unknown> } | undefined
  >();
  /** What was on the page when one began to type: that is what one types over, whatever comes in meanwhile. */
  let begun: { id: string; revision: number } | undefined;
  /** The last revision made here. */
  let own: { id: string; revision: number } | undefined;
  const baseOf = ({ id, revision }: { id: string; revision: number }) => {
    const before = begun?.id === id ? begun.revision : revision;
    return own?.id === id ? Math.max(before, own.revision) : before;
  };
  let tried = 0;
  let asked = 0;
  let queue: Promise<unknown> = Promise.resolve();

  async function print(id: string, fields: Record<string, unknown>) {
    const mine = ++asked;
    try {
      const printed = await call<Preview>('POST', `/api/sources/${id}/preview`, { fields });
      if (mine === asked) preview = printed;
    } catch {
      // What is being typed may not be valid yet; the last printed form stays.
    }
  }
  /** Which typing is the last that is not saved: what was saved is not printed as it was typed, since it may be undone by then. */
  let typing = 0;
  const later = debounce((id: string, fields: Record<string, unknown>, mine: number) => {
    if (mine === typing) void print(id, fields);
  }, 200);

  async function save(body: Record<string, unknown>) {
    const shown = source();
    const { id } = shown;
    const base = baseOf(shown);
    begun = undefined;
    typing++;
    const send = () =>
      call<{ revision: number; revisionId?: string }>('PATCH', `/api/sources/${id}`, { base, ...body });
    let saved: { revision: number; revisionId?: string } | undefined;
    try {
      saved = await send();
    } catch (error) {
      const meanwhile = error instanceof ApiError && error.code === 'changed-meanwhile' ? error.details : [];
      if (meanwhile.length) {
        // What is there now is read before it is shown beside what was typed.
        await renew('sources');
        const typed = { ...(body.fields as object), ...body } as Record<string, unknown>;
        const fields = meanwhile
          .map((line) => line.split(':')[0]!)
          .map((field) => ({ field, typed: typed[field] }));
        clash = { fields, body };
      } else if (!(error instanceof ApiError) || error.status !== 0) trouble(error);
      else {
        // It is sent when the server is back; what is typed meanwhile comes after it.
        await untilReached();
        saved = await attempt(send);
      }
    }
    if (saved) own = { id, revision: saved.revision };
    if (saved?.revisionId) done('Saved.', [saved.revisionId]);
    await renewed();
    await print(id, {});
  }
  // One save after another, so that each is made on the revision the last one left.
  const inTurn = (body: Record<string, unknown>) => (queue = queue.then(() => save(body)));

  async function attemptFix(fields: Record<string, unknown> | undefined) {
    const mine = ++tried;
    trial = undefined;
    if (!fields) return;
    try {
      const printed = await call<Preview>('POST', `/api/sources/${source().id}/preview`, { fields });
      if (mine === tried) trial = printed;
    } catch {
      // It stays as it is; what is wrong is said when it is saved.
    }
  }

  return {
    get preview() {
      return preview;
    },
    get clash() {
      return clash;
    },
    /** Says which of the fields that clash are written as they were typed here; what did not clash is written in any case. */
    settle: (mine: readonly string[]) => {
      if (!clash) return;
      const { fields, body } = clash;
      clash = undefined;
      // What is there now was seen.
      begun = own = undefined;
      const gone = fields.map(({ field }) => field).filter((field) => !mine.includes(field));
      const left = Object.entries((body.fields as object | undefined) ?? {}).filter(
        ([field]) => !gone.includes(field),
      );
      const others = Object.entries(body).filter(
        ([key]) => key !== 'fields' && key !== 'why' && !gone.includes(key),
      );
      if (left.length || others.length)
        void inTurn({ ...Object.fromEntries(others), fields: Object.fromEntries(left) });
    },
    get trial() {
      return trial;
    },
    /** Shows how it would print with some fields, or no longer. */
    try: (fields: Record<string, unknown> | undefined) => void attemptFix(fields),
    print: (id: string) => print(id, {}),
    type: (fields: Record<string, unknown>) => {
      const { id, revision } = source();
      if (begun?.id !== id) begun = { id, revision };
      later(id, fields, ++typing);
    },
    edit: (fields: Record<string, unknown>, why?: string) => {
      const sent = Object.fromEntries(
        Object.entries(fields).map(([k, v]) => [k, v === undefined ? null : v]),
      );
      return inTurn({ fields: sent, ...(why ? { why } : {}) });
    },
    tag: (tags: string[]) => inTurn({ tags }),
    judge: (credibility: Partial<Record<keyof Credibility, string>>) =>
      inTurn({ credibility, why: 'how far it can be trusted' }),
    translate: (translations: Translation[]) => inTurn({ translations, why: 'titles in other languages' }),
    key: (citekey: string) => inTurn({ citekey }),
  };
}

/** Leads from a part of a printed reference to its field in the form. */
export function toField(field: string): void {
  const target = document.getElementById(`f-${field}`);
  target?.scrollIntoView({ block: 'center' });
  target?.focus();
}
