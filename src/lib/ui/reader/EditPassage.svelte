<script lang="ts">
  import type { Section } from '$lib/server/projects';
  import type { Passage, PassageLink, PassageWords } from '$lib/server/passages';
  import type { TaskItem } from '$lib/server/tasks';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { asSaid, saidOf, type Fresh } from './begun.svelte';
  import { cutAddress, type FigureSaid } from './figuring.svelte';
  import PassageFiling from './PassageFiling.svelte';
  import { people } from '../people/others.svelte';
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
  type Draft = PassageWords & { exact?: string; figure?: FigureSaid };
  // svelte-ignore state_referenced_locally
  const draft = `passage ${passage.id}`;
  // svelte-ignore state_referenced_locally
  const {
    exact: begunExact,
    figure: begunFigure,
    ...begun
  }: Draft = asSaid(drafts.find<Draft>(draft) ?? saidOf(passage));
  const of = $derived(
    passage.figure
      ? 'figure'
      : passage.selectors
        ? 'place'
        : passage.copyId && passage.locator?.label === 'timestamp'
          ? 'sound'
          : passage.copyId && !passage.exact
            ? 'whole'
            : 'print',
  );
  let latest: PassageWords = begun;
  /** Its caption or the words typed from print are typed too. */
  const typesWords = $derived(of === 'print' || of === 'sound' || of === 'figure');
  const figureNow = (): FigureSaid | undefined => {
    if (!passage.figure) return undefined;
    const { image: _image, ...said } = passage.figure;
    return said;
  };
  /** As it was cut out, where it is; another box is shown as it would be. */
  const address = (place: FigureSaid['place']) =>
    JSON.stringify(place) === JSON.stringify(passage.figure?.place) || !passage.copyId
      ? `/api/passages/${passage.id}/picture?of=${passage.figure?.image.sha256}`
      : cutAddress(passage.copyId, place);

  function typed(said: PassageWords, exact: string, figure?: FigureSaid) {
    latest = said;
    const same =
      JSON.stringify([said, figure]) === JSON.stringify([saidOf(passage), figureNow()]) &&
      exact === passage.exact;
    if (same) drafts.drop(draft);
    else drafts.keep(draft, { ...said, ...(typesWords ? { exact } : {}), ...(figure ? { figure } : {}) });
  }

  async function save(
    said: PassageWords,
    more: { exact?: string; selectors?: Fresh['selectors']; figure?: FigureSaid } = {},
  ) {
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
  exact={begunExact ?? passage.exact}
  said={begun}
  {of}
  kept
  mine={passage.ownerId === people.self}
  {offeredTags}
  elsewhere={elsewhere?.selectors.quote.exact}
  onmove={() =>
    elsewhere &&
    save({ ...latest, locator: elsewhere.place ?? latest.locator }, { selectors: elsewhere.selectors })}
  {covered}
  {...oncover ? { oncover } : {}}
  ontype={typed}
  {...passage.figure ? { figure: { said: begunFigure ?? figureNow()!, address } } : {}}
  onkeep={(said, exact, figure) =>
    save(said, { ...(typesWords ? { exact } : {}), ...(figure ? { figure } : {}) })}
  {onleave}
  onbin={bin}
/>
<PassageFiling {passage} {sections} {placed} {tasks} {links} {others} />
