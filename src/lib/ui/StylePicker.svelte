<script lang="ts">
  import { FORMAT_LABELS, type CitationFormat } from '$lib/core/citing';
  import { call, debounce } from './client';
  import { attempt } from './toasts.svelte';

  interface Found {
    id: string;
    label: string;
    format: string;
  }
  /** A citing style, chosen from the whole catalogue; the ones used most are offered before anything is typed. */
  let { id, title, onchoose }: { id: string; title: string; onchoose: (id: string) => void } = $props();

  let open = $state(false);
  let found = $state<Found[]>([]);
  let at = $state(0);
  let place: HTMLElement | undefined = $state();
  let input: HTMLInputElement | undefined = $state();
  const listId = $props.id();

  async function find(words: string) {
    const styles = await attempt(() => call<Found[]>('GET', `/api/styles?q=${encodeURIComponent(words)}`));
    if (styles) [found, at] = [styles, 0];
  }
  const later = debounce((words: string) => void find(words), 120);

  async function show() {
    open = true;
    await find('');
    input?.focus();
  }
  function choose(style: Found | undefined) {
    if (!style) return;
    open = false;
    if (style.id !== id) onchoose(style.id);
  }
  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') at = Math.min(found.length - 1, at + 1);
    else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
    else if (event.key === 'Enter') choose(found[at]);
    else if (event.key === 'Escape') open = false;
    else return;
    event.preventDefault();
    event.stopPropagation();
    document.getElementById(`${listId}-${at}`)?.scrollIntoView({ block: 'nearest' });
  }
</script>

<svelte:window onclick={(e) => open && !place?.contains(e.target as Node) && (open = false)} />

<div class="picker" bind:this={place}>
  <button
    class="chip on"
    aria-haspopup="listbox"
    aria-expanded={open}
    aria-label="Citing style: {title}"
    onclick={() => (open ? (open = false) : void show())}>{title} ▾</button
  >
  {#if open}
    <div class="panel">
      <input
        bind:this={input}
        class="field"
        placeholder="Find a style by name"
        role="combobox"
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant="{listId}-{at}"
        aria-label="Find a style by name"
        oninput={(e) => later(e.currentTarget.value)}
        {onkeydown}
      />
      <ul id={listId} role="listbox" aria-label="Styles">
        {#each found as style, i (style.id)}
          <li id="{listId}-{i}" role="option" aria-selected={i === at}>
            <button tabindex="-1" data-style={style.id} onclick={() => choose(style)}
              ><span>{style.label}</span><small
                >{FORMAT_LABELS[style.format as CitationFormat] ?? style.format}</small
              ></button
            >
          </li>
        {:else}<li class="small-label p-2">No style has these words in its name.</li>{/each}
      </ul>
    </div>
  {/if}
</div>

<style>
  .picker {
    position: relative;
  }
  .chip {
    max-width: 320px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .panel {
    position: absolute;
    z-index: 30;
    top: 34px;
    left: 0;
    width: min(420px, 90vw);
    padding: 8px;
    border: 1px solid var(--edge);
    border-radius: 8px;
    background: var(--page);
    box-shadow: 0 10px 30px rgb(0 0 0 / 18%);
  }
  ul {
    max-height: 340px;
    margin-top: 6px;
    overflow-y: auto;
  }
  li button {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    width: 100%;
    padding: 5px 8px;
    border-radius: 5px;
    text-align: left;
    cursor: pointer;
  }
  li[aria-selected='true'] button,
  li button:hover {
    background: var(--thread-soft);
  }
  small {
    flex: none;
    color: var(--ink-3);
  }
</style>
