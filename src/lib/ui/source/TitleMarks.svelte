<script lang="ts">
  import { marked, type RichMark } from '$lib/core/text';
  import { Button } from '../kit';

  /** Marks words of a title as italic and the like, by buttons, and by keys while one types in it. */
  let { field }: { field: string } = $props();

  const MARKS: { mark: RichMark; sign: string; key: string; shift?: boolean; shown: string }[] = [
    { mark: 'italic', sign: 'i', key: 'i', shown: 'Ctrl+I' },
    { mark: 'subscript', sign: 'x₂', key: ',', shown: 'Ctrl+,' },
    { mark: 'superscript', sign: 'x²', key: '.', shown: 'Ctrl+.' },
    { mark: 'small capitals', sign: 'Sᴄ', key: 'k', shift: true, shown: 'Ctrl+Shift+K' },
    { mark: 'keep capitals', sign: 'Aa', key: 'l', shift: true, shown: 'Ctrl+Shift+L' },
  ];
  let place: HTMLElement | undefined = $state();
  const input = () => document.getElementById(`f-${field}`) as HTMLInputElement | null;

  function mark(of: RichMark) {
    const into = input();
    if (!into) return;
    const [from, to] = [into.selectionStart ?? 0, into.selectionEnd ?? 0];
    const made = marked({ text: into.value, from, to }, of);
    if (made.text === into.value) return;
    into.focus();
    into.select();
    // As if it were typed: it can be undone in the field, and leaving the field saves it.
    document.execCommand('insertText', false, made.text);
    into.setSelectionRange(made.from, made.to);
  }
  $effect(() => {
    const into = place && input();
    if (!into) return;
    const press = (event: KeyboardEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      const one = MARKS.find(
        ({ key, shift = false }) => key === event.key.toLowerCase() && shift === event.shiftKey,
      );
      if (!one) return;
      event.preventDefault();
      event.stopPropagation();
      mark(one.mark);
    };
    into.addEventListener('keydown', press);
    return () => into.removeEventListener('keydown', press);
  });
</script>

<span class="marks" role="group" aria-label="Mark the words selected" bind:this={place}>
  {#each MARKS as { mark: of, sign, shown } (of)}
    <Button
      small
      look="quiet"
      aria-label={of}
      title="{of} ({shown})"
      onmousedown={(e) => e.preventDefault()}
      class={of === 'italic' && 'italic'}
      onclick={() => mark(of)}>{sign}</Button
    >
  {/each}
</span>

<style>
  /* Over what stands above: nothing moves when one comes or leaves, least of all what is being pressed. */
  .marks {
    position: absolute;
    z-index: 4;
    right: 0;
    bottom: 100%;
    display: none;
    gap: 2px;
    padding: 2px;
    border: 1px solid var(--edge);
    border-radius: 7px;
    background: var(--page);
    box-shadow: 0 4px 14px rgb(0 0 0 / 12%);
  }
  :global(.row:focus-within) .marks {
    display: inline-flex;
  }
</style>
