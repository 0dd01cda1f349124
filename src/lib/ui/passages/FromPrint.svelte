<script lang="ts">
  import type { PassageItem, PassageWords } from '$lib/server/passages';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { tick } from 'svelte';
  import { joinedLines } from '$lib/core/text';
  import { Checkbox, Dialog, FileButton } from '../kit';
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

  /** The lines recognised in a photo, those picked, and how often that changed. */
  let lines = $state.raw<string[]>([]);
  let picked = $state<boolean[]>([]);
  let picks = $state(0);
  let looking = $state(false);
  let latest: PassageWords | undefined;

  async function photo([file]: File[]) {
    if (!file) return;
    looking = true;
    const made = await attempt(() => call<{ lines: string[] }>('POST', '/api/passages/lines', file));
    looking = false;
    if (!made) return;
    if (made.lines.length === 0) return done('No text was recognised in the photo.');
    [lines, picked] = [made.lines, made.lines.map(() => false)];
  }
  async function pick(nth: number, box: HTMLInputElement) {
    picked = picked.map((was, i) => (i === nth ? box.checked : was));
    const exact = joinedLines(lines.filter((_, i) => picked[i]));
    drafts.keep(`print ${name}`, { said: latest ?? begun.said, exact } satisfies Draft);
    picks++;
    // The sheet is set anew and would have the focus.
    await tick();
    box.focus();
  }

  type Draft = { said: PassageWords; exact: string };
  const name = $derived(passage ? `passage ${passage.id}` : `passage of ${source.id}`);
  const begun = $derived.by((): Draft => {
    void [open, picks];
    const draft = drafts.find<Draft>(`print ${name}`);
    if (draft) return { ...draft, said: asSaid(draft.said) };
    return passage ? { said: saidOf(passage), exact: passage.exact } : { said: nothingSaid(), exact: '' };
  });

  function typed(said: PassageWords, exact: string) {
    latest = said;
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
    lines = [];
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
    <div class="photo">
      <FileButton small label="A photo of the page" accept="image/*" disabled={looking} onfiles={photo}
        >{looking ? 'Recognising…' : 'Take the words from a photo'}</FileButton
      >
      {#if lines.length}
        <p class="small-label">
          Pick the lines; compare them with the page, since nothing is recognised without fault.
        </p>
        <ul>
          {#each lines as line, i (i)}<li>
              <label class="serif"
                ><Checkbox checked={picked[i] ?? false} onchange={(e) => pick(i, e.currentTarget)} />
                {line}</label
              >
            </li>{/each}
        </ul>
      {/if}
    </div>
    {#key picks}<PassageSheet
        exact={begun.exact}
        said={begun.said}
        of="print"
        kept={Boolean(passage)}
        {offeredTags}
        ontype={typed}
        onkeep={keep}
        onleave={() => (open = false)}
      />{/key}
  {/if}
</Dialog>

<style>
  .photo {
    display: grid;
    gap: 6px;
    justify-items: start;
    margin-bottom: 10px;
  }
  ul {
    width: 100%;
    max-height: 180px;
    overflow: auto;
    padding: 4px 8px;
    border: 1px solid var(--rule);
    border-radius: 6px;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
</style>
