<script lang="ts">
  import { Button, FileButton, Input, Select } from '../kit';
  import { StarOutline, StarSolid, TrashBinOutline } from 'flowbite-svelte-icons';
  import { FIELD_LABELS, FORMAT_LABELS, localeLabel, type CitationFormat } from '$lib/core/citing';
  import type { FoundStyle } from '$lib/server/lists';
  import type { ShownReference } from '$lib/server/lists';
  import { call, debounce } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import { styleSamples } from './style-samples.svelte';

  /**
   * A citing style, chosen from the whole catalogue and from styles one brings. `samples` are sources on which the style
   * under the cursor is shown. `inline` unfolds in place, where there is no room to hang over.
   */
  let {
    id,
    title,
    locale,
    samples = [],
    inline = false,
    onchoose,
  }: {
    id: string;
    title: string;
    locale: string;
    samples?: string[];
    inline?: boolean;
    onchoose: (id: string, title: string, language?: string | undefined) => void;
  } = $props();

  const printed = styleSamples(
    () => samples[0],
    () => locale,
  );
  let open = $state(false);
  let words = $state('');
  let format = $state('');
  let field = $state('');
  let found = $state.raw<FoundStyle[]>([]);
  let at = $state(0);
  let preview = $state.raw<ShownReference[]>([]);
  let place: HTMLElement | undefined = $state();
  let input: HTMLInputElement | undefined = $state();
  const listId = $props.id();
  const under = $derived(found[at]);

  /** What the list answers; it lags behind what is typed. */
  let answered = '';
  const wanted = () => String(new URLSearchParams({ q: words, format, field }));
  async function find(keep = false) {
    const query = wanted();
    const styles = await attempt(() => call<FoundStyle[]>('GET', `/api/styles?${query}`));
    if (!styles || query !== wanted()) return;
    answered = query;
    [found, at] = [styles, keep ? Math.min(at, Math.max(0, styles.length - 1)) : 0];
  }
  const later = debounce(() => void find(), 120);

  let asked = 0;
  const show = debounce((style: string) => {
    const mine = ++asked;
    void call<ShownReference[]>('POST', '/api/printed', { ids: samples.slice(0, 2), look: { style, locale } })
      .then((printed) => {
        if (mine === asked) preview = printed;
      })
      .catch(() => {
        if (mine === asked) preview = [];
      });
  }, 150);
  $effect(() => {
    if (open && under && samples.length) show(under.id);
  });

  async function unfold() {
    open = true;
    await find();
    input?.focus();
  }
  function choose(style: (Pick<FoundStyle, 'id' | 'label'> & Partial<FoundStyle>) | undefined) {
    if (!style) return;
    open = false;
    if (style.id !== id) onchoose(style.id, style.label, style.language);
  }
  /** Chooses the style under the cursor, of those that answer what is typed by now. */
  async function take() {
    if (answered !== wanted()) await find();
    choose(under);
  }
  async function star(style: FoundStyle) {
    await attempt(() => call('PATCH', '/api/styles', { style: style.id, favourite: !style.favourite }));
    await find(true);
  }
  async function takeOut(style: FoundStyle) {
    await attempt(async () => {
      await call('PATCH', '/api/styles', { style: style.id, takeOut: true });
      done(`${style.label} is out of the catalogue. Bring its file again to have it back.`);
    });
    await find(true);
  }
  async function bring(given: File | undefined) {
    if (!given) return;
    const made = await attempt(() =>
      call<{ id: string; title: string; of?: string }>(
        'POST',
        `/api/styles?name=${encodeURIComponent(given.name)}`,
        given,
      ),
    );
    if (!made) return;
    done(
      made.of
        ? `${made.of} prints as ${made.title}, which is in the catalogue.`
        : `${made.title} is in your catalogue.`,
    );
    choose({ id: made.id, label: made.title });
  }
  /** A pointer that rests while the list changes under it chooses nothing. */
  const moved = ({ movementX, movementY }: MouseEvent) => movementX !== 0 || movementY !== 0;
  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') at = Math.min(found.length - 1, at + 1);
    else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
    else if (event.key === 'Enter') void take();
    else if (event.key === 'Escape') open = false;
    else return;
    event.preventDefault();
    event.stopPropagation();
    document.getElementById(`${listId}-${at}`)?.scrollIntoView({ block: 'nearest' });
  }
</script>

<svelte:window onclick={(e) => open && !place?.contains(e.target as Node) && (open = false)} />

