<script lang="ts">
  import { Button, Select } from '../kit';
  import CiteField from './CiteField.svelte';
  import FieldBox from './FieldBox.svelte';
  import type { Fields } from './fields.svelte';
  import LineField from './LineField.svelte';
  import { mathShown } from './maths';
  import SmallField from './SmallField.svelte';
  import type { Writing } from './writing.svelte';

  interface Props {
    fields: Fields;
    writing: Writing;
    projectId: string;
  }
  /** The small field that is open beside the text. */
  let { fields, writing, projectId }: Props = $props();
  const field = $derived(fields.open);
  const near = $derived({ projectId, labels: writing.labels });
</script>

{#snippet small(label: string, value: string, hint: string)}
  <SmallField
    {label}
    {value}
    {hint}
    at={field!}
    {...label === 'Formula' ? { shown: mathShown } : {}}
    ondrop={field && 'at' in field && field.at !== undefined ? () => fields.drop(field.at) : undefined}
    onkeep={fields.keepValue}
    onleave={fields.close}
  />
{/snippet}

{#if field?.what === 'cite'}
  <CiteField {...near} given={field.given} at={field} onkeep={fields.keepCite} onleave={fields.close} />
{:else if field?.what === 'footnote' || field?.what === 'caption'}
  {@const { at, what } = field}
  <LineField
    {...near}
    name={what === 'footnote' ? 'Footnote' : 'Caption'}
    content={field.content}
    showing={writing.showing}
    at={field}
    alt={field.what === 'caption' && field.alt !== undefined
      ? { words: field.alt, onwrite: (words) => fields.write(at, 'alt', words) }
      : undefined}
    ondrop={field.what === 'caption' && field.alt === undefined ? undefined : () => fields.drop(at)}
    onwrite={(content) => fields.write(at, what === 'footnote' ? 'content' : 'caption', content)}
    onleave={() => fields.leaveLine(at)}
  />
{:else if field?.what === 'formula' || field?.what === 'formulaBlock'}
  {@render small('Formula', field.value, 'TeX, as h = \\frac{Q}{v b}')}
{:else if field?.what === 'remark'}
  {@render small('A word to yourself', field.value, 'Never printed')}
{:else if field?.what === 'link'}
  {@render small('Link', field.value, 'https://')}
{:else if field?.what === 'point'}
  <FieldBox name="point" label="Point at" at={field} onkeydown={(e) => e.key === 'Escape' && fields.close()}>
    {#if fields.targets.length}
      <Select
        autofocus
        aria-label="Figure, table or section"
        onchange={(e) => fields.pointAt(e.currentTarget.value)}
      >
        <option value="">Point at…</option>
        {#each fields.targets as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </Select>
    {:else}
      <p class="small-label">There is no figure, table or heading to point at yet.</p>
    {/if}
    <Button small keys="Esc" onclick={fields.close}>Leave</Button>
  </FieldBox>
{/if}
