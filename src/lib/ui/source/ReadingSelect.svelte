<script lang="ts">
  import { PRIORITIES, READING_STATES } from '$lib/core/query';
  import { Select } from '../kit';
  import { change } from '../frame/toasts.svelte';
  import { PRIORITY_NAMES, READING_NAMES } from './naming';

  /** How far one is with reading a source, and how much it matters; it is one's own, others have theirs. */
  let {
    id,
    state,
    priority,
  }: { id: string; state?: string | null | undefined; priority?: string | null | undefined } = $props();

  function say(what: 'state' | 'priority', { value, selectedOptions }: HTMLSelectElement) {
    const said = `${selectedOptions[0]!.textContent!.trim()}.`;
    void change('/api/reading', { ids: [id], [what]: value === 'none' ? null : value }, said);
  }
</script>

<Select
  look="chip"
  aria-label="How far you are with it"
  value={state ?? 'none'}
  onchange={(e) => say('state', e.currentTarget)}
>
  <option value="none">Reading: nothing said</option>
  {#each READING_STATES as value (value)}<option {value}>{READING_NAMES[value]}</option>{/each}
</Select>
<Select
  look="chip"
  aria-label="How much it matters to you"
  value={priority ?? 'none'}
  onchange={(e) => say('priority', e.currentTarget)}
>
  <option value="none">Matters as usual</option>
  {#each PRIORITIES as value (value)}<option {value}>{PRIORITY_NAMES[value]}</option>{/each}
</Select>
