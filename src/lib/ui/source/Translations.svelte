<script lang="ts">
  import { LOCALES } from '$lib/core/citing';
  import { fieldLabel, languageOf, TRANSLATED, type Translated, type Translation } from '$lib/core/source';
  import { Button, Input, Select } from '../kit';
  import SheetHeading from './SheetHeading.svelte';
  import SheetRow from './SheetRow.svelte';

  interface Props {
    told: Translation[];
    /** The titles the record has, each of which can be told in other languages. */
    titles: Translated[];
    /** The language lists are in here. */
    locale: string;
    /** Keeps all of them, whenever one is changed. */
    ontell: (told: Translation[]) => void;
  }
  /** The titles of a work in other languages, which stand behind its own in lists of those languages. */
  let { told, titles, locale, ontell }: Props = $props();
  const id = $props.id();

  const named = new Intl.DisplayNames(['en'], { type: 'language' });
  const offered = LOCALES.map((l) => languageOf(l.id));
  const languages = $derived(
    [...new Set([languageOf(locale), ...offered, ...told.map((t) => languageOf(t.language))])]
      .map((tag) => ({ tag, name: named.of(tag) ?? tag }))
      .sort((a, b) => a.name.localeCompare(b.name)),
  );
  const of = $derived(TRANSLATED.filter((title) => titles.includes(title)));
  /** One that is begun; it is kept when its row is left. */
  let begun = $state<{ of: Translated; language: string; text: string } | undefined>();

  const isFree = (title: Translated, tag: string) =>
    !told.some((t) => t.of === title && languageOf(t.language) === tag);
  const languageFree = (title: Translated) =>
    [languageOf(locale), ...languages.map(({ tag }) => tag)].find((tag) => isFree(title, tag));
  function begin(title = of.find(languageFree)) {
    const language = title && languageFree(title);
    if (!title || !language) return;
    if (begun) [begun.of, begun.language] = [title, language];
    else begun = { of: title, language, text: '' };
    requestAnimationFrame(() => document.getElementById(`${id}-new`)?.focus());
  }
  const without = (at: number) => told.filter((_, i) => i !== at);
  const put = (text: string, at: number) =>
    ontell(text.trim() ? told.map((t, i) => (i === at ? { ...t, text } : t)) : without(at));
  function keep() {
    if (begun?.text.trim()) ontell([...told, begun]);
    begun = undefined;
  }
</script>

{#if of.length || told.length}
  <SheetHeading>Titles in other languages</SheetHeading>
  {#each told as one, i (`${one.of} ${one.language}`)}
    <SheetRow
      of="{id}-{i}"
      label="{fieldLabel(one.of)}, {named.of(languageOf(one.language)) ?? one.language}"
    >
      <span class="flex gap-1">
        <Input
          id="{id}-{i}"
          maxlength="8000"
          lang={one.language}
          value={one.text}
          onchange={(e) => put(e.currentTarget.value, i)}
        />
        <Button
          small
          look="quiet"
          aria-label="Take out {fieldLabel(one.of)} in {named.of(languageOf(one.language))}"
          onclick={() => ontell(without(i))}>Take out</Button
        >
      </span>
    </SheetRow>
  {/each}
  <!-- What is in a row that goes reads what it was for once more. -->
  {#each begun ? [begun] : [] as one (one)}
    <SheetRow onleave={keep}>
      {#snippet asks()}
        {#if of.length > 1}
          <Select
            aria-label="Which title"
            value={one.of}
            onchange={(e) => begin(e.currentTarget.value as Translated)}
          >
            {#each of as title (title)}<option value={title}>{fieldLabel(title)}</option>{/each}
          </Select>
        {/if}
        <Select aria-label="Its language" bind:value={one.language}>
          {#each languages.filter(({ tag }) => isFree(one.of, tag)) as { tag, name } (tag)}<option value={tag}
              >{name}</option
            >{/each}
        </Select>
      {/snippet}
      <Input
        id="{id}-new"
        aria-label="{fieldLabel(one.of)} in {named.of(one.language)}"
        maxlength="8000"
        placeholder="As it is to stand in brackets"
        bind:value={one.text}
        onkeydown={(e) => {
          if (e.key === 'Enter') keep();
          if (e.key === 'Escape') begun = undefined;
        }}
      />
    </SheetRow>
  {:else}
    <Button small onclick={() => begin()}>{told.length ? 'Add another' : 'Add one'}</Button>
  {/each}
  {#if told.length || begun}
    <p class="small-label">
      A list in that language prints it in brackets behind the work’s own title, unless the work is in that
      language too.
    </p>
  {/if}
{/if}
