<script lang="ts">
  import { Button, Input, Select, Textarea } from '../kit';
  import { fromAction } from 'svelte/attachments';
  import type { Finding } from '$lib/core/proof';
  import {
    alternativesOf,
    CSL_TYPES,
    dateText,
    fieldLabel,
    fieldName,
    groupOf,
    keywordsNotTaken,
    GROUPS,
    isDateVariable,
    isNameVariable,
    ORIGIN_LABELS,
    originOf,
    otherFields,
    firstFields,
    shownFields,
    TYPE_LABELS,
    dateProblem,
    typedDate,
    valueText,
    type CslDate,
    type CslName,
    type SourceRecord,
    type Variable,
  } from '$lib/core/source';
  import { sentenceCase, titleCase } from '$lib/core/text';
  import { keyFor, offer } from '../frame/actions.svelte';
  import { signOf } from './findings';
  import CreatorsField from './CreatorsField.svelte';
  import Sign from './Sign.svelte';
  import TitleMarks from './TitleMarks.svelte';
  import SheetHeading from './SheetHeading.svelte';
  import TagsField from './TagsField.svelte';
  import { typeahead } from './typeahead';

  interface Props {
    record: SourceRecord;
    findings: Finding[];
    offeredTags: string[];
    /** Shows these fields alone, for a window with room for few. */
    only?: Variable[];
    /** What the citing style prints of this type, shown first. */
    printed?: Variable[];
    lit?: string | undefined;
    /** Saves fields (undefined removes one). */
    onedit: (fields: Record<string, unknown>, why?: string) => void;
    ontags: (tags: string[]) => void;
    /** Told of what is being typed, before it is saved. */
    ontype?: (fields: Record<string, unknown>) => void;
    onpoint?: (field: string | undefined) => void;
  }
  let {
    record,
    findings,
    offeredTags,
    only,
    printed = [],
    lit,
    onedit,
    ontags,
    ontype,
    onpoint,
  }: Props = $props();

  let added: Variable[] = $state([]);
  /** All that its kind asks is shown. */
  let more = $state(false);
  const all = $derived(shownFields(record, printed));
  /** What is found in a field leads to it, so that it is there. */
  const first = $derived([
    ...new Set([
      ...firstFields(record, printed),
      ...findings.flatMap(({ field }) => (field === 'type' ? [] : [field])),
    ]),
  ]);
  const fields = $derived(only ?? [...new Set([...(more ? all : first), ...added])]);
  const waiting = $derived(all.filter((f) => !first.includes(f) && !added.includes(f)));
  offer(() => ({ 'source more': only || all.length === first.length ? undefined : () => (more = !more) }));

  /** A title in another case, where that is another title. */
  const cased = $derived.by(() => {
    const { title, language } = record;
    if (!title || (language && !/^en\b/i.test(language))) return [];
    const known = new Map(
      [...(record.author ?? []), ...(record.editor ?? [])].flatMap(({ family }) =>
        family ? [[family.toLowerCase(), family] as const] : [],
      ),
    );
    const ways = [
      ['Sentence case', sentenceCase(title, { language, known })],
      ['Title case', titleCase(title, { language, known })],
    ] as const;
    return ways.filter(([, text]) => text !== title);
  });
  const groups = $derived(
    GROUPS.map((name) => ({ name, fields: fields.filter((f) => groupOf(f) === name) })).filter(
      (g) => g.fields.length,
    ),
  );
  /** Fields whose words can be italic and the like. */
  const TITLES = new Set<string>([
    'title',
    'title-short',
    'container-title',
    'collection-title',
    'original-title',
    'reviewed-title',
    'volume-title',
    'part-title',
  ]);
  const LONG = new Set<string>(['abstract', 'note', 'annote', 'references']);

  const valueOf = (field: Variable, text: string) =>
    isDateVariable(field) ? typedDate(text) : text.trim() || undefined;
  const shownValue = (field: Variable) =>
    isDateVariable(field)
      ? dateText(record[field] as CslDate)
      : ((record[field] as string | undefined) ?? '');

  /** Dates that were typed and cannot be taken, by field: they stay in the field until they are mended. */
  let wrong = $state<Partial<Record<Variable, string>>>({});

  function commit(field: Variable, text: string) {
    wrong[field] = isDateVariable(field) ? dateProblem(text) : undefined;
    if (wrong[field] || text.trim() === shownValue(field)) return;
    onedit({ [field]: valueOf(field, text) });
  }

  function revert(
    event: KeyboardEvent & { currentTarget: HTMLInputElement | HTMLTextAreaElement },
    field: Variable,
  ) {
    if (event.key === 'Escape') {
      event.currentTarget.value = shownValue(field);
      wrong[field] = undefined;
      ontype?.({});
      event.currentTarget.blur();
    } else if (event.key === 'Enter' && !(event.currentTarget instanceof HTMLTextAreaElement))
      event.currentTarget.blur();
  }
