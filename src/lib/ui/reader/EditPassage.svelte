<script lang="ts">
  import type { Passage, PassageWords } from '$lib/server/passages';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import PassageSheet from './PassageSheet.svelte';

  /** The sheet of a passage that is kept, to change it; what is typed waits until it is saved. */
  let { passage, onleave }: { passage: Passage; onleave: () => void } = $props();

  const wordsOf = ({ kind, tint, gist, ownWords, locator, visibility }: Passage): PassageWords => ({
    kind,
    tint,
    gist,
    ownWords,
    locator,
    visibility,
  });
  // svelte-ignore state_referenced_locally
  const draft = `passage ${passage.id}`;

  function typed(said: PassageWords) {
    if (JSON.stringify(said) === JSON.stringify(wordsOf(passage))) drafts.drop(draft);
    else drafts.keep(draft, said);
  }

  async function save(said: PassageWords) {
    const { id, revision: base } = passage;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('PATCH', `/api/passages/${id}`, { base, said }),
    );
    if (!made) return;
    drafts.drop(draft);
    onleave();
    done('Saved.', [made.revisionId]);
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
  exact={passage.exact}
  said={drafts.find<PassageWords>(draft) ?? wordsOf(passage)}
  kept
  ontype={typed}
  onkeep={save}
  {onleave}
  onbin={bin}
/>
