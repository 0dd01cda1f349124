<script lang="ts">
  import type { ByHandWords } from '$lib/core/forms';
  import type { Double } from '$lib/server/capture';
  import { call, debounce } from '../frame/client';

  interface Props {
    /** What is typed so far. */
    given: ByHandWords;
    target?: '_blank' | undefined;
  }
  /** Sources there are that look like the one that is being started: said before it is added. */
  let { given, target }: Props = $props();

  /** Fewer letters of a title say nothing. */
  const TELLING = 8;
  let doubles = $state<Double[]>([]);
  let asked = 0;
  const ask = debounce(async (words: ByHandWords, mine: number) => {
    const found = await call<{ doubles: Double[] }>('POST', '/api/duplicates/known', words).catch(
      () => undefined,
    );
    if (found && mine === asked) doubles = found.doubles;
  }, 250);
  $effect(() => {
    const words = Object.fromEntries(Object.entries(given).filter(([, v]) => v?.trim())) as ByHandWords;
    const mine = ++asked;
    const says = words.URL || words.DOI || words.ISBN || words.PMID || (words.title?.length ?? 0) >= TELLING;
    if (says) ask(words, mine);
    else doubles = [];
  });
</script>

<div role="status">
  {#each doubles.slice(0, 2) as double (double.id)}
    <p class="pencil-blue">
      {double.sure ? 'Surely one you have' : 'Looks like one you have'}:
      <a class="link" href="/sources/{double.id}" {target}>{double.label}</a>
      ({double.reason}){#if double.adds?.length}. New in this: {double.adds.join(', ')}{/if}
    </p>
  {/each}
</div>
