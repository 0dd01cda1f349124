<script lang="ts">
  import {
    canReplace,
    canSet,
    changeProblem,
    DATE_VARIABLES,
    fieldName,
    NAME_VARIABLES,
    NUMBER_VARIABLES,
    TEXT_VARIABLES,
    type FieldChange,
  } from '$lib/core/source';
  import type { Made } from '$lib/server/many';
  import type { previewChange } from '$lib/server/sources';
  import { call, debounce } from '../frame/client';
  import Differences from '../frame/Differences.svelte';
  import { attempt, doneWith } from '../frame/toasts.svelte';
  import { Button, Checkbox, Dialog, Field, Input, Radio, Select } from '../kit';

  /** Changes one field of all that are selected: what becomes of each is seen before it is done, and some can be left out. */
  let { open = $bindable(), ids }: { open: boolean; ids: readonly string[] } = $props();

  type Preview = Awaited<ReturnType<typeof previewChange>>;
  const ACTS = { set: 'Set it to', clear: 'Clear it', replace: 'Find and replace' } as const;
  const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
  const FIELDS = [...TEXT_VARIABLES, ...NUMBER_VARIABLES, ...DATE_VARIABLES, ...NAME_VARIABLES]
    .map((field) => ({ field: field as string, name: capital(fieldName(field)) }))
    .sort((a, b) => a.name.localeCompare(b.name));

  let act = $state<keyof typeof ACTS>('set');
  let field = $state('publisher-place');
  let value = $state('');
  let find = $state('');
  let by = $state('');
  let exact = $state(false);
  let preview = $state.raw<Preview>();
  let left = $state.raw<string[]>([]);
  let working = $state(false);

  const offered = $derived(
    FIELDS.filter(({ field }) =>
      act === 'replace' ? canReplace(field) : act === 'set' ? canSet(field) : true,
    ),
  );
  const change = $derived<FieldChange>(
    act === 'set'
      ? { act, field, value }
      : act === 'clear'
        ? { act, field }
        : { act, field, find, by, exact },
  );
  const problem = $derived(changeProblem(change));
  const changing = $derived(preview ? preview.changes.filter((id) => !left.includes(id)) : []);

  const look = debounce(async (wanted: FieldChange) => {
    const answer = await attempt(() =>
      call<Preview>('POST', '/api/sources/changing', { ids, change: wanted }),
    );
    if (answer && JSON.stringify(wanted) === JSON.stringify(change)) preview = answer;
  }, 200);
  $effect(() => {
    if (!offered.some((o) => o.field === field)) field = 'title';
  });
  $effect(() => {
    const wanted = $state.snapshot(change);
    [preview, left] = [undefined, []];
    if (open && !problem) look(wanted);
  });

  async function carryOut() {
    working = true;
    const made = await attempt(() => call<Made>('POST', '/api/sources/edit', { ids: changing, change }));
    working = false;
    if (!made) return;
    const [of, what] = [changing.length, capital(fieldName(field))];
    open = false;
    await doneWith(
      made,
      of,
      (n) => `${what} changed in ${n.toLocaleString('en')} ${n === 1 ? 'source' : 'sources'}.`,
    );
  }
</script>

<Dialog
  bind:open
  title="Change a field of {ids.length.toLocaleString('en')} {ids.length === 1 ? 'source' : 'sources'}"
  size="lg"
>
  <form
    class="grid gap-3"
    onsubmit={(e) => {
      e.preventDefault();
      if (changing.length) void carryOut();
    }}
  >
    <div class="flex flex-wrap gap-4" role="radiogroup" aria-label="What is done">
      {#each Object.entries(ACTS) as [name, words] (name)}
        <Radio name="act" value={name} bind:group={act}>{words}</Radio>
      {/each}
    </div>
    <div class="flex flex-wrap items-end gap-3">
      <Field label="Field">
        <Select bind:value={field}>
          {#each offered as o (o.field)}<option value={o.field}>{o.name}</option>{/each}
        </Select>
      </Field>
      {#if act === 'set'}
        <Field label="Value"><Input bind:value autofocus maxlength={4000} /></Field>
      {:else if act === 'replace'}
        <Field label="Words there"><Input bind:value={find} autofocus maxlength={400} /></Field>
        <Field label="Words in their place"><Input bind:value={by} maxlength={400} /></Field>
        <label class="flex items-center gap-2 pb-2 text-sm"
          ><Checkbox bind:checked={exact} />Tell capitals apart</label
        >
      {/if}
    </div>
    {#if problem && (act === 'set' ? value : act === 'replace' ? find : true)}
      <p class="pencil-red">{problem}</p>
    {:else if preview}
      <p class="small-label" role="status">
        {preview.total === 0
          ? 'That changes none of them.'
          : `That changes ${preview.total.toLocaleString('en')} of ${ids.length.toLocaleString('en')}.`}
        {#if preview.total > preview.shown.length}The first {preview.shown.length} are shown.{/if}
      </p>
      <ul class="list">
        {#each preview.shown as { id, label, was, is } (id)}
          <li>
            <label>
              <Checkbox
                checked={!left.includes(id)}
                aria-label="Change {label}"
                onchange={() => (left = left.includes(id) ? left.filter((l) => l !== id) : [...left, id])}
              />
              <span>
                <span class="small-label">{label}</span><br />
                <Differences {was} {is} />
              </span>
            </label>
          </li>
        {/each}
      </ul>
    {/if}
    <p class="flex gap-2">
      <Button look="main" type="submit" disabled={changing.length === 0 || working}
        >{changing.length ? `Change ${changing.length.toLocaleString('en')}` : 'Change'}</Button
      >
      <Button onclick={() => (open = false)}>Leave it</Button>
    </p>
  </form>
</Dialog>

<style>
  .list {
    max-height: 40vh;
    overflow-y: auto;
  }
  li label {
    display: flex;
    gap: 10px;
    align-items: baseline;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 13.5px;
  }
</style>
