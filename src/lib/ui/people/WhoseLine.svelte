<script lang="ts">
  import type { PassageItem } from '$lib/server/passages';
  import type { Thread } from '$lib/server/replies';
  import { people } from './others.svelte';
  import PersonMark from './PersonMark.svelte';

  interface Props {
    passage: PassageItem;
    thread: Thread | undefined;
    /** When one looked last, where that is known: what others did since is new. */
    since?: string | undefined;
  }
  /** Whose a passage is, and how much was said to it, where others may have kept it. */
  let { passage, thread, since }: Props = $props();
  const isNew = ({ ownerId, added }: { ownerId: string; added: string }) =>
    since !== undefined && ownerId !== people.self && added > since;
  const said = $derived(thread?.replies.length ?? 0);
</script>

{#if people.several || passage.ownerId !== people.self}
  <p class="small-label whose">
    <PersonMark id={passage.ownerId} name={passage.owner} self={passage.ownerId === people.self} />
    {#if isNew(passage)}<span class="pencil-blue">new</span>{/if}
    {#if thread?.settled}<span>settled</span>{/if}
    {#if said}<span class:pencil-blue={thread?.replies.some(isNew)}
        >{said === 1 ? 'one reply' : `${said} replies`}</span
      >{/if}
  </p>
{/if}

<style>
  .whose {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: center;
  }
</style>
