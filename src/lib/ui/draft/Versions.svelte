<script lang="ts">
  import { textOfBlock, type DraftPart } from '$lib/core/drafting';
  import type { DraftVersion } from '$lib/server/drafts';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import Differences from '../frame/Differences.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { allows, Button, Input } from '../kit';

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
  let name = $state('');
  /** The version that is open, with what it says that differs from now. */
  let open = $state.raw<{ id: string; parts: DraftPart[]; changes: { was: string; is: string }[] }>();
  const path = $derived(`/api/drafts/${draftId}/versions`);
  const change = (body: unknown) =>
    attempt(async () => {
      await flush();
      versions = (await call<{ versions: DraftVersion[] }>('POST', path, body)).versions;
      return true;
    });
  $effect(() => {
    void attempt(async () => {
      versions = (await call<{ versions: DraftVersion[] }>('GET', path)).versions;
    });
  });
  async function keep() {
    if (!name.trim()) return;
    if (await change({ act: 'keep', name })) {
      done(`“${name}” is kept.`);
      name = '';
    }
  }
  /** The version that is being called otherwise, and the one that is asked about before it is let go. */
  let naming = $state<{ id: string; name: string }>();
  let leaving = $state('');
  async function rename() {
    if (naming?.name.trim() && (await change({ act: 'name', ...naming }))) naming = undefined;
  }
  async function letGo(id: string) {
    if (await change({ act: 'let go', id })) leaving = '';
  }
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

{#if allows('edit')}<form
    class="head"
    onsubmit={(e) => {
      e.preventDefault();
      void keep();
    }}
  >
    <Input
      aria-label="Name of the version"
      placeholder="First full draft"
      maxlength={200}
      bind:value={name}
    />
    <Button small look="main" type="submit" disabled={!name.trim()}>Keep a version</Button>
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
            aria-expanded={naming?.id === version.id}
            onclick={() =>
              (naming = naming?.id === version.id ? undefined : { id: version.id, name: version.name ?? '' })}
            >Call it…</Button
          >
          <Button small look="quiet" needs="edit" onclick={() => (leaving = version.id)}>Let go</Button>
        {/if}
      </p>
      {#if naming?.id === version.id}
        <form
          class="call"
          onsubmit={(e) => {
            e.preventDefault();
            void rename();
          }}
        >
          <Input aria-label="What the version is called" maxlength={200} bind:value={naming.name} />
          <Button small look="main" type="submit" disabled={!naming.name.trim()}>Call it so</Button>
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
