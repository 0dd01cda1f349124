<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import { PLAIN_LOOK, type TagLook } from '$lib/core/source';
  import type { TagItem } from '$lib/server/tags';
  import { call } from '../frame/client';
  import type { Made } from '$lib/server/many';
  import { placesOf } from '../frame/counting';
  import { attempt, change, doneWith } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import TagLookForm from './TagLookForm.svelte';
  import TagRename from './TagRename.svelte';

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
  let busy = $state(false);

  const looks = $derived((page.data.tagLooks ?? {}) as Record<string, TagLook>);
  const groups = $derived(
    [...new Set(Object.values(looks).flatMap(({ group }) => group ?? []))].sort((a, b) => a.localeCompare(b)),
  );

  async function dress(look: TagLook) {
    const kept = await change('/api/tags/looks', { looks: { [tag]: look } }, `How ${tag} looks is kept.`);
    if (kept) dressing = false;
  }
  type Said = { act: 'rename'; tag: string; to: string } | { act: 'take off'; tag: string };
  const send = (said: Said) => call<Made & { sources: number; passages: number }>('POST', '/api/tags', said);
  /** Says what was done, once it is, by a job where it is much. */
  async function tell(said: Said, made: Awaited<ReturnType<typeof send>>) {
    const where = placesOf(made);
    await doneWith(made, made.sources + made.passages, () =>
      said.act === 'rename'
        ? `${said.tag} is called ${said.to} now, in ${where}.`
        : `${said.tag} is taken off ${where}.`,
    );
    onchanged?.(said.act === 'rename' ? said.to : undefined);
  }
  async function rename(to: string) {
    const said: Said = { act: 'rename', tag, to };
    void tell(said, await send(said));
  }
  async function takeOff() {
    const said: Said = { act: 'take off', tag };
    busy = true;
    const made = await attempt(() => send(said));
    busy = false;
    if (made) await tell(said, made);
  }
</script>

{#if renaming}
  <TagRename {tag} {tags} onrename={rename} onclose={() => (renaming = false)} />
{:else}
  {@render children?.()}
  <Button
    needs="edit"
    small
    aria-label="How {tag} looks"
    aria-expanded={dressing}
    onclick={() => (dressing = !dressing)}>Colour and group</Button
  >
  <Button needs="edit" small onclick={() => (renaming = true)} aria-label="Rename {tag}">Rename</Button>
  <Button needs="edit" small look="quiet" disabled={busy} aria-label="Take {tag} off" onclick={takeOff}
    >Take off</Button
  >
  {#if dressing}<TagLookForm
      {tag}
      look={looks[tag] ?? PLAIN_LOOK}
      {groups}
      onsay={dress}
      onclose={() => (dressing = false)}
    />{/if}
{/if}
