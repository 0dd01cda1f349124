<script lang="ts">
  import { Editor } from '@tiptap/core';
  import { onMount, untrack } from 'svelte';
  import {
    LetterBoldOutline,
    LetterItalicOutline,
    ListOutline,
    OrderedListOutline,
    QuoteOutline,
  } from 'flowbite-svelte-icons';
  import { contentOf, noteContent, plainOf, type NoteContent } from '$lib/core/notes';
  import type { Nameable } from '$lib/server/notes';
  import { call, debounce } from '../frame/client';
  import { Button } from '../kit';
  import { asNamed, extensionsForNotes, namingAt, type Naming } from './writing';

  interface Props {
    id: string;
    label: string;
    placeholder?: string;
    content: NoteContent;
    autofocus?: boolean;
    onwrite: (content: NoteContent) => void;
    onkeep: () => void;
    onleave?: (() => void) | undefined;
  }
  /** A note is written here: words with some look, and after an @ what is to be named. Ctrl+Enter keeps it. */
  let { id, label, placeholder = '', content, autofocus = false, onwrite, onkeep, onleave }: Props = $props();

  let place: HTMLElement | undefined = $state();
  let editor = $state.raw<Editor>();
  /** Goes up whenever the caret or the text is another. */
  let beat = $state(0);
  let naming = $state.raw<Naming>();
  /** Where an @ was left as it is: it offers nothing there again. */
  let left = -1;
  let found = $state.raw<Nameable[]>();
  let at = $state(0);
  let turn = 0;

  /** What is written, as it is kept. */
  const written = (): NoteContent => {
    const read = noteContent.safeParse(editor?.getJSON().content ?? []);
    return read.success ? read.data : contentOf(editor?.getText() ?? '');
  };
  /** The same as the editor has it, where there is always a paragraph to write in. */
  const asWritten = (said: NoteContent): NoteContent =>
    said.length ? ($state.snapshot(said) as NoteContent) : [{ type: 'paragraph' }];
  const same = (a: NoteContent, b: NoteContent) => JSON.stringify(a) === JSON.stringify(b);

  const look = debounce(async () => {
    const mine = ++turn;
    const words = naming?.words ?? '';
    const answer = await call<{ found: Nameable[] }>('POST', '/api/notes/named', { words }).catch(
      () => undefined,
    );
    if (mine !== turn || !naming) return;
    [found, at] = [answer?.found ?? [], 0];
  }, 90);
  function follow() {
    beat++;
    const now = editor && namingAt(editor.state);
    if (!now || now.from === left) {
      if (!now) left = -1;
      turn++;
      [naming, found] = [undefined, undefined];
    } else if (now.words !== naming?.words || now.from !== naming.from) {
      naming = now;
      look();
    }
  }
  function take(one: Nameable | undefined) {
    if (!one || !naming || !editor) return;
    const { from, to } = naming;
    editor.chain().focus().insertContentAt({ from, to }, asNamed(one)).run();
  }
  function leaveName() {
    left = naming?.from ?? -1;
    turn++;
    [naming, found] = [undefined, undefined];
    editor?.commands.focus();
  }
  function takes(event: KeyboardEvent): boolean {
    const { key } = event;
    const does = (act: () => void) => {
      event.preventDefault();
      event.stopPropagation();
      act();
      return true;
    };
    if (key === 'Enter' && (event.ctrlKey || event.metaKey)) return does(onkeep);
    if (naming && found?.length) {
      const step = { ArrowDown: 1, ArrowUp: -1 }[key];
      if (step) return does(() => (at = (at + step + found!.length) % found!.length));
      if (key === 'Enter' || key === 'Tab') return does(() => take(found![at]));
    }
    if (key === 'Escape' && naming) return does(leaveName);
    if (key === 'Escape' && onleave) return does(onleave);
    return false;
  }

  onMount(() => {
    editor = new Editor({
      element: place!,
      extensions: extensionsForNotes(placeholder),
      content: { type: 'doc', content: untrack(() => asWritten(content)) },
      autofocus: untrack(() => autofocus) ? 'end' : false,
      editorProps: {
        attributes: () => ({
          id,
          role: 'textbox',
          'aria-multiline': 'true',
          'aria-label': label,
          'aria-autocomplete': 'list',
          ...(naming && found?.length
            ? { 'aria-controls': `${id}-found`, 'aria-activedescendant': `${id}-found-${at}` }
            : {}),
        }),
        handleKeyDown: (_view, event) => takes(event),
      },
      onUpdate: () => onwrite(written()),
      onTransaction: follow,
      onBlur: () => beat++,
    });
    return () => editor?.destroy();
  });
  // What was said elsewhere, by voice or by emptying it, is put in.
  $effect(() => {
    const said = content;
    untrack(() => {
      if (editor && !same(said, written()) && plainOf(said) !== plainOf(written()))
        editor.commands.setContent({ type: 'doc', content: asWritten(said) });
    });
  });
  // What is pointed at among the names is told to who does not see it.
  $effect(() => {
    void [at, found];
    untrack(() => editor?.view.setProps({}));
  });

  const chain = () => editor!.chain().focus();
  const looks = $derived(
    !editor
      ? []
      : (void beat, [
          { Icon: LetterBoldOutline, name: 'Bold', key: 'Ctrl+B', on: editor.isActive('bold'), act: () => chain().toggleBold().run() },
          { Icon: LetterItalicOutline, name: 'Italic', key: 'Ctrl+I', on: editor.isActive('italic'), act: () => chain().toggleItalic().run() },
          { Icon: ListOutline, name: 'List', key: 'Ctrl+Shift+8', on: editor.isActive('bulletList'), act: () => chain().toggleBulletList().run() },
          { Icon: OrderedListOutline, name: 'Numbered list', key: 'Ctrl+Shift+7', on: editor.isActive('orderedList'), act: () => chain().toggleOrderedList().run() },
          { Icon: QuoteOutline, name: 'Quotation set apart', key: 'Ctrl+Shift+B', on: editor.isActive('blockquote'), act: () => chain().toggleBlockquote().run() },
        ]), // prettier-ignore
  );
