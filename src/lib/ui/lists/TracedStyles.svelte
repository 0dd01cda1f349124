<script lang="ts">
  import { runsToText, type TracedReference } from '$lib/core/citing';
  import type { TracedStyle } from '$lib/server/lists';
  import { parts } from '../frame/differences';
  import HowItCame from './HowItCame.svelte';
  import TracedLine from './TracedLine.svelte';

  /** What a style prints of some sources, beside another where there is one; at the side how the part pointed at came. */
  let {
    sources,
    of,
    beside,
  }: {
    sources: { id: string; label: string; kind: string }[];
    of: TracedStyle;
    beside: TracedStyle | undefined;
  } = $props();

  type Printed = 'list' | 'citation';
  let pointed = $state<{ id: string; printed: Printed; at: number }>();
  const references = $derived(new Map(of.references.map((one) => [one.id, one])));
  const others = $derived(new Map(beside?.references.map((one) => [one.id, one])));
  const run = $derived(pointed && references.get(pointed.id)?.[pointed.printed][pointed.at]);
  const PRINTED = [
    ['list', 'In the list'],
    ['citation', 'Cited'],
  ] as const;
  /** What one of the two styles prints: one that has no list, or no citation, stands beside one that has. */
  const shown = (mine: TracedReference, other: TracedReference | undefined) =>
    PRINTED.filter(([printed]) => mine[printed].length || other?.[printed].length);
  const same = $derived(
    sources.filter(({ id }) => {
      const [mine, other] = [references.get(id), others.get(id)];
      return mine && other && shown(mine, other).every(([p]) => runsToText(mine[p]) === runsToText(other[p]));
    }).length,
  );
</script>

<div class="spread">
  <section aria-label="Sources as {of.title} prints them">
    {#if beside}
      <p class="small-label" role="status">
        {same} of {sources.length} print the same words in {beside.title}. What stands beside differs where it
        is marked.
      </p>
    {/if}
    <ul>
      {#each sources as { id, label, kind } (id)}
        {@const reference = references.get(id)!}
        {@const other = others.get(id)}
        <li>
          <p class="small-label">{kind}</p>
          {#if reference.failed !== undefined}
            <p class="failed">It cannot be printed in this style: {reference.failed}</p>
          {/if}
          {#each shown(reference, other) as [printed, where] (printed)}
            <div class="printed" class:cited={printed === 'citation'}>
              {#if reference[printed].length}
                <TracedLine
                  runs={reference[printed]}
                  label="{where}: {label}, as {of.title} has it"
                  at={pointed?.id === id && pointed.printed === printed ? pointed.at : undefined}
                  onpoint={(at) => (pointed = { id, printed, at })}
                />
              {:else}<p class="small-label">{of.title} prints nothing here.</p>{/if}
              {#if other}
                {@const [mine, theirs] = [runsToText(reference[printed]), runsToText(other[printed])]}
                {#if mine !== theirs}
                  <p class="other serif">
                    {#if theirs}{#each parts(theirs, mine, true) as part, i (i)}{#if part.differs}<mark
                            >{part.text}</mark
                          >{:else}{part.text}{/if}{/each}{:else}<span class="small-label"
                        >{beside?.title} prints nothing here.</span
                      >{/if}
                  </p>
                {/if}
              {/if}
            </div>
          {/each}
        </li>
      {/each}
    </ul>
  </section>
  <aside aria-label="How it came">
    {#if run && pointed}
      {@const { id } = pointed}
      <div aria-live="polite">
        <HowItCame
          {run}
          elements={of.elements}
          source={id}
          label={sources.find((source) => source.id === id)?.label ?? ''}
        />
      </div>
    {:else}
      <h2>How it came</h2>
      <p>
        Point at a part of a reference to see which field it is from and which elements of the style print it.
        By keys: Tab to a reference, then the arrows.
      </p>
    {/if}
    {#if of.remarks.length}
      <h2 class="remarks">Remarks on {of.title}</h2>
      <ul>
        {#each of.remarks as remark, i (i)}
          <li>
            {#if remark.line}<span class="small-label">line {remark.line}</span>{/if}
            <code>{remark.tag}</code>
            {remark.text}.
          </li>
        {/each}
      </ul>
    {/if}
  </aside>
</div>

<style>
  .spread {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 340px;
    min-height: 0;
  }
  section {
    padding: 12px 26px 60px;
    overflow-y: auto;
  }
  section li {
    padding: 10px 0;
    border-bottom: 1px solid var(--rule);
  }
  .cited {
    margin-left: 24px;
  }
  .other {
    padding: 2px 4px;
    border-left: 2px solid var(--margin-rule);
    color: var(--ink-2);
    font-size: 14px;
    line-height: 1.5;
    overflow-wrap: anywhere;
  }
  .other mark {
    background: var(--thread-soft);
    color: var(--ink);
    font-weight: 600;
  }
  .failed {
    color: var(--red-pencil);
  }
  aside {
    padding: 16px 20px 60px;
    border-left: 1px solid var(--margin-rule);
    font-size: 14px;
    overflow-y: auto;
  }
  aside h2 {
    font-size: 15px;
    font-weight: 600;
  }
  aside p {
    margin-top: 8px;
    color: var(--ink-2);
  }
  .remarks {
    margin-top: 24px;
  }
  aside ul {
    display: grid;
    gap: 8px;
    margin-top: 8px;
  }
  code {
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  @media (max-width: 900px) {
    .spread {
      grid-template-columns: minmax(0, 1fr);
    }
    aside {
      position: sticky;
      bottom: 0;
      max-height: 45vh;
      border-top: 1px solid var(--edge);
      border-left: 0;
      background: var(--page);
    }
  }
</style>
