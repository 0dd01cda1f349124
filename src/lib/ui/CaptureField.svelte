<script lang="ts">
  import { goto } from '$app/navigation';
  import { recognise } from '$lib/core/source';
  import { openByHand } from './byhand.svelte';
  import { ApiError, call } from './client';
  import { trouble } from './toasts.svelte';

  let text = $state('');
  let over = $state(false);
  let hint = $state<{ text: string; label: string; act: () => void } | undefined>();
  let input: HTMLInputElement | undefined = $state();

  /** Puts the cursor into the field. */
  export function focus(): void {
    input?.focus();
    input?.select();
  }

  async function importText(name: string, body: Blob) {
    try {
      await call('POST', `/api/import?name=${encodeURIComponent(name)}`, body);
      text = '';
      hint = undefined;
      await goto('/import');
    } catch (error) {
      trouble(error);
    }
  }

  async function capture(event?: Event) {
    event?.preventDefault();
    const given = text.trim();
    if (!given) return;
    hint = undefined;
    // The field is free for the next one at once; what could not be captured comes back into it.
    text = '';
    try {
      await call('POST', '/api/captures', { text: given });
    } catch (error) {
      text ||= given;
      if (!(error instanceof ApiError) || error.status !== 422) return trouble(error);
      const what = recognise(given);
      const references = /import it as references/i.test(error.message);
      hint = references
        ? {
            text: error.message,
            label: 'Import',
            act: () => void importText('pasted text', new Blob([given])),
          }
        : {
            text: error.message,
            label: 'Start by hand',
            act: () => {
              openByHand(what.kind === 'isbn' ? { ISBN: what.isbn } : { title: given });
              text = '';
              hint = undefined;
            },
          };
    }
  }

  function dropped(event: DragEvent) {
    event.preventDefault();
    over = false;
    const file = event.dataTransfer?.files[0];
    const address = event.dataTransfer?.getData('text/uri-list') || event.dataTransfer?.getData('text/plain');
    if (file) void importText(file.name, file);
    else if (address) {
      text = address;
      void capture();
    }
  }

  /** References pasted over several lines keep their lines, which an input would drop. */
  function pasted(event: ClipboardEvent) {
    const whole = event.clipboardData?.getData('text/plain') ?? '';
    if (!/\n/.test(whole.trim()) || !/^\s*(?:@\w+\s*[{(]|TY {1,2}- |\[\s*\{)/.test(whole)) return;
    event.preventDefault();
    void importText('pasted text', new Blob([whole]));
  }
</script>

<form
  class="capture"
  class:over
  onsubmit={capture}
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={dropped}
  role="search"
  aria-label="Capture"
>
  <input
    bind:this={input}
    bind:value={text}
    onpaste={pasted}
    onkeydown={(e) => {
      if (e.key !== 'Escape') return;
      if (hint) hint = undefined;
      else input?.blur();
    }}
    aria-label="What to capture"
    placeholder="Paste an address or a DOI, or drop a file of references"
    autocomplete="off"
    spellcheck="false"
  />
  <button>Capture</button>
  {#if hint}
    <div class="hint" role="alert">
      <span>{hint.text}</span>
      <button type="button" class="btn main small" onclick={hint.act}>{hint.label}</button>
    </div>
  {/if}
</form>

<style>
  .capture {
    position: relative;
    display: flex;
    flex: 1;
    max-width: 560px;
    height: 34px;
    border-radius: 6px;
    background: #fff;
  }
  .over {
    box-shadow: 0 0 0 3px #f3d36b;
  }
  input {
    flex: 1;
    min-width: 0;
    padding: 0 12px;
    border: 0;
    border-radius: 6px;
    background: transparent;
    color: #16222c;
    font-size: 14px;
  }
  input::placeholder {
    color: #62717a;
  }
  input:focus {
    box-shadow: 0 0 0 2px #f3d36b;
    outline: none;
  }
  .capture > button {
    margin: 4px;
    padding: 0 13px;
    border-radius: 5px;
    background: #1c4f63;
    color: #fff;
    font-size: 13px;
    font-weight: 650;
    cursor: pointer;
  }
  .capture > button:hover {
    background: #265f74;
  }
  .hint {
    position: absolute;
    z-index: 40;
    top: 40px;
    right: 0;
    left: 0;
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 10px 14px;
    border: 1px solid var(--edge);
    border-radius: 8px;
    background: var(--page);
    color: var(--ink);
    box-shadow: 0 8px 28px rgb(0 0 0 / 18%);
  }
  .hint span {
    flex: 1;
  }
</style>
