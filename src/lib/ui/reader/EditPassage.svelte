<script lang="ts">
  import type { Section } from '$lib/server/projects';
  import type { Passage, PassageLink, PassageWords } from '$lib/server/passages';
  import type { TaskItem } from '$lib/server/tasks';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { asSaid, saidOf, type Fresh } from './begun.svelte';
  import PassageFiling from './PassageFiling.svelte';
  import PassageSheet from './PassageSheet.svelte';

  interface Props {
    passage: Passage;
    offeredTags?: string[];
    sections: Section[];
    /** Ids of the sections it stands under. */
    placed: string[];
    tasks: TaskItem[];
    links: PassageLink[];
    /** Passages it can be linked with. */
    others: Passage[];
    /** Words selected in its document since, which can become its place. */
    elsewhere?: Fresh | undefined;
    covered?: boolean;
    oncover?: (covered: boolean) => void;
    onleave: () => void;
  }
  /** The sheet of a passage that is kept, to change it; what is typed waits until it is saved. */
  let {
    passage,
    offeredTags = [],
    sections,
    placed,
    tasks,
    links,
    others,
    elsewhere,
    covered = false,
    oncover,
    onleave,
  }: Props = $props();

  /** What was typed and not saved, with the words of the work where those are typed too. */
  type Draft = PassageWords & { exact?: string };
  // svelte-ignore state_referenced_locally
  const draft = `passage ${passage.id}`;
  // svelte-ignore state_referenced_locally
  const begun: Draft = asSaid(drafts.find<Draft>(draft) ?? saidOf(passage));
  const of = $derived(passage.selectors ? 'place' : passage.copyId && !passage.exact ? 'whole' : 'print');
  let latest: PassageWords = begun;

  function typed(said: PassageWords, exact: string) {
    latest = said;
    const same = JSON.stringify(said) === JSON.stringify(saidOf(passage)) && exact === passage.exact;
    if (same) drafts.drop(draft);
    else drafts.keep(draft, of === 'print' ? { ...said, exact } : said);
  }

  async function save(said: PassageWords, more: { exact?: string; selectors?: Fresh['selectors'] } = {}) {
    const { id, revision: base } = passage;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('PATCH', `/api/passages/${id}`, { base, said, ...more }),
    );
    if (!made) return;
    drafts.drop(draft);
    onleave();
    done(more.selectors ? 'The passage stands there now.' : 'Saved.', [made.revisionId]);
    await renewed();
  }

  async function bin() {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/passages/${passage.id}/bin`, { binned: true }),
    );
    if (!made) return;
    onleave();
    done('The passage is in the bin.', [made.revisionId]);
    await renewed();
  }
</script>

<PassageSheet
  exact={begun.exact ?? passage.exact}
  said={begun}
  {of}
  kept
  {offeredTags}
  elsewhere={elsewhere?.selectors.quote.exact}
  onmove={() =>
    elsewhere &&
    save({ ...latest, locator: elsewhere.place ?? latest.locator }, { selectors: elsewhere.selectors })}
  {covered}
  {...oncover ? { oncover } : {}}
  ontype={typed}
  onkeep={(said, exact) => save(said, of === 'print' ? { exact } : {})}
  {onleave}
  onbin={bin}
/>
<PassageFiling {passage} {sections} {placed} {tasks} {links} {others} />
