<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import { PLAIN_LOOK, type TagLook } from '$lib/core/source';
  import type { TagItem } from '$lib/server/tags';
  import { call } from '../frame/client';
  import { attempt, change, done } from '../frame/toasts.svelte';
  import { Button, Input } from '../kit';
  import TagLookForm from './TagLookForm.svelte';

  interface Props {
    tag: string;
    /** All tags there are, with what has them. */
    tags: readonly TagItem[];
    /** Told what it is called now; nothing where it was taken off all. */
    onchanged?: (name: string | undefined) => void;
    /** What stands before the buttons; not while it is called otherwise. */
    children?: Snippet;
  }
  /** What can be done to a tag wherever it is: called otherwise, joined with another, taken off; its colour and group. */
  let { tag, tags, onchanged, children }: Props = $props();

  let renaming = $state(false);
  let dressing = $state(false);
  let typed = $state('');
  let busy = $state(false);

  const many = (n: number, one: string) => `${n.toLocaleString('en')} ${n === 1 ? one : `${one}s`}`;
  const looks = $derived((page.data.tagLooks ?? {}) as Record<string, TagLook>);
  const groups = $derived(
    [...new Set(Object.values(looks).flatMap(({ group }) => group ?? []))].sort((a, b) => a.localeCompare(b)),
  );
  /** A tag there is that is called as what was typed. */
  const joins = $derived(
    tags.find((one) => one.tag !== tag && one.tag.toLowerCase() === typed.trim().toLowerCase()),
  );

  async function dress(look: TagLook) {
    const kept = await change('/api/tags/looks', { looks: { [tag]: look } }, `How ${tag} looks is kept.`);
    if (kept) dressing = false;
  }
  async function alter(said: { act: 'rename'; tag: string; to: string } | { act: 'take off'; tag: string }) {
    if (busy) return;
    busy = true;
    const made = await attempt(() =>
      call<{ revisions: string[]; sources: number; passages: number }>('POST', '/api/tags', said),
    );
    busy = false;
    if (!made) return;
    renaming = false;
    const where = [
      ...(made.sources ? [many(made.sources, 'source')] : []),
      ...(made.passages ? [many(made.passages, 'passage')] : []),
    ].join(' and ');
    done(
      said.act === 'rename'
        ? `${said.tag} is called ${said.to} now, in ${where}.`
        : `${said.tag} is taken off ${where}.`,
      made.revisions,
    );
    onchanged?.(said.act === 'rename' ? said.to : undefined);
  }
  function rename() {
    const to = joins?.tag ?? typed.trim();
    if (!to || to === tag) renaming = false;
    else void alter({ act: 'rename', tag, to });
  }
</script>

{#if renaming}
  <form
    onsubmit={(e) => {
      e.preventDefault();
      rename();
    }}
  >
    <Input
      autofocus
      class="w-[260px]!"
      aria-label="New name of {tag}"
      bind:value={typed}
      onkeydown={(e: KeyboardEvent) => {
        if (e.key === 'Escape') renaming = false;
      }}
    />
    <Button look="main" type="submit" disabled={busy || !typed.trim()}
      >{joins ? `Join with ${joins.tag}` : 'Rename'}</Button
    >
    <Button look="quiet" onclick={() => (renaming = false)}>Leave it</Button>
    {#if joins}<span class="small-label"
        >{joins.tag} is there already, on {many(joins.sources, 'source')} and {many(
          joins.passages,
          'passage',
        )}.</span
      >{/if}
  </form>
{:else}
  {@render children?.()}
  <Button
    needs="edit"
    small
    aria-label="How {tag} looks"
    aria-expanded={dressing}
    onclick={() => (dressing = !dressing)}>Colour and group</Button
  >
  <Button
    needs="edit"
    small
    onclick={() => {
      [renaming, typed] = [true, tag];
    }}
    aria-label="Rename {tag}">Rename</Button
  >
  <Button
    needs="edit"
    small
    look="quiet"
    disabled={busy}
    aria-label="Take {tag} off"
    onclick={() => alter({ act: 'take off', tag })}>Take off</Button
  >
  {#if dressing}<TagLookForm
      {tag}
      look={looks[tag] ?? PLAIN_LOOK}
      {groups}
      onsay={dress}
      onclose={() => (dressing = false)}
    />{/if}
{/if}

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: center;
  }
</style>
