<script lang="ts">
  import { Button, Input, PageHead, Trail, allows } from '$lib/ui/kit';
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import AsPrinted from '$lib/ui/source/AsPrinted.svelte';
  import BesideRecord from '$lib/ui/source/BesideRecord.svelte';
  import History from '$lib/ui/source/History.svelte';
  import Doubles from '$lib/ui/duplicates/Doubles.svelte';
  import Credibility from '$lib/ui/source/Credibility.svelte';
  import Translations from '$lib/ui/source/Translations.svelte';
  import { TRANSLATED, translationsOf } from '$lib/core/source';
  import RecordForm from '$lib/ui/source/RecordForm.svelte';
  import ReadingSelect from '$lib/ui/source/ReadingSelect.svelte';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { place, walk, walkedTo, walkOn } from '$lib/ui/source/selection.svelte';
  import { keyFor, offer } from '$lib/ui/frame/actions.svelte';
  import { openCiting } from '$lib/ui/lists/citing.svelte';
  import { call, isTyping } from '$lib/ui/frame/client';
  import { dateLabel } from '$lib/ui/frame/dates';
  import { editing, toField } from '$lib/ui/source/source-editing.svelte';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import Here from '$lib/ui/people/Here.svelte';
  import Clash from '$lib/ui/source/Clash.svelte';

  let { data } = $props();
  /** Where it stands in the list it was opened from, and that list. */
  const at = $derived(walkedTo(data.source.id));
  const backTo = $derived(`/sources${at === -1 ? '' : walk.search}`);
  const edit = editing(() => data.source);
  let lit = $state<string | undefined>();

  $effect(() => {
    const { id } = data.source;
    void [data.source.revision, data.look.style, data.look.locale];
    untrack(() => void edit.print(id));
  });

  onMount(() => {
    if (location.hash.startsWith('#f-')) toField(location.hash.slice(3));
  });

  async function check(checked: boolean) {
    const { id, revision } = data.source;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/sources/${id}/check`, { base: revision, checked }),
    );
    if (made) done(checked ? 'Checked.' : 'Back in Intake.', [made.revisionId]);
  }

  async function bin(binned: boolean) {
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/bin', { ids: [data.source.id], binned }),
    );
    if (!made) return;
    done(binned ? 'The source is in the bin.' : 'The source is back.', made.revisions);
    if (binned) await goto('/sources');
  }

  async function walkTo(next: number) {
    const id = await attempt(() => walkOn(next));
    if (!id) return;
    place.at = next;
    await goto(`/sources/${id}`, { replaceState: true });
  }
  offer(() => ({
    'source next': at !== -1 && at < walk.total - 1 ? () => walkTo(at + 1) : undefined,
    'source before': at > 0 ? () => walkTo(at - 1) : undefined,
  }));

  function onkey(event: KeyboardEvent) {
    if (event.key === 'Escape' && !isTyping(event)) void goto(backTo);
  }
</script>

<svelte:head><title>{data.label} · Retexa</title></svelte:head>
<svelte:window onkeydown={onkey} />

<PageHead>
  <Trail above={[{ href: backTo, name: 'Sources' }]} />
  {#if at !== -1 && walk.total > 1}
    <span class="walk small-label">
      <Button
        small
        look="quiet"
        aria-label="Source before in the list"
        title="Source before ({keyFor('source before') ?? 'no key'})"
        disabled={at === 0}
        onclick={() => walkTo(at - 1)}>←</Button
      >
      {(at + 1).toLocaleString('en')} of {walk.total.toLocaleString('en')}
      <Button
        small
        look="quiet"
        aria-label="Next source of the list"
        title="Next source ({keyFor('source next') ?? 'no key'})"
        disabled={at === walk.total - 1}
        onclick={() => walkTo(at + 1)}>→</Button
      >
    </span>
  {/if}
  <TypeGlyph type={data.source.record.type} class="text-ink-3" />
  <h1 class="serif">{data.label}</h1>
  <div class="tools">
    {#if data.source.binned}
      <span class="pencil-red">In the bin</span>
      <Button needs="edit" onclick={() => bin(false)}>Bring it back</Button>
    {:else}
      <ReadingSelect id={data.source.id} state={data.reading?.state} priority={data.reading?.priority} />
      {#if data.source.checked}
        <span class="small-label">Checked {dateLabel(data.source.checked)}</span>
        <Button needs="edit" look="quiet" onclick={() => check(false)}>Send back to Intake</Button>
      {:else}
        <Button needs="edit" look="main" onclick={() => check(true)}>Looks right</Button>
      {/if}
      <Button onclick={() => openCiting([{ id: data.source.id, name: data.label }])}>Cite</Button>
      {#each data.copies.slice(0, 1) as copy (copy.id)}<Button href="/copies/{copy.id}">Read</Button>{/each}
      <Button needs="edit" onclick={() => bin(true)}>Put in the bin</Button>
    {/if}
  </div>
</PageHead>

<Doubles id={data.source.id} doubles={data.doubles} related={data.related} />

<div class="sheet">
  <fieldset class="record" disabled={!allows('edit')} aria-label="Record">
    <RecordForm
      record={data.source.record}
      findings={data.source.findings}
      offeredTags={data.tags}
      printed={data.printed}
      {lit}
      onedit={edit.edit}
      ontags={edit.tag}
      ontype={edit.type}
      onpoint={(field) => (lit = field)}
    />
    <Translations
      told={translationsOf(data.source.record)}
      titles={TRANSLATED.filter((title) => data.source.record[title])}
      locale={data.look.locale}
      ontell={edit.translate}
    />
    <Credibility said={data.source.record.retexa.credibility} onsay={edit.judge} />
  </fieldset>
  <aside class="margin">
    <Here source={data.source.id} />
    <AsPrinted
      preview={edit.preview}
      style={`${data.look.name} · ${data.look.locale}`}
      {lit}
      onpoint={(field) => (lit = field)}
      onchoose={toField}
      onfix={edit.edit}
      trial={edit.trial}
      ontry={edit.try}
      sourceId={data.source.id}
    />
    <BesideRecord {data} />
    <h3><label for="citekey">Citekey</label></h3>
    <Input
      id="citekey"
      disabled={!allows('edit')}
      value={data.source.citekey}
      onchange={(e) => edit.key(e.currentTarget.value)}
    />

    <History sourceId={data.source.id} revisions={data.history} />
  </aside>
</div>

{#if data.source && edit.clash}
  <Clash {edit} clash={edit.clash} record={data.source.record} citekey={data.source.citekey} />
{/if}

<style>
  .sheet {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 350px;
    min-height: 0;
  }
  .record {
    min-width: 0;
    padding: 12px 26px 40px;
    container-type: inline-size;
    overflow-y: auto;
  }
  /* Who may not change a record reads it all the same. */
  .record:disabled :global(:is(input, select, textarea):disabled) {
    color: var(--ink);
    opacity: 1;
  }
  .margin {
    padding: 16px 22px 40px;
    border-left: 1px solid var(--margin-rule);
    overflow-y: auto;
  }
  h3 {
    margin: 20px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  @media (max-width: 980px) {
    .sheet {
      display: flex;
      flex-direction: column-reverse;
      justify-content: flex-end;
    }
    .margin,
    .record {
      border: 0;
      overflow: visible;
    }
  }
  @media print {
    .sheet {
      display: flex;
      flex-direction: column-reverse;
    }
    .record,
    .margin {
      padding: 0;
      border: 0;
      overflow: visible;
    }
  }
</style>
