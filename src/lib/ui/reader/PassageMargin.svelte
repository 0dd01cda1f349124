<script lang="ts">
  import { KIND_LABELS, locatorText } from '$lib/core/passages';
  import type { Passage, PassageItem, PassageLink } from '$lib/server/passages';
  import type { TaskItem } from '$lib/server/tasks';
  import type { Thread as Said } from '$lib/server/replies';
  import { Button } from '../kit';
  import { mayChange, onlyFor, people } from '../people/others.svelte';
  import Thread from '../people/Thread.svelte';
  import WhoseLine from '../people/WhoseLine.svelte';
  import Whose from '../people/Whose.svelte';
  import { wordsSelected, type Begun, type Fresh } from './begun.svelte';
  import type { figuring } from './figuring.svelte';
  import FigurePicture from './FigurePicture.svelte';
  import type { Level } from './level.svelte';
  import TagName from '../source/TagName.svelte';
  import Reworded from './Reworded.svelte';

  interface Props {
    passages: PassageItem[];
    /** Those that are on the whole of it, with no place in it. */
    onWhole: PassageItem[];
    links: Record<string, PassageLink[]>;
    /** What was said to them, by their ids. */
    threads: Record<string, Said>;
    /** All there are, shown or not. */
    all: PassageItem[];
    /** When who looks was last in the document. */
    since: string | undefined;
    tasks: TaskItem[];
    /** Those that were not where they had been. */
    moved: (passage: PassageItem) => boolean;
    chosen: string | undefined;
    fresh: Fresh | undefined;
    waiting: Begun[];
    /** The figure at hand, or begun and waiting. */
    figure: ReturnType<typeof figuring>;
    level: Level;
    ongo: (id: string) => void;
    onedit: (id: string) => void;
    onbegun: (begun: Begun) => void;
    onthrow: (begun: Begun) => void;
    /** Begins a word on the whole document. */
    onwhole: () => void;
  }
  /** The passages of a copy beside its text, each level with its line. */
  let {
    passages,
    onWhole,
    links,
    threads,
    all,
    since,
    tasks,
    moved,
    chosen,
    fresh,
    waiting,
    figure,
    level,
    ongo,
    onedit,
    onbegun,
    onthrow,
    onwhole,
  }: Props = $props();
  /** How many cards are set at a time, so that hundreds of them do not keep the page from answering. */
  const AT_A_TIME = 30;
  let shown = $state(AT_A_TIME);
  $effect(() => {
    if (shown >= passages.length) return;
    const next = setTimeout(() => (shown += AT_A_TIME));
    return () => clearTimeout(next);
  });
  const toDo = (p: Passage) => tasks.filter((t) => t.passageId === p.id && !t.done).length;
  const card = (node: HTMLElement, id: string) => level.card(node, id);
  const head = (node: HTMLElement) => level.head(node);
</script>

