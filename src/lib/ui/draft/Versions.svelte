<script lang="ts">
  import { versionWords } from '$lib/core/forms';
  import { textOfBlock, type DraftPart } from '$lib/core/drafting';
  import type { DraftVersion } from '$lib/server/drafts';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import Differences from '../frame/Differences.svelte';
  import { formOf } from '../frame/forms';
  import { attempt, done } from '../frame/toasts.svelte';
  import { allows, Button, Field, Input } from '../kit';

  interface Props {
    draftId: string;
    flush: () => Promise<void>;
    /** The text as it is now. */
    now: () => DraftPart[];
    onback: (parts: DraftPart[]) => void;
  }
  /** What the text was: versions kept by a name, and those kept by themselves; what differs, and a way back. */
  let { draftId, flush, now, onback }: Props = $props();
  let versions = $state.raw<DraftVersion[]>([]);
  /** The version that is open, with what it says that differs from now. */
  let open = $state.raw<{ id: string; parts: DraftPart[]; changes: { was: string; is: string }[] }>();
  const path = $derived(`/api/drafts/${draftId}/versions`);
  async function change(body: unknown) {
    await flush();
    versions = (await call<{ versions: DraftVersion[] }>('POST', path, body)).versions;
  }
  $effect(() => {
    void attempt(async () => {
      versions = (await call<{ versions: DraftVersion[] }>('GET', path)).versions;
    });
  });
  const { form, errors, enhance, submitting } = formOf(versionWords, { name: '' }, async (said) => {
    await change({ act: 'keep', name: said.name });
    done(`“${said.name}” is kept.`);
    said.name = '';
  });
  /** The version that is being called otherwise, and the one that is asked about before it is let go. */
  let naming = $state('');
  let leaving = $state('');
  const {
    form: called,
    errors: wrong,
    enhance: rename,
    submitting: renaming,
  } = formOf(versionWords, { name: '' }, async ({ name }) => {
    await change({ act: 'name', id: naming, name });
    naming = '';
  });
  const letGo = (id: string) =>
    attempt(async () => {
      await change({ act: 'let go', id });
      leaving = '';
    });
  async function show(id: string) {
    if (open?.id === id) return (open = undefined);
    await attempt(async () => {
      const { parts } = await call<{ parts: DraftPart[] }>('GET', `${path}?version=${id}`);
      const is = new Map(now().map((p) => [p.id, textOfBlock(p.content)]));
      const was = new Map(parts.map((p) => [p.id, textOfBlock(p.content)]));
      const changes = [
        ...parts.map((p) => ({ was: was.get(p.id)!, is: is.get(p.id) ?? '' })),
        ...[...is].filter(([part]) => !was.has(part)).map(([, text]) => ({ was: '', is: text })),
      ].filter((c) => c.was !== c.is);
      open = { id, parts, changes };
    });
  }
</script>

{#if allows('edit')}<form class="head" method="POST" use:enhance>
    <Field quiet label="Name of the version" errors={$errors.name}>
      {#snippet children(attributes)}<Input
          placeholder="First full draft"
          maxlength={200}
          bind:value={$form.name}
          {...attributes}
        />{/snippet}
    </Field>
    <Button small look="main" type="submit" disabled={$submitting}>Keep a version</Button>
  </form>{/if}
<ul aria-label="Versions">
  {#each versions as version (version.id)}
    <li>
      <p class="name">
        <b>{version.name || 'Kept by itself'}</b>
        <span>{timeLabel(version.made)} · {version.words.toLocaleString('en')} words</span>
      </p>
      <p class="acts">
        <Button small aria-expanded={open?.id === version.id} onclick={() => show(version.id)}
          >What differs</Button
        >
        {#if open?.id === version.id}
          <Button
            small
            needs="edit"
            onclick={() => {
              onback(open!.parts);
              done(`The text is what “${version.name || 'it'}” was. Ctrl+Z in the text takes that back.`);
              open = undefined;
            }}>Bring it back</Button
          >
        {/if}
        {#if leaving === version.id}
          <Button small onclick={() => letGo(version.id)}>Let it go for good</Button>
          <Button small look="quiet" onclick={() => (leaving = '')}>Keep it</Button>
        {:else}
          <Button
            small
            look="quiet"
            needs="edit"
            aria-expanded={naming === version.id}
            onclick={() =>
              ([naming, $called.name] = naming === version.id ? ['', ''] : [version.id, version.name ?? ''])}
            >Call it…</Button
          >
          <Button small look="quiet" needs="edit" onclick={() => (leaving = version.id)}>Let go</Button>
        {/if}
      </p>
      {#if naming === version.id}
        <form class="call" method="POST" use:rename>
          <Field quiet label="What the version is called" errors={$wrong.name}>
            {#snippet children(attributes)}<Input
                maxlength={200}
                bind:value={$called.name}
                {...attributes}
              />{/snippet}
          </Field>
          <Button small look="main" type="submit" disabled={$renaming}>Call it so</Button>
        </form>
      {/if}
      {#if open?.id === version.id}
        <div class="changes" aria-label="What differs">
          {#each open.changes as { was, is }, i (i)}
            <p><Differences {was} {is} /></p>
          {:else}<p class="hint">The words are the same.</p>{/each}
        </div>
      {/if}
    </li>
  {/each}
</ul>
{#if versions.length === 0}
  <p class="hint">
    No version yet. Keep one by a name before you change much; while you write, one is kept by itself every
    half an hour.
  </p>
{/if}

<style>
  .call {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    padding-top: 6px;
  }
  .head {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    padding: 8px 14px;
    border-bottom: 1px solid var(--rule);
  }
  ul {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
  li {
    padding: 8px 14px;
    border-bottom: 1px solid var(--rule);
  }
  .name {
    display: grid;
  }
  .name span,
  .hint {
    color: var(--ink-3);
    font-size: 12px;
  }
  .hint {
    padding: 12px 14px;
  }
  .acts {
    display: flex;
    gap: 6px;
    padding-top: 4px;
  }
  .changes p {
    padding: 6px 0;
    border-top: 1px dotted var(--rule);
    font-size: 13px;
  }
</style>
