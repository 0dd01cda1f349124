<script lang="ts">
  import type { Lead, ListedReferences } from '$lib/server/leads';
  import { call } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { attempt, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Checkbox, Dialog } from '../kit';

  interface Props {
    open: boolean;
    /** Where they are asked for: of one document, or of those a source has. */
    from: string;
    projectId: string | undefined;
  }
  /** The references in a document’s own list: those one wants to find are kept as leads. */
  let { open = $bindable(), from, projectId }: Props = $props();

  let list = $state.raw<ListedReferences>();
  /** Places in the list of those to be kept. */
  let wanted = $state<number[]>([]);
  let busy = $state(false);
  const references = $derived(list?.references ?? []);
  /** Those that are neither here, as far as one can tell, nor leads already. */
  const missing = $derived(references.flatMap((r, i) => (r.likely && !r.here && !r.lead ? i : [])));
  const alike = (some: number[]) => some.length === wanted.length && some.every((i) => wanted.includes(i));

  /** What is asked for; the same while what is around it is renewed. */
  const asked = $derived(open ? from : undefined);
  $effect(() => {
    const path = asked;
    if (!path) return;
    list = undefined;
    void attempt(() => call<ListedReferences>('GET', path)).then((answer) => {
      if (path !== asked) return;
      if (!answer) return void (open = false);
      list = answer;
      wanted = missing;
    });
  });

  async function keep() {
    if (busy || !list) return;
    busy = true;
    const { sourceId } = list;
    const text = references.filter((_, i) => wanted.includes(i)).map((r) => r.text);
    const made = await attempt(() =>
      call<{ leads: Lead[] }>('POST', '/api/leads', { text, projectId: projectId ?? null, metIn: sourceId }),
    );
    busy = false;
    if (!made) return;
    open = false;
    const ids = made.leads.map((lead) => lead.id);
    doneWithUndo(ids.length === 1 ? 'Kept as a lead.' : `${ids.length} kept as leads.`, async () => {
      await call('POST', '/api/leads/bin', { ids });
      await renewed();
    });
    await renewed();
  }
  const many = (n: number) => (n === 1 ? '1 reference' : `${n.toLocaleString('en')} references`);
</script>

<Dialog bind:open title="References in its list" size="lg">
  {#if !list}
    <p class="small-label" role="status">Reading the document…</p>
  {:else if references.length === 0}
    <p>
      No list of references was found in the text of this document: nothing stands under a heading such as
      “References” or “Bibliography”. Select them in the document and put them down in
      <a class="link" href="/leads?met={list.sourceId}">Leads</a>.
    </p>
  {:else}
    <p class="small-label">
      {many(references.length)} under “{list.heading}”. What is in the library, or may be, is not ticked.{#if list.cut}
        {many(list.cut)} behind them are left out.{/if}
    </p>
    <p class="picks">
      <Button
        look="chip"
        aria-pressed={missing.length > 0 && alike(missing)}
        onclick={() => (wanted = missing)}>Not here yet · {missing.length}</Button
      >
      <Button
        look="chip"
        aria-pressed={wanted.length === references.length}
        onclick={() => (wanted = references.map((_, i) => i))}>All · {references.length}</Button
      >
      <Button look="chip" aria-pressed={wanted.length === 0} onclick={() => (wanted = [])}>None</Button>
    </p>
    <ul aria-label="References">
      {#each references as reference, i (i)}
        <li>
          <label>
            <Checkbox
              checked={wanted.includes(i)}
              onchange={(e) =>
                (wanted = e.currentTarget.checked ? [...wanted, i] : wanted.filter((n) => n !== i))}
            />
            <span class="serif">{reference.text}</span>
          </label>
          {#if reference.here || reference.lead || !reference.likely}
            <p class="small-label">
              {#if reference.here}{reference.here.sure ? 'Here' : 'Here, perhaps'}:
                <a class="link" href="/sources/{reference.here.id}" target="_blank">{reference.here.label}</a>
              {/if}
              {#if reference.lead}A lead already.{/if}
              {#if !reference.likely}Does not read as a reference.{/if}
            </p>
          {/if}
        </li>
      {/each}
    </ul>
    <p class="picks">
      <Button look="main" disabled={busy || wanted.length === 0} onclick={keep}
        >Keep {wanted.length} as {wanted.length === 1 ? 'a lead' : 'leads'}</Button
      >
      <Button onclick={() => (open = false)}>Close</Button>
    </p>
  {/if}
</Dialog>

<style>
  .picks {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-block: 10px;
  }
  ul {
    max-height: 52vh;
    overflow-y: auto;
    border-block: 1px solid var(--rule);
  }
  li {
    padding: 7px 2px;
    border-bottom: 1px solid var(--rule);
  }
  li:last-child {
    border-bottom: 0;
  }
  label {
    display: grid;
    grid-template-columns: 22px 1fr;
    gap: 6px;
    align-items: start;
    font-size: 14.5px;
    overflow-wrap: anywhere;
  }
  li .small-label {
    padding-left: 28px;
  }
</style>
