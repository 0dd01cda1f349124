import { defaults, setError, superForm, type SuperForm } from 'sveltekit-superforms';
import { zod4, zod4Client } from 'sveltekit-superforms/adapters';
import type { z } from 'zod';
import { ApiError } from './client';
import { trouble } from './toasts.svelte';

/**
 * A form of what a schema describes, filled with `initial`. What is wrong with a field is said at the field, while it is
 * filled in and when it is sent; sent twice by a double click it goes once. What the server refuses is said at its field
 * too, where it names one, and else at the foot of the page; what was typed stays. What `send` empties in what it is given is
 * empty on the page too.
 */
export function formOf<T extends Record<string, unknown>>(
  schema: z.ZodObject & z.ZodType<T>,
  initial: T,
  send: (said: T) => Promise<unknown>,
): SuperForm<T> {
  type Said = Record<string, unknown>;
  const whole = schema as z.ZodObject;
  const form: SuperForm<Said> = superForm(defaults<Said>(initial, zod4(whole)), {
    SPA: true,
    dataType: 'json',
    resetForm: false,
    // What was changed is renewed by the change itself; a second time would take the focus from who types on already.
    applyAction: false,
    invalidateAll: false,
    multipleSubmits: 'prevent',
    validators: zod4Client(whole),
    async onUpdate({ form: said }) {
      if (!said.valid) return;
      try {
        await send(said.data as T);
      } catch (error) {
        said.valid = false;
        const lines = error instanceof ApiError ? error.details : [];
        const named = lines.flatMap((line) => {
          const [, field, words] = /^([\w-]+): (.+)$/.exec(line) ?? [];
          return field && words && field in whole.shape ? [[field, words] as const] : [];
        });
        for (const [field, words] of named) setError(said, field, words);
        if (named.length < Math.max(1, lines.length)) trouble(error);
      }
    },
  });
  return form as unknown as SuperForm<T>;
}
