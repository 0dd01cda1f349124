<script lang="ts">
  import { Editor } from '@tiptap/core';
  import { onMount, untrack } from 'svelte';
  import type { CitedWork, Inline } from '$lib/core/drafting';
  import { v7 } from 'uuid';
  import { keyFor } from '../frame/actions.svelte';
  import { pressed } from '../frame/keys';
  import { Button } from '../kit';
  import CiteField from './CiteField.svelte';
  import { extensionsForNote } from './schema';
  import type { Showing } from './showing';

  interface Props {
    content: Inline[];
    showing: Showing;
    projectId: string;
    labels: ReadonlyMap<string, string>;
    top: number;
    left: number;
    /** It opens upwards from there. */
    above?: boolean;
    ondrop: () => void;
    /** Called as it is written, so that nothing is lost. */
    onwrite: (content: Inline[]) => void;
    onleave: () => void;
  }
  /** A footnote, written beside its sign; citations go into it as into the text. */
  let {
    content,
    showing,
    projectId,
    labels,
    top,
    left,
    above = false,
    ondrop,
    onwrite,
    onleave,
  }: Props = $props();
  let place: HTMLElement | undefined = $state();
  let editor: Editor | undefined;
  let citing = $state<{ at: number | undefined; given?: { works: CitedWork[]; named: boolean } }>();
  const said = (): Inline[] =>
    (editor?.getJSON().content ?? []).flatMap((block, i): Inline[] => [
      ...(i ? [{ type: 'hardBreak' as const }] : []),
      ...((block.content ?? []) as Inline[]),
    ]);
  function cite() {
    if (!editor) return;
    const { selection } = editor.state;
    const node =
      'node' in selection
        ? (selection.node as { type: { name: string }; attrs: Record<string, unknown> })
        : undefined;
    citing =
      node?.type.name === 'cite'
        ? { at: selection.from, given: node.attrs as unknown as { works: CitedWork[]; named: boolean } }
        : { at: undefined };
  }
  onMount(() => {
    editor = new Editor({
      element: place!,
      extensions: extensionsForNote(showing),
      content: {
        type: 'doc',
        content: [{ type: 'paragraph', content: untrack(() => $state.snapshot(content)) }],
      },
      autofocus: 'end',
      editorProps: {
        attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Footnote', class: 'serif' },
        handleKeyDown: (_view, event) => {
          const onCite = 'node' in editor!.state.selection;
          if (event.key === 'Escape' || (event.key === 'Enter' && !event.shiftKey && !onCite)) {
            event.preventDefault();
            event.stopPropagation();
            onleave();
            return true;
          }
          if ((event.key === 'Enter' && onCite) || pressed(event) === keyFor('draft cite')) {
            event.preventDefault();
            event.stopPropagation();
            cite();
            return true;
          }
          return false;
        },
      },
      onUpdate: () => onwrite(said()),
    });
    return () => editor?.destroy();
  });
</script>

<div
  class="footnote-field"
  role="dialog"
  aria-label="Footnote"
  style="top: {top}px; left: {left}px; {above ? 'translate: 0 -100%' : ''}"
>
  <div class="text" bind:this={place}></div>
  <div class="acts">
    <Button small look="main" keys="Enter" onclick={onleave}>Done</Button>
    <Button small keys={keyFor('draft cite')} onclick={cite}>Cite</Button>
    <Button small look="quiet" onclick={ondrop}>Take out</Button>
  </div>
  {#if citing}
    <CiteField
      {projectId}
      {labels}
      given={citing.given}
      top={40}
      left={10}
      onleave={() => {
        citing = undefined;
        editor?.commands.focus();
      }}
      onkeep={(attrs) => {
        const at = citing?.at;
        citing = undefined;
        if (at === undefined)
          editor
            ?.chain()
            .focus()
            .insertContent({ type: 'cite', attrs: { id: v7(), ...attrs } })
            .run();
        else editor?.chain().setNodeSelection(at).updateAttributes('cite', attrs).focus().run();
      }}
    />
  {/if}
</div>

<style>
  .footnote-field {
    position: absolute;
    z-index: 14;
    display: grid;
    gap: 7px;
    width: min(460px, 94%);
    padding: 9px;
    border: 1px solid var(--edge);
    border-radius: 7px;
    background: var(--page);
    box-shadow: 0 8px 24px rgb(0 0 0 / 14%);
  }
  .text {
    max-height: 200px;
    overflow-y: auto;
  }
  .text :global([role='textbox']) {
    min-height: 2.8em;
    outline: none;
    font-size: 15px;
  }
  .acts {
    display: flex;
    gap: 6px;
  }
</style>
