<script lang="ts">
  import { OMISSION, quotingChanges } from '$lib/core/passages';
  import { Button, Textarea } from '../kit';

  interface Props {
    /** The words as they stand in the work. */
    exact: string;
    /** How they are worded in print, where that is otherwise. */
    wording: string | null;
  }
  /** How a quotation is worded in print, with what was left out of it and put in. */
  let { exact, wording = $bindable() }: Props = $props();
  const id = $props.id();
  let field: HTMLTextAreaElement | undefined = $state();
  const changes = $derived(wording === null ? [] : quotingChanges(exact, wording));

  /** Puts an omission in the place of what is selected, or brackets around it. */
  function mark(kind: 'omit' | 'insert') {
    if (!field || wording === null) return;
    const [start, end] = [field.selectionStart, field.selectionEnd];
    const put = kind === 'omit' ? OMISSION : `[${wording.slice(start, end)}]`;
    const blank = kind === 'omit' && start > 0 && !/\s$/.test(wording.slice(0, start)) ? ' ' : '';
    wording = wording.slice(0, start) + blank + put + wording.slice(end);
    const at = start + blank.length + (kind === 'omit' ? put.length : put.length - 1);
    queueMicrotask(() => {
      field?.focus();
      field?.setSelectionRange(at, at);
    });
  }
</script>

{#if wording === null}
  <Button small look="quiet" class="-ml-2 justify-self-start" onclick={() => (wording = exact)}
    >Quote it with omissions or insertions</Button
  >
{:else}
  <div>
    <div class="head">
      <label class="small-label" for={id}>The quotation as it prints</label>
      <span class="flex gap-1">
        <Button small look="quiet" title="Leave out what is selected" onclick={() => mark('omit')}
          >{OMISSION}</Button
        >
        <Button small look="quiet" title="Set what is selected in brackets" onclick={() => mark('insert')}
          >[ ]</Button
        >
        <Button small look="quiet" onclick={() => (wording = null)}>As it stands</Button>
      </span>
    </div>
    <Textarea {id} rows="3" class="serif" bind:element={field} bind:value={wording} />
    {#if changes.length}
      <ul aria-label="What differs from the document">
        {#each changes as change, i (i)}
          <li class:red={change.kind === 'unmarked'}>
            {#if change.kind === 'left out'}left out: <q>{change.words}</q>
            {:else if change.kind === 'put in'}put in: <q>{change.words}</q>{#if change.instead}, for <q
                  >{change.instead}</q
                >{/if}
            {:else}<q>{change.words}</q> does not stand so in the document, and no brackets say it{/if}
          </li>
        {/each}
      </ul>
    {:else if wording.trim()}<p class="same">Word for word as it stands.</p>{/if}
  </div>
{/if}

<style>
  .head {
    display: flex;
    align-items: end;
    justify-content: space-between;
  }
  ul,
  .same {
    color: var(--ink-2);
    font-size: 12.5px;
    line-height: 1.35;
    overflow-wrap: anywhere;
  }
  .red {
    color: var(--red-pencil);
    font-weight: 600;
  }
  q {
    font-family: var(--font-serif);
  }
</style>
