<script lang="ts">
  import { page } from '$app/state';
  import { onMount, tick } from 'svelte';
  import { KIND_LABELS, locatorOfStint, locatorText, stintOf, timeText } from '$lib/core/passages';
  import type { PassageItem, PassageWords } from '$lib/server/passages';
  import { offer } from '../frame/actions.svelte';
  import { call, debounce } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { allows, Button, Select, Slider } from '../kit';
  import { asSaid, nothingSaid } from './begun.svelte';
  import CopyHead from './CopyHead.svelte';
  import EditPassage from './EditPassage.svelte';
  import { lookedAt } from './looked.svelte';
  import type { CopyOpen } from './open';
  import { mayChange, onlyFor, people } from '../people/others.svelte';
  import Thread from '../people/Thread.svelte';
  import WhoseLine from '../people/WhoseLine.svelte';
  import PassageSheet from './PassageSheet.svelte';
  import { BARS, wave } from './sound';

  /** A recording that is heard: its time line with what was kept of it, and the moments one keeps. */
  let { data }: { data: CopyOpen } = $props();
  const STEP = 5;
  const SPEEDS = [0.75, 1, 1.25, 1.5, 2];

  let player: HTMLAudioElement | undefined = $state();
  let at = $state(0);
  let length = $state(0);
  let speed = $state('1');
  let failed = $state(false);
  /** Where what is to be kept begins, where that was said. */
  let from = $state<number | undefined>();
  let begun = $state.raw<{ said: PassageWords; exact: string } | undefined>();
  let editingId = $state<string | undefined>();
  let chosen = $state<string | undefined>();
  let peaks = $state.raw<number[] | undefined>();

  const since = lookedAt(() => data);
  const name = $derived(`sound ${data.copy.id}`);
  const start = (p: PassageItem) => stintOf(p.locator)?.start ?? -1;
  const passages = $derived([...data.passages].sort((a, b) => start(a) - start(b)));
  const editing = $derived(data.passages.find((p) => p.id === editingId));
  const share = (seconds: number) => `${length ? (100 * seconds) / length : 0}%`;

  onMount(() => {
    void wave(`/copies/${data.copy.id}/file`, data.copy.size).then((found) => (peaks = found));
    begun = drafts.find(name);
  });

  function ready() {
    // What was recorded as it came says its length only when it is heard to its end.
    length = Number.isFinite(player?.duration) ? (player?.duration ?? 0) : (data.place?.length ?? 0);
    const wanted = data.passages.find((p) => p.id === page.url.searchParams.get('passage'));
    const stint = wanted && stintOf(wanted.locator);
    if (wanted) chosen = wanted.id;
    if (player) player.currentTime = stint?.start ?? data.place?.at ?? 0;
  }

  let furthest = 0;
  const putDown = debounce(() => {
    furthest = Math.max(furthest, data.place?.furthest ?? 0, at);
    if (length > 0)
      void call('POST', `/api/copies/${data.copy.id}/place`, {
        at: Math.floor(at),
        furthest: Math.floor(furthest),
        length: Math.ceil(length),
      }).catch(() => undefined);
  }, 900);

  const go = (seconds: number) => {
    if (player) player.currentTime = Math.max(0, Math.min(length || seconds, seconds));
  };
  const play = () => void (player?.paused ? player.play().catch(() => undefined) : player?.pause());
  function hear(passage: PassageItem) {
    chosen = passage.id;
    const stint = stintOf(passage.locator);
    if (!stint) return;
    go(stint.start);
    void player?.play().catch(() => undefined);
  }

  function keepMoment() {
    player?.pause();
    const stint = { start: from ?? at, end: from === undefined ? undefined : at };
    begun ??= { said: nothingSaid('quotation', 'claim'), exact: '' };
    begun = { ...begun, said: { ...begun.said, locator: locatorOfStint(stint) } };
    editingId = undefined;
    open = true;
  }
  let open = $state(false);
  function leave() {
    [open, editingId, from] = [false, undefined, undefined];
  }
  function typed(said: PassageWords, exact: string) {
    if (said.gist || said.ownWords || exact) drafts.keep(name, { said, exact });
    else drafts.drop(name);
  }
  async function keep(said: PassageWords, exact: string) {
    const made = await attempt(() =>
      call<PassageItem>('POST', '/api/passages', { ...said, copyId: data.copy.id, selectors: null, exact }),
    );
    if (!made) return;
    drafts.drop(name);
    begun = undefined;
    leave();
    done(`Kept: ${[KIND_LABELS[said.kind], said.locator?.value].filter(Boolean).join(', ')}.`);
    await renewed();
    chosen = made.id;
  }
  offer(() => ({
    'sound play': play,
    'sound keep': open || editing || !allows('annotate') ? undefined : keepMoment,
    'sound back': () => go(at - STEP),
    'sound on': () => go(at + STEP),
  }));
  $effect(() => {
    if (player) player.playbackRate = Number(speed);
  });
  $effect(() => {
    void [open, editingId];
    void tick().then(() => document.querySelector('.sheet')?.scrollIntoView({ block: 'nearest' }));
  });
