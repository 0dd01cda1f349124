<script lang="ts">
  import { call, PAGE } from '../frame/client';
  import { here } from '../frame/live.svelte';
  import { people } from './others.svelte';
  import PersonMark from './PersonMark.svelte';

  /** Who else looks at a source now; and says that one does oneself, for as long as the page is seen. */
  let { source }: { source: string } = $props();
  const others = $derived(
    people.all.filter(({ id }) => id !== people.self && here.get(source)?.includes(id)),
  );
  /** How often a page says that it still looks, in milliseconds: more often than the server forgets it. */
  const AGAIN = 20_000;

  $effect(() => {
    if (!people.several) return;
    const id = source;
    const say = async () => {
      if (document.visibilityState === 'hidden') return leave();
      // Nobody minds when this is not heard.
      const answer = await call<{ people: string[] }>('POST', '/api/here', { page: PAGE, source: id }).catch(
        () => undefined,
      );
      if (answer) here.set(id, answer.people);
    };
    const leave = () =>
      void navigator.sendBeacon(
        '/api/here',
        new Blob([JSON.stringify({ page: PAGE, source: null })], { type: 'application/json' }),
      );
    void say();
    const timer = setInterval(() => void say(), AGAIN);
    document.addEventListener('visibilitychange', say);
    window.addEventListener('pagehide', leave);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', say);
      window.removeEventListener('pagehide', leave);
      leave();
    };
  });
</script>

<span class="here" class:nobody={others.length === 0} role="status">
  {#each others.slice(0, 3) as one (one.id)}<PersonMark id={one.id} name={one.name} />{/each}
  {#if others.length}<span
      >{others.length > 3 ? `and ${others.length - 3} more are` : others.length > 1 ? 'are' : 'is'} here too</span
    >{/if}
</span>

<style>
  .here {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: center;
    color: var(--ink-2);
    font-size: 13px;
  }
  .here.nobody {
    display: none;
  }
</style>
