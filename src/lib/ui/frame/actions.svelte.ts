import { untrack } from 'svelte';
import { isTyping } from './client';
import { ACTIONS, isCharacter, keyOf, pressed, type KeyChoices } from './keys';

const STORED = 'retexa-keys';

/** What this person chose about keys, kept in the browser. */
export const choices = $state<KeyChoices>({ charactersOff: false, keys: {} });

/** Reads what was chosen before. */
export function readChoices(): void {
  try {
    const kept = JSON.parse(localStorage.getItem(STORED) ?? '{}') as Partial<KeyChoices>;
    choices.charactersOff = kept.charactersOff === true;
    choices.keys = Object.fromEntries(
      Object.entries(kept.keys ?? {}).filter(([id, key]) => id in ACTIONS && typeof key === 'string'),
    );
  } catch {
    // What cannot be read was never chosen.
  }
}

/** Keeps what is chosen now. */
export const keepChoices = (): void => localStorage.setItem(STORED, JSON.stringify(choices));

type Acts = Partial<Record<string, (() => unknown) | undefined>>;

/** What can be done now, by those that offer it; the last to come stands first. */
let offers = $state.raw<(() => Acts)[]>([]);

/** Offers actions by their ids for as long as the component is there. An action that is `undefined` cannot be done now. */
export function offer(acts: () => Acts): void {
  $effect(() => {
    offers = [acts, ...untrack(() => offers)];
    return () => (offers = offers.filter((o) => o !== acts));
  });
}

/** What can be done now: ids, with what does it. */
export function doable(): Map<string, () => unknown> {
  // Made and handed out whole.
  // eslint-disable-next-line svelte/prefer-svelte-reactivity
  const found = new Map<string, () => unknown>();
  for (const acts of offers)
    for (const [id, act] of Object.entries(acts())) if (act && !found.has(id)) found.set(id, act);
  return found;
}

/** The key of an action, for showing beside it. */
export const keyFor = (id: string): string | undefined => keyOf(id, choices) || undefined;

/** Whether a key event comes from a box to tick, which takes no letters. */
function onBox(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return Boolean(target?.matches('input[type="checkbox"], input[type="radio"]') && !target.closest('dialog'));
}

/** Does what a key stands for. Characters and arrows mean nothing where people type. */
export function onKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.isComposing) return;
  const key = pressed(event);
  const plain = !key.includes('+');
  const editing = ['Ctrl+Z', 'Ctrl+Y'].includes(key);
  const taken = onBox(event) ? !editing && (!isCharacter(key) || key === ' ') : isTyping(event);
  if (taken && (plain || editing)) return;
  if (document.querySelector('dialog:modal') && !isCharacter(key)) return;
  for (const [id, act] of doable()) {
    if (keyOf(id, choices) !== key) continue;
    event.preventDefault();
    act();
    return;
  }
}