{#snippet filed(passage: PassageItem)}
  {@const linked = links[passage.id]?.length ?? 0}
  {@const open = toDo(passage)}
  {@const rest = [
    ...passage.sections.map((s) => `§ ${s.name}`),
    ...(linked ? [linked === 1 ? 'linked with another' : `linked with ${linked}`] : []),
  ]}
  {#if passage.tags.length || passage.sections.length || linked || open}
    <p class="small-label filed">
      <span>
        {#each passage.tags as tag, i (tag)}{i ? ' · ' : ''}<TagName {tag} />{/each}
        {passage.tags.length && rest.length ? '·' : ''}
        {rest.join(' · ')}
      </span>
      {#if open}<span class="pencil-blue">{open === 1 ? 'one thing to do' : `${open} things to do`}</span
        >{/if}
    </p>
  {/if}
{/snippet}

<aside class="margin" aria-label="Passages">
  <section class="on-whole" use:head aria-label="On the whole document">
    <Whose passages={all} />
    {#each onWhole as passage (passage.id)}
      <article style="--tint: var(--tint-{passage.tint})">
        <p class="small-label top">
          <span>{KIND_LABELS[passage.kind]}, on the whole of it</span><span>{onlyFor(passage)}</span>
        </p>
        {#if passage.gist}<p class="gist">{passage.gist}</p>{/if}
        {#if passage.ownWords}<p class="serif own">{passage.ownWords}</p>{/if}
        {@render filed(passage)}
        <WhoseLine {passage} thread={threads[passage.id]} {since} />
        {#if mayChange(passage)}<Button small onclick={() => onedit(passage.id)}>Edit</Button>{/if}
        {#if people.several}<Thread passageId={passage.id} thread={threads[passage.id]} seen={passage} />{/if}
      </article>
    {/each}
    <Button small look="quiet" onclick={onwhole}>A word on the whole of it</Button>
  </section>
  {#if passages.length === 0 && !fresh && !figure.fresh}
    <p class="hint">
      Select a sentence in the text to keep it as a passage. It is marked there and stands here, level with
      its line.
    </p>
  {/if}
  {#each waiting as begun (begun.start)}
    <div class="begun">
      <span class="small-label">Begun and not kept</span>
      <q class="serif">{wordsSelected(begun).slice(0, 90)}</q>
      <span class="flex gap-2">
        <Button small onclick={() => onbegun(begun)}>Go on with it</Button>
        <Button small look="quiet" onclick={() => onthrow(begun)}>Throw away</Button>
      </span>
    </div>
  {/each}
  {#if figure.waiting}
    <div class="begun">
      <span class="small-label">A figure, begun and not kept</span>
      <span class="serif">{figure.waiting.caption.slice(0, 90)}</span>
      <span class="flex gap-2">
        <Button small onclick={figure.resume}>Go on with it</Button>
        <Button small look="quiet" onclick={figure.throwAway}>Throw away</Button>
      </span>
    </div>
  {/if}
  {#each passages.slice(0, shown) as passage (passage.id)}
    <article
      use:card={passage.id}
      class="card"
      class:chosen={chosen === passage.id}
      style:top="{level.tops[passage.id] ?? 0}px"
      style:--tint="var(--tint-{passage.tint})"
      data-card={passage.id}
    >
      <Button
        look="bare"
        class="whole"
        onclick={() => ongo(passage.id)}
        aria-label="Show in the text: {passage.gist || passage.exact.slice(0, 60)}"
      ></Button>
      <p class="small-label top">
        <span
          >{[KIND_LABELS[passage.kind], locatorText(passage.locator)].filter(Boolean).join(' · ')}
          {#if !passage.locator}<span class="pencil-red">no place</span>{/if}</span
        ><span>{passage.tint}{onlyFor(passage) ? ` · ${onlyFor(passage)}` : ''}</span>
      </p>
      <FigurePicture {passage} most={110} />
      {#if passage.gist}<p class="gist">{passage.gist}</p>{:else}<p class="serif short">
          {(passage.wording ?? passage.exact).slice(0, 110)}{passage.exact.length > 110 ? '…' : ''}
        </p>{/if}
      {#if passage.ownWords}<p class="serif own">{passage.ownWords}</p>{/if}
      {@render filed(passage)}
      {#if passage.anchor === 'changed'}<Reworded {passage} />
      {:else if moved(passage)}<p class="pencil-blue small">Moved with the text</p>{/if}
      <WhoseLine {passage} thread={threads[passage.id]} {since} />
      {#if chosen === passage.id}
        {#if mayChange(passage)}<Button small class="edit" onclick={() => onedit(passage.id)}>Edit</Button
          >{/if}
        {#if people.several}<Thread passageId={passage.id} thread={threads[passage.id]} seen={passage} />{/if}
      {/if}
    </article>
  {/each}
  {#if fresh ?? figure.fresh}
    <div class="card new" use:card={'new'} style="top: {level.tops.new ?? 0}px">
      <p class="small-label">
        {#if fresh}New passage{fresh.place ? `, ${locatorText(fresh.place)}` : ''}{:else}New figure{/if}
      </p>
      <p>{fresh ? 'level with the selected lines' : 'level with its box'}</p>
    </div>
  {/if}
</aside>

<style>
  .margin {
    position: relative;
    min-height: 100%;
    background: var(--side);
  }
  .card {
    position: absolute;
    right: 14px;
    left: 14px;
    padding: 8px 12px 9px;
    border: 1px solid var(--rule);
    border-left: 4px solid var(--tint);
    border-radius: 7px;
    background: var(--page);
  }
  .card.chosen {
    border-color: var(--thread);
    border-left-color: var(--tint);
    box-shadow: 0 2px 10px rgb(0 0 0 / 10%);
  }
  .card :global(.whole) {
    position: absolute;
    inset: 0;
    border-radius: 7px;
    cursor: pointer;
  }
  .card :global(.edit) {
    position: relative;
    margin-top: 6px;
  }
  .top {
    display: flex;
    justify-content: space-between;
  }
  .gist {
    font-weight: 650;
  }
  .own,
  .short {
    color: var(--ink-2);
    font-size: 14.5px;
    line-height: 1.4;
  }
  .small {
    font-size: 12px;
  }
  .new {
    border-style: dashed;
    border-left: 4px dashed var(--edge);
    color: var(--ink-3);
  }
  .begun {
    position: relative;
    z-index: 1;
    display: grid;
    gap: 5px;
    margin: 8px 14px 0;
    padding: 8px 12px;
    border: 1px dashed var(--edge);
    border-radius: 8px;
    background: var(--page);
    font-size: 13px;
  }
  .on-whole {
    position: relative;
    z-index: 1;
    padding: 8px 14px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .on-whole article {
    margin-bottom: 8px;
    padding-left: 10px;
    border-left: 4px solid var(--tint);
  }
  .filed {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    margin-top: 3px;
  }
  .hint {
    padding: 28px 26px;
    color: var(--ink-3);
  }
  @media (max-width: 900px) {
    .margin {
      padding: 8px 12px;
    }
    .card {
      position: static;
      margin: 8px 0;
    }
  }
  @media print {
    .margin {
      display: none;
    }
  }
</style>
