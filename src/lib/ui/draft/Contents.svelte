<script lang="ts">
  import { SECTION_WORDS, type DraftSection } from '$lib/core/drafting';
  import { allows, Button, Input, Progress } from '../kit';

  interface Props {
    sections: DraftSection[];
    here: string | undefined;
    onopen: (id: string) => void;
    /** Sets how many words a section is to have; none takes that away. */
    ongoal: (id: string, goal: number | null) => void;
  }
  /** The sections of the text, how long each is, and how long it is to be. */
  let { sections, here, onopen, ongoal }: Props = $props();
  const all = $derived(sections.reduce((sum, s) => sum + s.words, 0));
  const n = (count: number) => count.toLocaleString('en');
</script>

<p class="all small-label">{n(all)} words, footnotes and what is printed for citations apart</p>
<ul aria-label="Contents">
  {#each sections as section (section.id)}
    <li class:here={section.id === here} style="padding-left: {14 + Math.max(0, section.level - 1) * 16}px">
      <div class="line">
        <Button look="bare" class="name" disabled={!section.id} onclick={() => onopen(section.id)}
          >{section.name || (section.id ? 'A heading without words' : 'Before the first heading')}</Button
        >
        <span class="count">{n(section.whole)}{section.goal ? ` of ${n(section.goal)}` : ''}</span>
        {#if section.id && allows('edit')}
          <Input
            type="number"
            min="0"
            step="50"
            aria-label="Words for {section.name}"
            title="How many words it is to have"
            placeholder="goal"
            value={section.goal ? String(section.goal) : ''}
            onchange={(e) => ongoal(section.id, Math.trunc(Number(e.currentTarget.value)) || null)}
          />
        {/if}
      </div>
      {#if section.goal}
        <Progress done={section.whole} total={section.goal} label="{section.name}: words written" />
      {/if}
      {#if section.words >= SECTION_WORDS && section.citations === 0}<p class="bare">no citation yet</p>{/if}
    </li>
  {/each}
</ul>
{#if sections.length === 0}<p class="hint">Headings of the text are listed here.</p>{/if}

<style>
  .all,
  .hint {
    padding: 9px 14px;
  }
  ul {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
  li {
    padding: 6px 14px;
    border-bottom: 1px solid var(--rule);
  }
  .here {
    background: var(--row-chosen);
  }
  .line {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto 74px;
    gap: 8px;
    align-items: center;
  }
  .line :global(.name) {
    font-size: 13.5px;
    font-weight: 600;
    text-align: left;
  }
  .count {
    color: var(--ink-3);
    font-size: 12px;
  }
  .bare {
    color: var(--red-pencil);
    font-size: 12px;
  }
</style>
