<script lang="ts">
  import './note.css';
  import type { NoteBlock, NoteInline, NoteMark } from '$lib/core/notes';
  import type { NoteItem } from '$lib/server/notes';

  /** A note as it reads: with its look, and what it names leading there. */
  const hrefOf = (mark: NoteMark) => ('attrs' in mark ? mark.attrs.href : '');
  let { note }: { note: Pick<NoteItem, 'body' | 'content'> } = $props();
</script>

{#snippet words(part: NoteInline & { type: 'text' }, marks = part.marks ?? [])}
  {@const [mark, ...more] = marks}
  {#if !mark}{part.text}{:else if mark.type === 'bold'}<b>{@render words(part, more)}</b
    >{:else if mark.type === 'italic'}<i>{@render words(part, more)}</i>{:else if mark.type === 'underline'}<u
      >{@render words(part, more)}</u
    >{:else if mark.type === 'strike'}<s>{@render words(part, more)}</s>{:else}<a
      class="link"
      href={hrefOf(mark)}
      target="_blank"
      rel="noopener noreferrer">{@render words(part, more)}</a
    >{/if}
{/snippet}

{#snippet line(parts: readonly NoteInline[])}
  {#each parts as part, i (i)}{#if part.type === 'text'}{@render words(
        part,
      )}{:else if part.type === 'hardBreak'}<br />{:else}<a
        class="named {part.attrs.kind}"
        href={part.attrs.kind === 'source'
          ? `/sources/${part.attrs.id}`
          : `/notes?in=library#note-${part.attrs.id}`}>{part.attrs.label}</a
      >{/if}{/each}
{/snippet}

{#snippet blocks(all: readonly NoteBlock[])}
  {#each all as one, i (i)}
    {#if one.type === 'paragraph'}<p>{@render line(one.content ?? [])}</p>
    {:else if one.type === 'bulletList'}<ul>{@render blocks(one.content)}</ul>
    {:else if one.type === 'orderedList'}<ol>{@render blocks(one.content)}</ol>
    {:else if one.type === 'listItem'}<li>{@render blocks(one.content)}</li>
    {:else}<blockquote>{@render blocks(one.content)}</blockquote>{/if}
  {/each}
{/snippet}

{#if note.content}<div class="note-text body">{@render blocks(note.content)}</div>
{:else}<p class="body plain">{note.body}</p>{/if}

<style>
  .body {
    font-size: 15px;
    overflow-wrap: anywhere;
  }
  .plain {
    white-space: pre-wrap;
  }
</style>