</script>

{#snippet beside(field: Variable | 'type')}
  {@const origin = originOf(record, field)}
  {@const others = alternativesOf(record, field)}
  <div class="beside">
    {#each findings.filter((f) => f.field === field) as finding (finding.check)}
      <div class="finding {finding.pencil === 'red' ? 'pencil-red' : 'pencil-blue'}">
        <Sign sign={signOf(finding)} /><span>{finding.message}</span>
        {#if finding.fix}
          {@const fix = finding.fix}
          <Button small onclick={() => onedit(fix.edit, `fixed: ${finding.message}`)}>{fix.label}</Button>
        {/if}
      </div>
    {/each}
    {#if origin}<div class="origin" data-tip={origin.why ?? ''}>
        {ORIGIN_LABELS[origin.kind]}{origin.kind === 'file' && origin.why
          ? `, ${origin.why.replace(/^from /, '')}`
          : ''}
      </div>{/if}
    {#each others as other (JSON.stringify(other.value) + other.kind)}
      <Button
        look="bare"
        class="other"
        title="Take this value"
        onclick={() => onedit({ [field]: other.value }, `took the value of the ${ORIGIN_LABELS[other.kind]}`)}
      >
        {ORIGIN_LABELS[other.kind]}: <q>{valueText(field, other.value).slice(0, 120)}</q>
      </Button>
    {/each}
  </div>
{/snippet}

<div class="form">
  <div class="row" class:lit={lit === 'type'}>
    <label for="f-type">Kind of source</label>
    <div>
      <Select id="f-type" value={record.type} onchange={(e) => onedit({ type: e.currentTarget.value })}>
        {#each CSL_TYPES as type (type)}<option value={type}>{TYPE_LABELS[type]}</option>{/each}
      </Select>
    </div>
    {@render beside('type')}
  </div>
  {#each groups as group (group.name)}
    <SheetHeading>{group.name}</SheetHeading>
    {#each group.fields as field (field)}
      <!-- svelte-ignore a11y_no_static_element_interactions -->
      <div
        class="row"
        class:lit={lit === field}
        onmouseenter={() => onpoint?.(field)}
        onmouseleave={() => onpoint?.(undefined)}
      >
        <label for="f-{field}">{fieldLabel(field)}</label>
        <div>
          {#if isNameVariable(field)}
            <CreatorsField
              id="f-{field}"
              role={field}
              names={(record[field] as CslName[] | undefined) ?? []}
              onchange={(names) => onedit({ [field]: names })}
            />
          {:else if LONG.has(field)}
            <Textarea
              id="f-{field}"
              class="font-serif"
              rows={field === 'abstract' && record.abstract ? 4 : 2}
              value={shownValue(field)}
              onchange={(e) => commit(field, e.currentTarget.value)}
              onkeydown={(e) => revert(e, field)}
            ></Textarea>
          {:else}
            <Input
              id="f-{field}"
              class={[field === 'title' || (field === 'container-title' && 'font-serif')]}
              value={shownValue(field)}
              placeholder={isDateVariable(field) ? '2021-11-03, 2021, 1540/1610, 14 March 2023' : ''}
              aria-invalid={wrong[field] ? 'true' : undefined}
              aria-describedby={wrong[field] ? `f-${field}-wrong` : undefined}
              oninput={(e) => {
                if (!isDateVariable(field) || !dateProblem(e.currentTarget.value))
                  ontype?.({ [field]: valueOf(field, e.currentTarget.value) });
              }}
              onchange={(e) => commit(field, e.currentTarget.value)}
              onkeydown={(e) => revert(e, field)}
              {@attach fromAction(typeahead, () => field)}
            />
            {#if TITLES.has(field) && !only}<TitleMarks {field} />{/if}
            {#if field === 'title' && cased.length && !only}
              <div class="cased">
                {#each cased as [name, text] (name)}<Button
                    small
                    look="quiet"
                    title={text}
                    onclick={() => onedit({ title: text }, name.toLowerCase())}>{name}</Button
                  >{/each}
              </div>
            {/if}
            {#if wrong[field]}<p id="f-{field}-wrong" class="pencil-red" role="alert">
                {wrong[field]} Not saved.
              </p>{/if}
          {/if}
        </div>
        {@render beside(field)}
      </div>
    {/each}
  {/each}
  {#if !only && (waiting.length || more)}
    <p class="more">
      <Button small keys={keyFor('source more')} aria-expanded={more} onclick={() => (more = !more)}
        >{more ? 'Only the fields in use' : `${waiting.length} more of this kind`}</Button
      >
      {#if !more}<span class="small-label"
          >{waiting
            .slice(0, 4)
            .map((f) => fieldName(f))
            .join(', ')}{waiting.length > 4 ? ' …' : ''}</span
        >{/if}
    </p>
  {/if}
  {#if !only}
    <SheetHeading>Filed</SheetHeading>
    <div class="row">
      <span class="label">Tags</span>
      <div>
        <TagsField
          tags={record.retexa.tags}
          offered={offeredTags}
          given={keywordsNotTaken(record)}
          onchange={ontags}
        />
      </div>
      <div></div>
    </div>
    <div class="row">
      <label for="f-add">Another field</label>
      <div>
        <Select
          id="f-add"
          value=""
          onchange={(e) => {
            const field = e.currentTarget.value as Variable;
            added = [...added, field];
            e.currentTarget.value = '';
            requestAnimationFrame(() => document.getElementById(`f-${field}`)?.focus());
          }}
        >
          <option value="">Add a field…</option>
          {#each otherFields(record, printed).filter((f) => !added.includes(f)) as field (field)}<option
              value={field}>{fieldLabel(field)}</option
            >{/each}
        </Select>
      </div>
      <div></div>
    </div>
  {/if}
</div>

<style>
  .cased {
    display: flex;
    gap: 4px;
    margin: 2px 0 -2px -8px;
  }
  .more {
    display: flex;
    gap: 10px;
    align-items: center;
    margin-top: 14px;
  }
  .row {
    display: grid;
    grid-template-columns: 112px minmax(0, 1fr) minmax(0, 190px);
    gap: 2px 12px;
    align-items: start;
    padding: 3px 6px;
    margin: 0 -6px;
    border-radius: 6px;
  }
  .row > div:nth-child(2) {
    position: relative;
  }
  .row.lit {
    background: var(--thread-soft);
  }
  label,
  .label {
    padding-top: 6px;
    color: var(--ink-2);
    font-size: 13px;
  }
  .beside {
    display: grid;
    gap: 2px;
    padding-top: 7px;
    font-size: 12px;
    line-height: 1.35;
  }
  .origin {
    color: var(--ink-3);
  }
  .finding {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 6px;
    font-weight: 600;
  }
  .finding span {
    flex: 1;
    min-width: 70px;
  }
  .beside :global(.other) {
    display: block;
    min-height: 24px;
    color: var(--blue-pencil);
    text-align: left;
    cursor: pointer;
    overflow-wrap: anywhere;
  }
  .beside :global(.other:hover) {
    text-decoration: underline;
  }
  q {
    font-family: var(--font-serif);
  }
  @container (max-width: 640px) {
    .row {
      grid-template-columns: 104px minmax(0, 1fr);
    }
    .beside {
      display: flex;
      flex-wrap: wrap;
      grid-column: 2;
      gap: 0 12px;
      padding: 0 2px 2px;
    }
    .beside:empty {
      display: none;
    }
  }
  @container (max-width: 420px) {
    .row {
      grid-template-columns: minmax(0, 1fr);
    }
    .beside {
      grid-column: 1;
    }
  }
</style>
