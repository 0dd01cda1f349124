<script lang="ts">
  import { PRIORITIES, READING_STATES } from '$lib/core/query';
  import { allows, ActionBar, Button, Dialog, Menu } from '../kit';
  import type { Made } from '$lib/server/many';
  import type { OutlineSection, Project } from '$lib/server/projects';
  import type { SourceLine } from '$lib/server/sources';
  import type { ShownReference } from '$lib/server/lists';
  import { openCiting } from '../lists/citing.svelte';
  import ChoiceDialog from '../choosing/ChoiceDialog.svelte';
  import { call, copyText } from '../frame/client';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { attempt, change, done, doneWith } from '../frame/toasts.svelte';
  import CrossingDialog from './CrossingDialog.svelte';
  import TagThem from './TagThem.svelte';
  import FieldChangeDialog from './FieldChangeDialog.svelte';
  import { PRIORITY_NAMES, READING_NAMES } from './naming';
  import { outlining, placesFor } from '../outline/tree.svelte';

  interface Props {
    /** The sources selected. */
    ids: string[];
    projects: Project[];
    outlines: OutlineSection[];
    /** The section they are seen in. */
    section: OutlineSection | undefined;
    /** How many sources fit what is looked for. */
    total: number;
    /** Selects all of them. */
    onall: () => void;
    onclear: () => void;
  }
  let { ids, projects, outlines, section, total, onall, onclear }: Props = $props();

  /** References asked for at once. */
  const AT_ONCE = 200;

  /** All that fit what is looked for are selected. */
  const all = $derived(ids.length === total);
  /** How many are named one by one in an address. */
  const MOST_NAMED = 100;
  /** How many sources are laid out beside one another to be merged. */
  const MOST_MERGED = 10;

  async function bin() {
    const made = await attempt(() => call<Made>('POST', '/api/sources/bin', { ids, binned: true }));
    if (!made) return;
    const of = ids.length;
    onclear();
    await doneWith(made, of, (n) =>
      n === 1 ? 'The source is in the bin.' : `${n.toLocaleString('en')} sources are in the bin.`,
    );
  }

  async function edit(body: { tag?: string; fix?: boolean; checked?: boolean }, words: string) {
    const made = await attempt(() => call<Made>('POST', '/api/sources/edit', { ids, ...body }));
    // A job goes on behind; what was typed has gone.
    if (made) void doneWith(made, ids.length, () => words);
    return made !== undefined;
  }

  const places = $derived(placesFor(projects, outlines, ids));

  const read = (said: { state: string | null } | { priority: string | null }) => {
    const these = `${ids.length.toLocaleString('en')} ${ids.length === 1 ? 'source' : 'sources'}`;
    return change(
      '/api/reading',
      { ids, ...said },
      'state' in said
        ? `How far you are with ${these} is noted.`
        : `How much ${these} matter${ids.length === 1 ? 's' : ''} to you is noted.`,
    );
  };

  const linesOf = (what: string) =>
    attempt(async () => {
      const lines: SourceLine[] = [];
      for (let from = 0; from < ids.length; from += AT_ONCE)
        lines.push(
          ...(await call<SourceLine[]>('POST', '/api/sources/lines', {
            ids: ids.slice(from, from + AT_ONCE),
            what,
          })),
        );
      return lines;
    });
  async function copyLines(what: 'addresses' | 'titles with notes') {
    const lines = await linesOf(what);
    if (!lines) return;
    const texts = lines.map((line) => line.text).filter(Boolean);
    const without = lines.length - texts.length;
    await attempt(async () => {
      await copyText(texts.join(what === 'addresses' ? '\n' : '\n\n'));
      done(
        `${texts.length.toLocaleString('en')} ${what} copied${without ? `; ${without.toLocaleString('en')} have none` : ''}.`,
      );
    });
  }

  let changing = $state(false);
  let crossing = $state(false);
  let choosing = $state(false);
  let opening = $state(false);
  let pages = $state.raw<SourceLine[]>([]);
  /** How many pages are opened at once. */
  const MOST_PAGES = 30;
  async function openPages() {
    const lines = await linesOf('addresses');
    if (!lines) return;
    pages = lines.filter((line) => line.address);
    opening = true;
  }
  function openAll() {
    for (const { address } of pages.slice(0, MOST_PAGES))
      window.open(address, '_blank', 'noopener,noreferrer');
  }

  async function copy() {
    const references: ShownReference[] = [];
    for (let from = 0; from < ids.length; from += AT_ONCE) {
      const part = await attempt(() =>
        call<ShownReference[]>('POST', '/api/printed', { ids: ids.slice(from, from + AT_ONCE) }),
      );
      // All of them or none: a list that lacks some is worse than none.
      if (!part) return;
      references.push(...part);
    }
    const html = references
      .map(
        (r) =>
          `<p style="margin-left:2em;text-indent:-2em">${r.html.replace(/ ?data-field="[^"]*"/g, '')}</p>`,
      )
      .join('\n');
    await attempt(async () => {
      await copyText(references.map((r) => r.text).join('\n'), html);
      done(references.length === 1 ? 'Reference copied.' : `${references.length} references copied.`);
    });
  }
