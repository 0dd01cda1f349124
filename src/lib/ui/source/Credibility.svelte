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

<h3>How far it can be trusted</h3>
{#if !open}
  {#if text}<p class="text">{text}</p>{/if}
  <Button small aria-expanded={open} onclick={() => (open = true)}
    >{text ? 'Say otherwise' : 'Say how far, and why'}</Button
  >
{:else}
  {#each CREDIBILITY_QUESTIONS as [key, question, help] (key)}
    <div class="row">
      <label for="{id}-{key}">{question}</label>
      <Textarea
        id="{id}-{key}"
        rows="2"
        placeholder={help}
        value={said?.[key] ?? ''}
        onchange={(e) => onsay({ [key]: e.currentTarget.value })}
      />
    </div>
  {/each}
  <div class="row">
    <label for="{id}-reviewed">Reviewed before it came out</label>
    <Select
      id="{id}-reviewed"
      value={said?.reviewed ?? ''}
      onchange={(e) => onsay({ reviewed: e.currentTarget.value })}
    >
      <option value="">Not said</option>
      {#each REVIEWED as one (one)}<option value={one}>{reviewedWords(one)}</option>{/each}
    </Select>
  </div>
  <div class="row">
    <label for="{id}-trust">So it can be trusted</label>
    <Select
      id="{id}-trust"
      value={said?.trust ?? ''}
      onchange={(e) => onsay({ trust: e.currentTarget.value })}
    >
      <option value="">Not said</option>
      {#each TRUST as one (one)}<option value={one}>{trustWords(one)}</option>{/each}
    </Select>
  </div>
  <div class="row">
    <label for="{id}-why">Why</label>
    <Textarea
      id="{id}-why"
      rows="2"
      value={said?.why ?? ''}
      onchange={(e) => onsay({ why: e.currentTarget.value })}
    />
  </div>
  <p class="small-label">
    It can stand under the entry in an annotated list.
    <Button look="link" class="text-xs" onclick={() => (open = false)}>Done</Button>
  </p>
{/if}

<style>
  h3 {
    margin: 20px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  .text {
    max-width: 62ch;
    margin-bottom: 6px;
    font-size: 14px;
    overflow-wrap: anywhere;
  }
  .row {
    display: grid;
    grid-template-columns: 110px minmax(0, 376px);
    gap: 4px 14px;
    align-items: start;
    margin-bottom: 8px;
  }
  label {
    padding-top: 7px;
    color: var(--ink-2);
    font-size: 13px;
  }
  @container (max-width: 520px) {
    .row {
      grid-template-columns: 1fr;
    }
  }
</style>
