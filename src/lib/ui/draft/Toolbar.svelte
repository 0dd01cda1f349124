<script lang="ts">
  import type { Editor } from '@tiptap/core';
  import {
    LetterBoldOutline,
    LetterItalicOutline,
    LetterUnderlineOutline,
    LinkOutline,
    ImageOutline,
    ListOutline,
    OrderedListOutline,
    QuoteOutline,
    RedoOutline,
    SearchOutline,
    InsertTableOutline,
    UndoOutline,
  } from 'flowbite-svelte-icons';
  import { keyFor } from '../frame/actions.svelte';
  import { Button, FileButton, Select } from '../kit';
  import { putTable } from './text';

  interface Props {
    editor: Editor;
    /** Goes up whenever the caret or the text is another. */
    beat: number;
    acts: Record<'cite' | 'footnote' | 'formula' | 'remark' | 'point' | 'find', () => void>;
    onlink: () => void;
    oncaption: () => void;
    /** Puts pictures of one’s own into the text. */
    onpictures: (files: File[]) => void;
  }
  /** What can be done to the text, with the key that does it. */
  let { editor, beat, acts, onlink, oncaption, onpictures }: Props = $props();
  const level = $derived(
    (void beat, [1, 2, 3, 4, 5, 6].find((n) => editor.isActive('heading', { level: n }))?.toString() ?? '0'),
  );
  const inTable = $derived((void beat, editor.isActive('table')));
  const can = $derived((void beat, { undo: editor.can().undo(), redo: editor.can().redo() }));
  const chain = () => editor.chain().focus();
  const setLevel = (to: number) =>
    to
      ? chain()
          .setHeading({ level: to as 1 })
          .run()
      : chain().setParagraph().run();
  const looks = $derived((void beat, [
    { Icon: LetterBoldOutline, name: 'Bold', key: 'Ctrl+B', on: editor.isActive('bold'), act: () => chain().toggleBold().run() },
    { Icon: LetterItalicOutline, name: 'Italic', key: 'Ctrl+I', on: editor.isActive('italic'), act: () => chain().toggleItalic().run() },
    { Icon: LetterUnderlineOutline, name: 'Underlined', key: 'Ctrl+U', on: editor.isActive('underline'), act: () => chain().toggleUnderline().run() },
    { Icon: LinkOutline, name: 'Link', key: '', on: editor.isActive('link'), act: onlink },
    { Icon: ListOutline, name: 'List', key: 'Ctrl+Shift+8', on: editor.isActive('bulletList'), act: () => chain().toggleBulletList().run() },
    { Icon: OrderedListOutline, name: 'Numbered list', key: 'Ctrl+Shift+7', on: editor.isActive('orderedList'), act: () => chain().toggleOrderedList().run() },
    { Icon: QuoteOutline, name: 'Quotation set apart', key: 'Ctrl+Shift+B', on: editor.isActive('blockquote'), act: () => chain().toggleBlockquote().run() },
    { Icon: InsertTableOutline, name: 'Table', key: '', on: inTable, act: () => (inTable ? oncaption() : putTable(editor)) },
  ])); // prettier-ignore
  const TABLE: [string, () => unknown][] = [
    ['Row', () => chain().addRowAfter().run()],
    ['Column', () => chain().addColumnAfter().run()],
    ['− Row', () => chain().deleteRow().run()],
    ['− Column', () => chain().deleteColumn().run()],
    ['Caption', () => oncaption()],
    ['Take out', () => chain().deleteTable().run()],
  ];
  const PUT = [
    ['cite', 'Cite'],
    ['footnote', 'Footnote'],
    ['formula', 'Formula'],
    ['point', 'Point at'],
    ['remark', 'To yourself'],
  ] as const;
</script>

<div class="toolbar" role="toolbar" aria-label="Text">
  <Select
    look="chip"
    aria-label="Kind of paragraph"
    value={level}
    onchange={(e) => setLevel(Number(e.currentTarget.value))}
  >
    <option value="0">Text</option>
    {#each [1, 2, 3, 4, 5, 6] as n (n)}<option value={String(n)}>Heading {n}</option>{/each}
  </Select>
  <span class="row">
    {#each looks as { Icon, name, key, on, act } (name)}
      <Button
        small
        look="quiet"
        aria-label={name}
        title={key ? `${name} (${key})` : name}
        aria-pressed={on}
        onclick={act}><Icon size="sm" /></Button
      >
    {/each}
    <FileButton
      small
      look="quiet"
      label="Picture"
      title="A picture of your own (or paste it, or drop it into the text)"
      accept="image/png,image/jpeg,image/webp,image/gif"
      onfiles={onpictures}><ImageOutline size="sm" /></FileButton
    >
  </span>
  <span class="row">
    <Button
      small
      look="quiet"
      aria-label="Find and replace"
      title="Find and replace ({keyFor('draft find') ?? 'no key'})"
      onclick={acts.find}><SearchOutline size="sm" /></Button
    >
    <Button
      small
      look="quiet"
      aria-label="Undo"
      title="Undo (Ctrl+Z)"
      disabled={!can.undo}
      onclick={() => chain().undo().run()}><UndoOutline size="sm" /></Button
    >
    <Button
      small
      look="quiet"
      aria-label="Redo"
      title="Redo (Ctrl+Y)"
      disabled={!can.redo}
      onclick={() => chain().redo().run()}><RedoOutline size="sm" /></Button
    >
  </span>
  <span class="row put">
    {#each PUT as [id, name] (id)}
      <Button
        small
        look={id === 'cite' ? 'main' : 'plain'}
        title="{name} ({keyFor(`draft ${id}`) ?? 'no key'})"
        aria-keyshortcuts={keyFor(`draft ${id}`)}
        onclick={acts[id]}>{name}</Button
      >
    {/each}
  </span>
  {#if inTable}
    <span class="row table" role="group" aria-label="Table">
      {#each TABLE as [name, act] (name)}<Button small look="chip" onclick={act}>{name}</Button>{/each}
    </span>
  {/if}
</div>

<style>
  .toolbar {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
    min-height: 45px;
    padding: 6px 20px;
    border-bottom: 1px solid var(--rule);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    align-items: center;
  }
  .put,
  .table {
    gap: 6px;
  }
  .toolbar :global([aria-pressed='true']) {
    background: var(--thread-soft);
    color: var(--ink);
  }
</style>
