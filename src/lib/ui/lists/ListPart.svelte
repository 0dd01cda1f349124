<script lang="ts">
  import { goto } from '$app/navigation';
  import { fieldLabel, fieldName } from '$lib/core/source';
  import { Button } from '../kit';
  import Findings from '../source/Findings.svelte';
  import Reference from '../source/Reference.svelte';
  import type { ListEntry } from './printed-list.svelte';

  /** A part of a printed list: its entries, each with what is to be said of it in the margin. */
  let { entries, hanging, style }: { entries: ListEntry[]; hanging: boolean; style: string } = $props();
</script>

{#each entries as entry, i (i)}
  {#if entry.heading}<h3 class="group">{entry.heading}</h3>{/if}
  <div class="entry" data-source={entry.id}>
    {#if entry.label}<span class="label serif">{entry.label}</span>{/if}
    <div class="reference">
      <Reference
        reference={entry}
        fallback={entry.failed
          ? `${entry.name} cannot be printed in this style, and is left out of what is copied or saved. Look at its dates and names.`
          : 'Nothing prints for this source.'}
        {hanging}
        onchoose={(field) => goto(`/sources/${entry.id}#f-${field}`)}
      />
      {#each entry.annotations ?? [] as note, i (i)}
        <p class="under serif" data-kind={note.kind}>{note.text}</p>
      {/each}
    </div>
    <div class="marks">
      {#if entry.findings.length}
        <a
          href="/sources/{entry.id}#f-{entry.findings[0]!.field}"
          data-tip="Go to {fieldLabel(entry.findings[0]!.field)}"
          ><Findings findings={entry.findings} complete={false} /></a
        >
      {/if}
      {#if entry.twice}
        <Findings
          findings={[]}
          questions={[
            {
              sign: 'twice',
              text: 'Twice in the list?',
              href: `/duplicates?with=${entry.id}`,
            },
          ]}
        />
      {/if}
      {#if entry.beside}
        <Findings
          findings={[]}
          questions={[{ sign: 'question', text: entry.beside.words, href: `/sources/${entry.beside.id}` }]}
        />
      {/if}
      {#if entry.missing.length}
        <!-- Buttons, since every navigation looks at every link there is, and a long list has thousands. -->
        <p class="lacks">
          lacks {#each entry.missing as field, i (field)}{i ? ', ' : ''}<Button
              look="link"
              title="{style} prints it; go to {fieldLabel(field)}"
              onclick={() => goto(`/sources/${entry.id}#f-${field}`)}>{fieldName(field)}</Button
            >{/each}
        </p>
      {/if}
    </div>
  </div>
{/each}

<style>
  .group {
    margin: 18px 200px 6px 30px;
    color: var(--ink);
    font-size: 13px;
    font-weight: 650;
  }
  .under {
    max-width: 66ch;
    margin: 3px 0 3px 26px;
    color: var(--ink-2);
    font-size: 14.5px;
    line-height: 1.4;
  }
  .under[data-kind='gist'] {
    font-family: var(--font-sans, inherit);
    font-size: 13px;
  }
  .lacks {
    color: var(--ink-3);
    font-size: 12px;
  }
  .entry {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) 196px;
    gap: 0 10px;
    content-visibility: auto;
    contain-intrinsic-size: auto 56px;
  }
  .label {
    grid-column: 1;
    min-width: 30px;
    padding: 4px 0 4px 30px;
    font-size: 16.5px;
    line-height: 1.36;
  }
  .reference {
    grid-column: 2;
    max-width: 720px;
    padding: 4px 20px 6px 0;
  }
  .entry:not(:has(.label)) .reference {
    grid-column: 1 / 3;
    padding-left: 30px;
  }
  .marks {
    grid-column: 3;
    padding: 5px 10px 4px 14px;
  }
  @media (max-width: 900px) {
    .entry {
      grid-template-columns: auto minmax(0, 1fr);
    }
    .marks {
      grid-column: 2;
      border: 0;
    }
    .marks:not(:has(*)) {
      display: none;
    }
  }
  @media print {
    .marks {
      display: none;
    }
    .entry {
      display: block;
      break-inside: avoid;
    }
  }
</style>