<div class="picker" bind:this={place}>
  <Button
    look="chip"
    class="chosen border-thread bg-thread-soft"
    aria-haspopup="listbox"
    aria-expanded={open}
    aria-label="Citing style: {title}"
    onclick={() => (open ? (open = false) : void unfold())}>{title} ▾</Button
  >
  {#if open}
    <div class="panel" class:within={inline}>
      <Input
        bind:element={input}
        bind:value={words}
        placeholder="Find a style by name"
        role="combobox"
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant="{listId}-{at}"
        aria-label="Find a style by name"
        oninput={later}
        {onkeydown}
      />
      <div class="narrow">
        <Select look="chip" aria-label="How it cites" bind:value={format} onchange={() => find()}>
          <option value="">Any kind</option>
          {#each Object.entries(FORMAT_LABELS) as [value, label] (value)}<option {value}>{label}</option
            >{/each}
        </Select>
        <Select look="chip" aria-label="Field of study" bind:value={field} onchange={() => find()}>
          <option value="">Any field</option>
          {#each Object.entries(FIELD_LABELS) as [value, label] (value)}<option {value}>{label}</option
            >{/each}
        </Select>
      </div>
      <ul id={listId} role="listbox" aria-label="Styles">
        {#each found as style, i (style.id)}
          <li id="{listId}-{i}" role="option" aria-selected={i === at} {@attach printed.seen(style.id)}>
            <Button
              look="bare"
              tabindex={-1}
              data-style={style.id}
              onmousemove={(e) => moved(e) && (at = i)}
              onclick={() => choose(style)}
              ><span class="named"
                ><span>{style.label}</span><small
                  >{style.own ? 'your own, ' : ''}{FORMAT_LABELS[style.format as CitationFormat] ??
                    style.format}{style.language && style.language !== locale
                    ? `, ${localeLabel(style.language)}`
                    : ''}</small
                ></span
              >{#if samples.length}<span class="sample serif" aria-hidden="true"
                  ><!-- eslint-disable-next-line svelte/no-at-html-tags -- made by our own printer, which escapes -->
                  {@html printed.of(style.id) ?? ''}</span
                >{/if}</Button
            >
            {#if style.own}<Button
                look="bare"
                class="sign"
                aria-label="Take {style.label} out of the catalogue"
                onclick={() => takeOut(style)}><TrashBinOutline size="sm" /></Button
              >{/if}
            <Button
              look="bare"
              class={['sign', style.favourite && 'kept']}
              aria-pressed={style.favourite}
              aria-label="Keep {style.label} at hand"
              onclick={() => star(style)}
              >{#if style.favourite}<StarSolid size="sm" />{:else}<StarOutline size="sm" />{/if}</Button
            >
          </li>
        {:else}<li class="small-label p-2">No style answers to this.</li>{/each}
      </ul>
      {#if samples.length && under}
        <div class="preview" aria-live="polite" aria-label="{under.label} on your sources">
          {#each preview as reference (reference.id)}
            <!-- eslint-disable-next-line svelte/no-at-html-tags -- made by our own printer, which escapes -->
            <p class="serif">{@html reference.html || 'Nothing prints for this source.'}</p>
          {/each}
        </div>
      {/if}
      <div class="bring">
        <FileButton small label="Style file" accept=".csl,.xml" onfiles={([given]) => bring(given)}
          >Bring a style of your own (.csl)</FileButton
        >
      </div>
    </div>
  {/if}
</div>

<style>
  .picker {
    position: relative;
  }
  .picker > :global(.chosen) {
    max-width: 320px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .panel {
    position: absolute;
    z-index: 30;
    top: 34px;
    left: 0;
    width: min(460px, 92vw);
    padding: 8px;
    border: 1px solid var(--edge);
    border-radius: 8px;
    background: var(--page);
    box-shadow: 0 10px 30px rgb(0 0 0 / 18%);
  }
  .within {
    position: static;
    width: auto;
    margin-top: 6px;
    box-shadow: none;
  }
  .within ul {
    max-height: 190px;
  }
  .narrow {
    display: flex;
    gap: 6px;
    margin-top: 6px;
  }
  ul {
    max-height: 280px;
    margin-top: 6px;
    overflow-y: auto;
  }
  li {
    display: flex;
    align-items: center;
    border-radius: 5px;
  }
  .named {
    display: flex;
    justify-content: space-between;
    gap: 12px;
  }
  .sample {
    display: block;
    min-height: 18px;
    overflow: hidden;
    color: var(--ink-2);
    font-size: 12.5px;
    line-height: 18px;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  li :global(button:first-child) {
    display: block;
    flex: 1;
    min-width: 0;
    padding: 5px 8px;
    text-align: left;
    cursor: pointer;
  }
  li[aria-selected='true'] {
    background: var(--thread-soft);
  }
  small {
    flex: none;
    color: var(--ink-3);
  }
  li :global(.sign) {
    flex: none;
    padding: 5px;
    color: var(--ink-3);
    cursor: pointer;
  }
  li :global(.kept) {
    color: var(--thread);
  }
  .preview {
    display: grid;
    gap: 6px;
    min-height: 74px;
    margin-top: 8px;
    padding: 8px;
    border-top: 1px solid var(--rule);
    font-size: 13.5px;
    line-height: 1.35;
  }
  .bring {
    padding-top: 8px;
    border-top: 1px solid var(--rule);
  }
</style>
