<script lang="ts">
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import AsPrinted from '$lib/ui/source/AsPrinted.svelte';
  import Doubles from '$lib/ui/duplicates/Doubles.svelte';
  import PageFrame from '$lib/ui/reader/PageFrame.svelte';
  import RecordForm from '$lib/ui/source/RecordForm.svelte';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { offer, keyFor } from '$lib/ui/frame/actions.svelte';
  import { shownKey } from '$lib/ui/frame/keys';
  import { call } from '$lib/ui/frame/client';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { editing, toField } from '$lib/ui/source/source-editing.svelte';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import Clash from '$lib/ui/source/Clash.svelte';

  let { data } = $props();
  const edit = editing(() => data.source!);
  let lit = $state<string | undefined>();
  const copy = $derived(data.copies[0]);

  $effect(() => {
    const id = data.source?.id;
    void [data.source?.revision, data.look.style, data.look.locale];
    if (id) untrack(() => void edit.print(id));
  });

  const go = (to: number) => {
    const next = data.queue[Math.min(Math.max(to, 0), data.queue.length - 1)];
    if (next) void goto(`/intake?at=${next.id}`, { replaceState: true, noScroll: true, keepFocus: true });
  };

  /** Leaves the source shown and goes to the one after it. */
  async function leave(act: () => Promise<(string | undefined)[]>, words: string) {
    const next = data.queue[data.at + 1] ?? data.queue[data.at - 1];
    const revisions = await attempt(act);
    if (!revisions) return;
    done(words, revisions);
    if (next) await goto(`/intake?at=${next.id}`, { replaceState: true, noScroll: true });
    await renewed();
  }
  const check = () =>
    leave(async () => {
      const { id, revision } = data.source!;
      return [
        (
          await call<{ revisionId?: string }>('POST', `/api/sources/${id}/check`, {
            base: revision,
            checked: true,
          })
        ).revisionId,
      ];
    }, 'Checked.');
  const bin = () =>
    leave(
      async () =>
        (
          await call<{ revisions: string[] }>('POST', '/api/sources/bin', {
            ids: [data.source!.id],
            binned: true,
          })
        ).revisions,
      'The source is in the bin.',
    );

  offer(() =>
    data.source
      ? {
          'intake check': check,
          'intake bin': bin,
          'intake next': data.at < data.queue.length - 1 ? () => go(data.at + 1) : undefined,
          'intake before': data.at > 0 ? () => go(data.at - 1) : undefined,
        }
      : {},
  );
</script>

<svelte:head><title>Intake · Retexa</title></svelte:head>

<PageHead>
  <h1>Intake</h1>
  <span class="sub"
    >{data.total
      ? `${(data.before + data.at + 1).toLocaleString('en')} of ${data.total.toLocaleString('en')} to check`
      : 'nothing to check'}</span
  >
  <span class="flex-1"></span>
  {#if data.source}
    <Button
      look="quiet"
      keys={shownKey(keyFor('intake before') ?? '')}
      onclick={() => go(data.at - 1)}
      disabled={data.at === 0}>Before</Button
    >
    <Button
      look="quiet"
      keys={shownKey(keyFor('intake next') ?? '')}
      onclick={() => go(data.at + 1)}
      disabled={data.at >= data.queue.length - 1}>Next</Button
    >
    <Button needs="edit" keys={keyFor('intake bin')} onclick={bin}>Put in the bin</Button>
    <Button needs="edit" look="main" keys={keyFor('intake check')} onclick={check}>Looks right</Button>
  {/if}
</PageHead>

{#if !data.source}
  <Empty>
    <h2>Everything is checked</h2>
    <p>
      What you capture waits here until you have looked at it beside its page. Paste an address or a DOI into
      the field at the top.
    </p>
  </Empty>
{:else}
  <nav class="queue" aria-label="Waiting" data-sveltekit-keepfocus>
    {#each data.queue as waiting, i (waiting.id)}
      <a
        aria-current={i === data.at ? 'true' : undefined}
        href="/intake?at={waiting.id}"
        data-sveltekit-replacestate
        data-sveltekit-noscroll
        data-tip={waiting.title}
        ><TypeGlyph type={waiting.type} /> <span class="truncate">{waiting.label}</span></a
      >
    {/each}
  </nav>
  <Doubles id={data.source.id} doubles={data.doubles} related={data.related} />
  <div class="side-by-side">
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section class="page" aria-label="The captured page" tabindex="0">
      {#if copy}
        {#key copy.id}<PageFrame copyId={copy.id} title={copy.title} />{/key}
      {:else}
        <Empty>
          <h2>No page was kept</h2>
          <p>This source was started by hand or imported. Check it against the work itself.</p>
        </Empty>
      {/if}
    </section>
    <section class="values">
      {#key data.source.id}
        <AsPrinted
          preview={edit.preview}
          style={`${data.look.name} · ${data.look.locale}`}
          {lit}
          onpoint={(f) => (lit = f)}
          onchoose={toField}
          onfix={edit.edit}
          trial={edit.trial}
          ontry={edit.try}
          sourceId={data.source.id}
        />
        <div class="form">
          <RecordForm
            record={data.source.record}
            findings={data.source.findings}
            offeredTags={data.tags}
            printed={data.printed}
            {lit}
            onedit={edit.edit}
            ontags={edit.tag}
            ontype={edit.type}
            onpoint={(f) => (lit = f)}
          />
        </div>
      {/key}
    </section>
  </div>
{/if}

{#if data.source && edit.clash}
  <Clash {edit} clash={edit.clash} record={data.source.record} citekey={data.source.citekey} />
{/if}

<style>
  .queue {
    display: flex;
    flex: none;
    gap: 2px;
    padding: 6px 20px 0;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
    overflow-x: auto;
  }
  .queue a {
    display: inline-flex;
    flex: none;
    align-items: center;
    gap: 6px;
    max-width: 240px;
    padding: 6px 12px;
    border: 1px solid transparent;
    border-bottom: 0;
    border-radius: 7px 7px 0 0;
    color: var(--ink-2);
    font-size: 13px;
    white-space: nowrap;
  }
  .queue a[aria-current='true'] {
    border-color: var(--rule);
    background: var(--page);
    color: var(--ink);
    font-weight: 650;
  }
  .side-by-side {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 44fr) minmax(0, 56fr);
    min-height: 0;
  }
  .page {
    border-right: 1px solid var(--margin-rule);
    overflow: auto;
  }
  .values {
    padding: 16px 24px 60px;
    container-type: inline-size;
    overflow: auto;
  }
  .form {
    margin-top: 16px;
    padding-top: 8px;
    border-top: 1px solid var(--rule);
  }
  @media (max-width: 900px) {
    .side-by-side {
      display: flex;
      flex-direction: column-reverse;
      justify-content: flex-end;
    }
    .page,
    .values {
      overflow: visible;
    }
  }
</style>