</script>

<div class="box">
  <div class="written" bind:this={place}></div>
  {#if naming && found}
    {#if found.length}
      <ul class="found" id="{id}-found" role="listbox" aria-label="Name a source or a note">
        {#each found as one, i (one.id)}
          <!-- svelte-ignore a11y_click_events_have_key_events -->
          <li
            id="{id}-found-{i}"
            role="option"
            aria-selected={i === at}
            class:current={i === at}
            onpointerdown={(e) => e.preventDefault()}
            onclick={() => take(one)}
          >
            <span class="small-label">{one.kind === 'source' ? 'Source' : 'Note'}</span>
            <b>{one.label}</b>
            <span class="serif">{one.more}</span>
          </li>
        {/each}
      </ul>
    {:else}
      <p class="small-label none" role="status">No source and no note has “{naming.words.trim()}”.</p>
    {/if}
  {/if}
  <div class="looks" role="toolbar" aria-label="Look of {label}">
    {#each looks as { Icon, name, key, on, act } (name)}
      <Button small look="quiet" aria-label={name} title="{name} ({key})" aria-pressed={on} onclick={act}
        ><Icon size="xs" /></Button
      >
    {/each}
    <Button
      small
      look="quiet"
      title="Name a source or another note: type @ and words of it"
      aria-label="Name a source or a note"
      onclick={() => {
        const before = editor!.state.selection.$from.nodeBefore;
        const apart = !before || /\s$/.test(before.text ?? '') ? '' : ' ';
        chain().insertContent(`${apart}@`).run();
      }}>@</Button
    >
  </div>
</div>

<style>
  .box {
    border: 1px solid var(--edge);
    border-radius: 6px;
    background: var(--page);
  }
  .box:focus-within {
    border-color: var(--thread);
    box-shadow: 0 0 0 1px var(--thread);
  }
  .written :global(.tiptap) {
    min-height: 3.2em;
    max-height: 50vh;
    padding: 8px 11px;
    overflow-y: auto;
    outline: none;
    font-size: 15px;
    line-height: 1.5;
    overflow-wrap: anywhere;
  }
  .written :global(.is-editor-empty:first-child::before) {
    float: left;
    height: 0;
    color: var(--ink-3);
    content: attr(data-placeholder);
    pointer-events: none;
  }
  .looks {
    display: flex;
    gap: 2px;
    padding: 1px 5px 3px;
  }
  .looks :global([aria-pressed='true']) {
    background: var(--thread-soft);
    color: var(--ink);
  }
  .found {
    max-height: 260px;
    margin: 0 6px;
    overflow-y: auto;
    border-top: 1px solid var(--rule);
  }
  .found li {
    display: grid;
    grid-template-columns: 54px auto minmax(0, 1fr);
    gap: 8px;
    align-items: baseline;
    padding: 5px 8px;
    border-left: 3px solid transparent;
    font-size: 13.5px;
    cursor: pointer;
  }
  .found li.current {
    border-left-color: var(--thread);
    background: var(--row-chosen);
  }
  .found .serif,
  .found b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .none {
    padding: 2px 12px;
  }
</style>
