<script lang="ts">
  import {
    CREDIBILITY_QUESTIONS,
    credibilityText,
    REVIEWED,
    reviewedWords,
    TRUST,
    trustWords,
    type Credibility,
  } from '$lib/core/source';
  import { Button, Select, Textarea } from '../kit';
  import SheetHeading from './SheetHeading.svelte';
  import SheetRow from './SheetRow.svelte';

  interface Props {
    said: Credibility | undefined;
    /** Keeps an answer when it is given; one that is empty is taken back. */
    onsay: (answer: Partial<Record<keyof Credibility, string>>) => void;
  }
  /** How far a source can be trusted, and why: the questions one is taught to ask. */
  let { said, onsay }: Props = $props();
  let open = $state(false);
  const text = $derived(credibilityText(said ?? {}));
  const id = $props.id();
</script>

<SheetHeading>How far it can be trusted</SheetHeading>
{#if !open}
  {#if text}<p class="text">{text}</p>{/if}
  <Button small aria-expanded={open} onclick={() => (open = true)}
    >{text ? 'Say otherwise' : 'Say how far, and why'}</Button
  >
{:else}
  {#each CREDIBILITY_QUESTIONS as [key, question, help] (key)}
    <SheetRow of="{id}-{key}" label={question}>
      <Textarea
        id="{id}-{key}"
        rows="2"
        placeholder={help}
        value={said?.[key] ?? ''}
        onchange={(e) => onsay({ [key]: e.currentTarget.value })}
      />
    </SheetRow>
  {/each}
  <SheetRow of="{id}-reviewed" label="Reviewed before it came out">
    <Select
      id="{id}-reviewed"
      value={said?.reviewed ?? ''}
      onchange={(e) => onsay({ reviewed: e.currentTarget.value })}
    >
      <option value="">Not said</option>
      {#each REVIEWED as one (one)}<option value={one}>{reviewedWords(one)}</option>{/each}
    </Select>
  </SheetRow>
  <SheetRow of="{id}-trust" label="So it can be trusted">
    <Select
      id="{id}-trust"
      value={said?.trust ?? ''}
      onchange={(e) => onsay({ trust: e.currentTarget.value })}
    >
      <option value="">Not said</option>
      {#each TRUST as one (one)}<option value={one}>{trustWords(one)}</option>{/each}
    </Select>
  </SheetRow>
  <SheetRow of="{id}-why" label="Why">
    <Textarea
      id="{id}-why"
      rows="2"
      value={said?.why ?? ''}
      onchange={(e) => onsay({ why: e.currentTarget.value })}
    />
  </SheetRow>
  <p class="small-label">
    It can stand under the entry in an annotated list.
    <Button look="link" class="text-xs" onclick={() => (open = false)}>Done</Button>
  </p>
{/if}

<style>
  .text {
    max-width: 62ch;
    margin-bottom: 6px;
    font-size: 14px;
    overflow-wrap: anywhere;
  }
</style>
