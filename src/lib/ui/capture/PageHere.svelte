<script lang="ts">
  import { KIND_LABELS, locatorText } from '$lib/core/passages';
  import { WHOLE, type PagePicture } from '$lib/core/figures';
  import type { FromPage } from '$lib/server/passages';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { attempt } from '../frame/toasts.svelte';
  import { Button } from '../kit';

  interface Props {
    /** What is here of the page, and what became of the words selected on it. */
    found: FromPage;
    /** Whether words were selected. */
    selected: boolean;
  }
  /** A page that is in the library already: what was selected on it is kept at once, and its pictures can be. */
  let { found, selected }: Props = $props();
  const here = $derived(found.here);
  let undone = $state(false);
  /** Pictures kept as figures, with the passage of each. */
  let kept = $state<Record<string, string>>({});
  let picking = $state(false);

  const bin = (id: string) =>
    attempt(() => call('POST', `/api/passages/${id}/bin`, { binned: true }).then(() => true));
  async function undo() {
    if (found.passage && (await bin(found.passage.id))) undone = true;
  }
  async function keep(picture: PagePicture) {
    const before = kept[picture.sha256];
    if (before) {
      if (await bin(before)) kept = { ...kept, [picture.sha256]: '' };
      return;
    }
    const nth = /\d.*$/.exec(picture.number)?.[0];
    const made = await attempt(() =>
      call<{ id: string }>('POST', '/api/passages', {
        kind: 'figure',
        tint: 'claim',
        gist: '',
        ownWords: '',
        locator: nth ? { label: 'figure', value: nth } : null,
        visibility: 'library',
        copyId: here.copyId,
        selectors: null,
        exact: picture.caption,
        figure: {
          place: { on: 'picture', sha256: picture.sha256, box: WHOLE },
          number: picture.number,
          alt: picture.alt,
          drawing: [],
        },
      }),
    );
    if (made) kept = { ...kept, [picture.sha256]: made.id };
  }
</script>

<section class="here" aria-label="This page is here" role="status">
  <p class="small-label">Here already, captured {dateLabel(here.captured)}</p>
  <p class="serif got">
    <a href="/copies/{here.copyId}{found.passage ? `?passage=${found.passage.id}` : ''}" target="retexa"
      >{here.sourceLabel}</a
    >
  </p>
  {#if found.passage && !undone}
    <p>
      {found.already ? 'Kept before' : 'Kept'}:
      {[KIND_LABELS.quotation.toLowerCase(), locatorText(found.passage.locator)].filter(Boolean).join(', ')}
    </p>
    <q class="serif">{found.passage.exact.slice(0, 200)}{found.passage.exact.length > 200 ? '…' : ''}</q>
    {#if !found.already}<div><Button small onclick={undo}>Undo</Button></div>{/if}
  {:else if undone}<p>Taken back; it is in the bin.</p>
  {:else if selected}<p class="pencil-red">
      The words you selected are not in the copy that is here, so that nothing was kept. Capture the page
      again to keep them with what it says now.
    </p>{/if}
  {#if here.pictures.length}
    <div>
      <Button small aria-expanded={picking} onclick={() => (picking = !picking)}
        >{here.pictures.length === 1
          ? 'Keep its picture'
          : `Keep one of its ${here.pictures.length} pictures`}</Button
      >
    </div>
    {#if picking}
      <ul>
        {#each here.pictures as picture (picture.sha256)}
          <li>
            <Button
              look="bare"
              aria-pressed={Boolean(kept[picture.sha256])}
              title={picture.caption || picture.alt}
              onclick={() => keep(picture)}
              ><img
                src="/copies/{here.copyId}/pictures/{picture.sha256}"
                alt={picture.alt || picture.caption || 'A picture of the page'}
              />{kept[picture.sha256] ? 'Kept as a figure' : picture.number || 'Keep'}</Button
            >
          </li>
        {/each}
      </ul>
    {/if}
  {/if}
</section>

<style>
  .here {
    display: grid;
    gap: 6px;
    padding: 12px 16px;
    border-bottom: 1px solid var(--rule);
    background: var(--blue-soft);
  }
  .got {
    font-size: 17px;
    font-weight: 600;
  }
  ul {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 8px;
  }
  li :global(button) {
    display: grid;
    gap: 4px;
    justify-items: center;
    width: 100%;
    padding: 6px;
    border: 1px solid var(--rule);
    border-radius: 6px;
    background: var(--page);
    font-size: 12px;
    cursor: pointer;
  }
  li :global(button[aria-pressed='true']) {
    border-color: var(--thread);
    box-shadow: 0 0 0 1px var(--thread);
  }
  img {
    max-width: 100%;
    max-height: 90px;
  }
</style>