</script>

<CopyHead source={data.source} copy={data.copy} copies={data.copies} passages={data.passages.length} />
<div class="sound">
  <section class="line" aria-label="Recording">
    <audio
      controls
      preload="metadata"
      src="/copies/{data.copy.id}/file"
      bind:this={player}
      onloadedmetadata={ready}
      ondurationchange={() => Number.isFinite(player?.duration) && (length = player!.duration)}
      ontimeupdate={() => {
        at = player?.currentTime ?? 0;
        putDown();
      }}
      onerror={() => (failed = true)}
    ></audio>
    {#if failed}<p class="pencil-red">
        This recording cannot be played here. <a class="link" href="/copies/{data.copy.id}/file" download
          >Save it</a
        >
      </p>{/if}
    <div class="time">
      <svg viewBox="0 0 {BARS} 60" preserveAspectRatio="none" aria-hidden="true">
        {#each peaks ?? [] as peak, i (i)}<rect
            x={i}
            y={30 - peak * 28}
            width="0.7"
            height={Math.max(1, peak * 56)}
            class:heard={length > 0 && (i / BARS) * length < at}
          />{/each}
      </svg>
      {#each passages as passage (passage.id)}
        {@const stint = stintOf(passage.locator)}
        {#if stint && length}<Button
            look="bare"
            class="stint"
            style="left: {share(stint.start)}; width: {share(
              (stint.end ?? stint.start) - stint.start,
            )}; --tint: var(--tint-{passage.tint})"
            aria-label="{timeText(stint.start)}: {passage.gist || passage.exact.slice(0, 60)}"
            title={passage.gist || passage.exact.slice(0, 90)}
            onclick={() => hear(passage)}
          ></Button>{/if}
      {/each}
      {#if from !== undefined}<span class="from" style="left: {share(from)}; width: {share(at - from)}"
        ></span>{/if}
      <span class="now" style="left: {share(at)}"></span>
      <Slider
        class="slide"
        aria-label="Time"
        aria-valuetext={timeText(at)}
        min={0}
        max={Math.max(1, Math.ceil(length))}
        step={1}
        value={at}
        oninput={(e) => go(e.currentTarget.valueAsNumber)}
      />
    </div>
    <p class="marks"><span>{timeText(at)}</span><span>{length ? timeText(length) : ''}</span></p>
    <div class="acts">
      <Button look="main" needs="annotate" onclick={keepMoment}>Keep this moment</Button>
      {#if from === undefined}<Button onclick={() => (from = at)}>It begins here</Button>
      {:else}<Button onclick={() => (from = undefined)}>Begins at {timeText(from)}: take back</Button>{/if}
      <Button onclick={() => go(at - STEP)}>Back {STEP} s</Button>
      <Button onclick={() => go(at + STEP)}>On {STEP} s</Button>
      <Select look="chip" aria-label="Speed" bind:value={speed}>
        {#each SPEEDS as s (s)}<option value={String(s)}>{s}×</option>{/each}
      </Select>
    </div>
    {#if open && begun}
      <PassageSheet
        exact={begun.exact}
        said={asSaid(begun.said)}
        of="sound"
        kept={false}
        offeredTags={data.tags}
        ontype={typed}
        onkeep={keep}
        onleave={leave}
      />
    {:else if editing}
      {#key editing.id}<EditPassage
          passage={editing}
          offeredTags={data.tags}
          sections={data.sections}
          placed={editing.sections.map((s) => s.id)}
          tasks={data.tasks.filter((t) => t.passageId === editing.id)}
          links={data.links[editing.id] ?? []}
          others={data.others}
          onleave={leave}
        />{/key}
    {:else if begun}
      <p class="small-label">
        A moment was begun and not kept.
        <Button
          small
          onclick={() => {
            open = true;
          }}>Go on with it</Button
        >
      </p>
    {/if}
  </section>
  <aside aria-label="Passages">
    {#each passages as passage (passage.id)}
      <article
        class:chosen={chosen === passage.id}
        style="--tint: var(--tint-{passage.tint})"
        data-card={passage.id}
      >
        <p class="small-label top">
          <span
            >{[KIND_LABELS[passage.kind], locatorText(passage.locator)].filter(Boolean).join(' · ')}
            {#if !passage.locator && passage.exact}<span class="pencil-red">no place</span>{/if}</span
          ><span>{passage.tint}{onlyFor(passage) ? ` · ${onlyFor(passage)}` : ''}</span>
        </p>
        {#if passage.gist}<p class="gist">{passage.gist}</p>{/if}
        {#if passage.exact}<p class="serif">{passage.exact}</p>{/if}
        {#if passage.ownWords}<p class="serif own">{passage.ownWords}</p>{/if}
        <WhoseLine {passage} thread={data.threads[passage.id]} since={since()} />
        {#if stintOf(passage.locator)}<Button small onclick={() => hear(passage)}>Hear it</Button>{/if}
        {#if mayChange(passage)}<Button
            small
            look="quiet"
            onclick={() => {
              open = false;
              editingId = passage.id;
            }}>Edit</Button
          >{/if}
        {#if people.several}<Thread
            passageId={passage.id}
            thread={data.threads[passage.id]}
            seen={passage}
          />{/if}
      </article>
    {:else}<p class="hint">
        Listen, and keep a moment when something is said: it stands here with its time, and one press plays it
        again.
      </p>{/each}
  </aside>
</div>

<style>
  .sound {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 348px;
    min-height: 0;
    overflow: auto;
  }
  .line {
    display: grid;
    gap: 12px;
    align-content: start;
    padding: 24px 26px 60px;
    border-right: 1px solid var(--margin-rule);
  }
  audio {
    width: 100%;
  }
  .time {
    position: relative;
    height: 84px;
    border: 1px solid var(--rule);
    border-radius: 6px;
    background: var(--side);
  }
  svg {
    position: absolute;
    inset: 6px 0 auto;
    width: 100%;
    height: 60px;
    fill: var(--edge);
  }
  svg .heard {
    fill: var(--thread);
  }
  .time :global(.slide) {
    position: absolute;
    inset: 0 0 auto;
    width: 100%;
    height: 66px;
    margin: 0;
    opacity: 0;
    cursor: pointer;
  }
  .time:focus-within {
    outline: 2px solid var(--thread);
  }
  .time :global(.stint) {
    position: absolute;
    z-index: 2;
    bottom: 2px;
    min-width: 10px;
    height: 14px;
    border-radius: 4px;
    background: var(--tint);
    cursor: pointer;
  }
  .from {
    position: absolute;
    inset-block: 0;
    background: color-mix(in srgb, var(--thread) 18%, transparent);
  }
  .now {
    position: absolute;
    top: 0;
    bottom: 0;
    width: 2px;
    background: var(--red-pencil);
    pointer-events: none;
  }
  .marks,
  .top {
    display: flex;
    justify-content: space-between;
  }
  .marks {
    font-size: 13px;
    font-variant-numeric: tabular-nums;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  aside {
    min-height: 100%;
    padding: 12px 14px;
    background: var(--side);
  }
  article {
    margin-bottom: 10px;
    padding: 8px 12px 9px;
    border: 1px solid var(--rule);
    border-left: 4px solid var(--tint);
    border-radius: 7px;
    background: var(--page);
  }
  article.chosen {
    border-color: var(--thread);
    border-left-color: var(--tint);
  }
  .gist {
    font-weight: 650;
  }
  .own {
    color: var(--ink-2);
  }
  .hint {
    padding: 20px 12px;
    color: var(--ink-3);
  }
  @media (max-width: 900px) {
    .sound {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
