<script lang="ts">
  import type { PassageItem, PassageWords } from '$lib/server/passages';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Dialog } from '../kit';
  import { asSaid, nothingSaid, saidOf } from '../reader/begun.svelte';
  import PassageSheet from '../reader/PassageSheet.svelte';

  interface Props {
    open: boolean;
    source: { id: string; label: string };
    /** One that is kept, to change it; else a new one. */
    passage?: PassageItem | undefined;
    offeredTags?: string[];
  }
  /** The sheet of a passage no copy of which is here: read in print, heard, or remembered. */
  let { open = $bindable(), source, passage, offeredTags = [] }: Props = $props();

  type Draft = { said: PassageWords; exact: string };
  const name = $derived(passage ? `passage ${passage.id}` : `passage of ${source.id}`);
  const begun = $derived.by((): Draft => {
    void open;
    const draft = drafts.find<Draft>(`print ${name}`);
    if (draft) return { ...draft, said: asSaid(draft.said) };
    return passage ? { said: saidOf(passage), exact: passage.exact } : { said: nothingSaid(), exact: '' };
  });

  function typed(said: PassageWords, exact: string) {
    const blank = !exact.trim() && !said.gist && !said.ownWords && !said.locator;
    if (blank && !passage) drafts.drop(`print ${name}`);
    else drafts.keep(`print ${name}`, { said, exact } satisfies Draft);
  }

  async function keep(said: PassageWords, exact: string) {
    const made = await attempt((): Promise<{ id?: string; revisionId?: string }> =>
      passage
        ? call('PATCH', `/api/passages/${passage.id}`, {
            base: passage.revision,
            said,
            exact,
          })
        : call('POST', '/api/passages', {
            ...said,
            copyId: null,
            sourceId: source.id,
            selectors: null,
            exact,
          }),
    );
    if (!made) return;
    drafts.drop(`print ${name}`);
    open = false;
    if (!passage)
      doneWithUndo('The passage is kept.', () =>
        call('POST', `/api/passages/${made.id}/bin`, { binned: true }),
      );
    else done('Saved.', [made.revisionId]);
    await renewed();
  }
</script>

<Dialog bind:open title="A passage of {source.label}, from print" size="md">
  {#if open}
    <PassageSheet
      exact={begun.exact}
      said={begun.said}
      of="print"
      kept={Boolean(passage)}
      {offeredTags}
      ontype={typed}
      onkeep={keep}
      onleave={() => (open = false)}
    />
  {/if}
</Dialog>
