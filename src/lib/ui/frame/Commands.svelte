<script lang="ts">
  import { CommandPalette } from '../kit';
  import { doable, keyFor } from './actions.svelte';
  import { ACTIONS, shownKey } from './keys';

  /** Finds every action that can be done now by its name, with its key. */
  let { open = $bindable(false) }: { open?: boolean } = $props();

  const items = $derived(
    open
      ? [...doable()]
          .filter(([id]) => ACTIONS[id] && id !== 'commands')
          .map(([id, act]) => {
            const { name, place, also } = ACTIONS[id]!;
            const key = keyFor(id);
            return {
              id: `command-${id.replace(/ /g, '-')}`,
              label: name,
              description: [place, key && shownKey(key)].filter(Boolean).join(' · '),
              keywords: also?.split(' ') ?? [],
              // The dialogue leaves first: what an action opens or focuses comes after.
              onselect: () => void setTimeout(act, 0),
            };
          })
      : [],
  );
</script>

<CommandPalette
  bind:open
  {items}
  shortcutKey=""
  aria-label="List of commands"
  placeholder="What do you want to do?"
  emptyMessage="No command has this name."
/>