</script>

<ActionBar>
  <strong class="whitespace-nowrap">{ids.length.toLocaleString('en')} selected</strong>
  {#if ids.length < total}<Button look="link" onclick={onall}>Select all {total.toLocaleString('en')}</Button
    >{/if}
  {#if allows('edit')}<Menu
      id="place-in"
      text="Place in"
      label="Place the selected in"
      placement="top"
      acts={places}
    />
    {#if section}
      <Button onclick={() => outlining.takeOut(section, ids)}>Take out of the section</Button>
    {/if}
    <TagThem ontag={(tag) => edit({ tag }, `Tagged ${tag}.`)} />{/if}
  <Menu
    id="change-them"
    text="Change"
    label="Change the selected"
    placement="top"
    acts={[
      ...(allows('edit')
        ? [
            { text: 'Fix findings', act: () => edit({ fix: true }, 'Findings fixed.') },
            { text: 'Change a field…', act: () => (changing = true) },
            { text: 'Looks right', act: () => edit({ checked: true }, 'Checked.') },
            { text: 'Send back to Intake', act: () => edit({ checked: false }, 'Back in Intake.') },
          ]
        : []),
      ...READING_STATES.map((state) => ({
        text: `Reading: ${READING_NAMES[state].toLowerCase()}`,
        act: () => read({ state }),
      })),
      { text: 'Reading: nothing said', act: () => read({ state: null }) },
      ...PRIORITIES.map((priority) => ({
        text: PRIORITY_NAMES[priority],
        act: () => read({ priority }),
      })),
      { text: 'Matters as usual', act: () => read({ priority: null }) },
    ]}
  />
  <Button disabled={ids.length > 50} onclick={() => openCiting(ids.map((id) => ({ id, name: '' })))}
    >Cite</Button
  >
  <Menu
    id="copy-them"
    text="Copy"
    label="Copy the selected"
    placement="top"
    acts={[
      { text: ids.length > 1 ? 'Copy references' : 'Copy reference', act: copy },
      { text: 'Copy addresses', act: () => copyLines('addresses') },
      { text: 'Copy titles with notes', act: () => copyLines('titles with notes') },
    ]}
  />
  <Button href="/references?scope=selection#ids={ids.join(',')}">Print as a list</Button>
  <Menu
    id="more-with-them"
    text="More"
    label="More with the selected"
    placement="top"
    acts={[
      ...(allows('edit')
        ? [
            { text: 'Choose among them…', act: () => (choosing = true) },
            {
              text: ids.length > MOST_MERGED ? `Merge into one, ${MOST_MERGED} at most` : 'Merge into one…',
              disabled: ids.length < 2 || ids.length > MOST_MERGED,
              act: () => goto(`/duplicates?these=${ids.join(',')}`),
            },
          ]
        : []),
      {
        text: all || ids.length <= MOST_NAMED ? 'Proof them' : `Proof them, ${MOST_NAMED} at most`,
        disabled: !all && ids.length > MOST_NAMED,
        act: () =>
          goto(ids.length <= MOST_NAMED ? `/proof?ids=${ids.join(',')}` : `/proof${page.url.search}`),
      },
      { text: 'To another library…', act: () => (crossing = true) },
      { text: 'Open their pages…', act: openPages },
    ]}
  />
  <Button needs="edit" onclick={bin}>Put in the bin</Button>
  <Button look="quiet" onclick={onclear}>Select none</Button>
</ActionBar>

<FieldChangeDialog bind:open={changing} {ids} />
{#if crossing}
  <CrossingDialog
    {ids}
    onclose={(gone) => {
      crossing = false;
      if (gone) onclear();
    }}
  />
{/if}
{#if choosing}<ChoiceDialog {ids} onclose={() => (choosing = false)} />{/if}
<Dialog bind:open={opening} title="Their pages" size="md">
  <p class="small-label">
    {pages.length.toLocaleString('en')} of {ids.length.toLocaleString('en')} have an address. A browser may ask
    before it lets a page open several.
  </p>
  <ul class="pages">
    {#each pages as { id, label, address } (id)}
      <li>
        <a class="link" href={address} target="_blank" rel="noopener noreferrer">{label}</a>
        <span class="small-label">{address}</span>
      </li>
    {/each}
  </ul>
  <p class="flex gap-2">
    <Button look="main" disabled={pages.length === 0} onclick={openAll}
      >Open {Math.min(pages.length, MOST_PAGES)} in the browser</Button
    >
    <Button onclick={() => (opening = false)}>Close</Button>
  </p>
</Dialog>

<style>
  .pages {
    max-height: 45vh;
    overflow-y: auto;
  }
  .pages li {
    display: grid;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
</style>
