<script lang="ts">
  import { Editor } from '@tiptap/core';
  import { onMount, untrack } from 'svelte';
  import type { CitedWork, Inline } from '$lib/core/drafting';
  import { v7 } from 'uuid';
  import { keyFor } from '../frame/actions.svelte';
  import { pressed } from '../frame/keys';
  import { Button, Input } from '../kit';
  import CiteField from './CiteField.svelte';
  import FieldBox, { type FieldPlace } from './FieldBox.svelte';
  import { extensionsForNote } from './schema';
  import type { Showing } from './showing';

  interface Props {
    /** What is written. */
    name: 'Footnote' | 'Caption';
    content: Inline[];
    showing: Showing;
    projectId: string;
    labels: ReadonlyMap<string, string>;
    at: FieldPlace;
    /** Of a picture: what it shows, for who does not see it. */
    alt?: { words: string; onwrite: (words: string) => void } | undefined;
    /** Takes what it belongs to out of the text; nothing where that is done elsewhere. */
    ondrop?: (() => void) | undefined;
    /** Called as it is written, so that nothing is lost. */
    onwrite: (content: Inline[]) => void;
    onleave: () => void;
  }
  /** A line that is written beside what it belongs to, a footnote or a caption; citations go into it as into the text. */
  let { name, content, showing, projectId, labels, at, alt, ondrop, onwrite, onleave }: Props = $props();
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
  /** In the field below the line, which is no editor of ours; what the citation field took is its own. */
  function onkeydown(event: KeyboardEvent) {
    const { key, target } = event;
    if (event.defaultPrevented || citing || (key !== 'Escape' && key !== 'Enter')) return;
    if (key === 'Enter' && !(target instanceof HTMLInputElement)) return;
    event.preventDefault();
    event.stopPropagation();
    onleave();
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
        attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': name, class: 'serif' },
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

<FieldBox name="line" label={name} {at} {onkeydown}>
  <div class="text" bind:this={place}></div>
  {#if alt}
    <Input
      aria-label="What it shows, for who does not see it"
      placeholder="What it shows, for who does not see it"
      value={alt.words}
      oninput={(e) => alt.onwrite(e.currentTarget.value)}
    />
  {/if}
  <div class="acts">
    <Button small look="main" keys="Enter" onclick={onleave}>Done</Button>
    <Button small keys={keyFor('draft cite')} onclick={cite}>Cite</Button>
    {#if ondrop}<Button small look="quiet" onclick={ondrop}>Take out</Button>{/if}
  </div>
  {#if citing}
    <CiteField
      {projectId}
      {labels}
      given={citing.given}
      at={{ top: 40, left: 10 }}
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
</FieldBox>

<style>
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
