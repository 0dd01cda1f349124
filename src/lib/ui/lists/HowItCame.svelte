<script lang="ts">
  import type { Run, ShownElement } from '$lib/core/citing';
  import { fieldName } from '$lib/core/source';

  /** How a part of a printed reference came to be as it is: its field, and the elements of the style it came through. */
  let {
    run,
    elements,
    source,
    label,
  }: { run: Run; elements: ShownElement[]; source: string; label: string } = $props();
  const through = $derived(
    (run.trace ?? '').split(' ').flatMap((place) => (place ? [elements[Number(place)]!] : [])),
  );
  const SAYS = {
    name: 'by its name',
    names: 'by itself',
    citation: 'for all citations',
    bibliography: 'for the whole list',
    style: 'for the whole style',
  } as const;
</script>

<h2>How it came</h2>
<p class="part serif">“{run.text.trim() || run.text}”</p>
<p>
  {#if run.field}
    From the field <b>{fieldName(run.field)}</b> of
    <a class="link" href="/sources/{source}">{label}</a>. To have it otherwise, change it there.
  {:else}
    Words or marks of the style or of its language; no field of the record has them.
  {/if}
</p>
{#if through.length}
  <p class="small-label">The style prints it by, from the outermost:</p>
  <ol>
    {#each through as element, i (i)}
      <li>
        <code>{element.tag}</code>{#if element.line}<span class="small-label">line {element.line}</span>{/if}
        {#if element.options}
          <ul aria-label="Options of names in force">
            {#each element.options as { name, value, from } (name)}
              <li class="option">
                <code>{name}="{value}"</code><span class="small-label">{SAYS[from]}</span>
              </li>
            {/each}
          </ul>
        {/if}
      </li>
    {/each}
  </ol>
{:else}
  <p class="small-label">It stands around or between the parts that the layout of the style has.</p>
{/if}

<style>
  h2 {
    font-size: 15px;
    font-weight: 600;
  }
  p {
    margin-top: 8px;
    line-height: 1.4;
  }
  .part {
    font-size: 15px;
    overflow-wrap: anywhere;
  }
  ol {
    display: grid;
    gap: 6px;
    margin-top: 6px;
  }
  li {
    padding-left: 10px;
    border-left: 2px solid var(--margin-rule);
  }
  li .small-label {
    margin-left: 6px;
  }
  code {
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  ul {
    margin-top: 2px;
  }
  .option {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 10px;
  }
  .option .small-label {
    margin-left: auto;
  }
</style>
