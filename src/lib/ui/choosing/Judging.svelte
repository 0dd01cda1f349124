<script lang="ts">
  import { untrack } from 'svelte';
  import { VERDICT_WORDS, VERDICTS, type Ballot, type Says } from '$lib/core/choosing';
  import type { Choice, Said } from '$lib/server/choosing';
  import type { CopyHead } from '$lib/server/copies';
  import type { ShownReference } from '$lib/server/lists';
  import { keyFor, offer } from '../frame/actions.svelte';
  import { call, copyKind } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { attempt, change } from '../frame/toasts.svelte';
  import { Button, Input } from '../kit';
  import PersonMark from '../people/PersonMark.svelte';
  import Reference from '../source/Reference.svelte';
  import CandidateList from './CandidateList.svelte';

  interface Props {
    choice: Choice;
    said: Said;
    ballot: Ballot;
    /** Who looks. */
    self: string;
    /** Who looks is asked, and it is open. */
    votes: boolean;
    edits: boolean;
  }
  /** What is chosen among, one after the other: what it is, what one says of it, and what others said. */
  let { choice, said, ballot, self, votes, edits }: Props = $props();

  const KEYS = ['choice first', 'choice second', 'choice third'];
  const LOOKS: Record<Says, string> = {
    keep: 'pencil-green',
    include: 'pencil-green',
    perhaps: 'pencil-blue',
    leave: 'pencil-red',
    exclude: 'pencil-red',
  };
  const mine = $derived(new Map(said.votes.filter((v) => v.person === self).map((v) => [v.candidate, v])));
  const settled = $derived(new Map(said.settled.map((one) => [one.candidate, one])));
  const open = $derived(new Set(said.open));
  const nameOf = $derived(new Map(said.voters.map(({ id, name }) => [id, name])));

  let at = $state(
    untrack(() => {
      const first = choice.among.findIndex(({ id }) => !mine.has(id));
      return votes && first > 0 ? first : 0;
    }),
  );
  const one = $derived(choice.among[Math.min(at, choice.among.length - 1)]);
  /** By its id: the same candidate, renewed, is none to begin anew with. */
  const oneId = $derived(one?.id);
  const vote = $derived(one && mine.get(one.id));
  const others = $derived(
    one && open.has(one.id) ? said.votes.filter((v) => v.candidate === one.id && v.person !== self) : [],
  );
  const disputed = $derived(
    choice.way === 'screening' &&
      one !== undefined &&
      open.has(one.id) &&
      new Set(said.votes.filter((v) => v.candidate === one.id).map((v) => v.says)).size > 1,
  );
  let reason = $state('');
  $effect(() => {
    void oneId;
    reason = untrack(() => drafts.find<string>(begun) ?? vote?.reason ?? '');
  });
  /** A reason that was typed and goes with no verdict yet is there again. */
  const begun = $derived(`reason ${choice.id} ${oneId}`);
  $effect(() => {
    if (reason.trim() && reason.trim() !== vote?.reason) drafts.keep(begun, reason);
    else drafts.drop(begun);
  });

  interface Shown {
    reference?: ShownReference;
    abstract: string;
    address: string;
    copies: Pick<CopyHead, 'id' | 'kind' | 'media_type'>[];
  }
  let shown = $state.raw<{ id: string; what: Shown }>();
  $effect(() => {
    const id = oneId;
    if (!id || shown?.id === id) return;
    void attempt(async () => {
      const what = await call<Shown>('POST', `/api/choices/${choice.id}/shown`, { id });
      if (one?.id === id) shown = { id, what };
    });
  });
  const seen = $derived(shown && shown.id === one?.id ? shown.what : undefined);

  /** What is sent goes one after the other, so that the last said is what is kept. */
  let sending: Promise<unknown> = Promise.resolve();
  const send = (body: unknown) =>
    (sending = sending.then(() => attempt(() => call('POST', `/api/choices/${choice.id}/votes`, body))));

  function say(verdict: Says) {
    if (!one || !votes) return;
    const taken = vote?.says === verdict && vote.reason === reason.trim();
    void send({ id: one.id, says: taken ? null : verdict, reason: reason.trim() });
    if (taken) return;
    // On to the next that is not judged, unless this was changed in passing.
    const next = choice.among.findIndex(({ id }, i) => i > at && !mine.has(id));
    if (!vote && next !== -1) at = next;
  }
  /** A reason that is typed for what was said already is kept with it. */
  function why() {
    if (one && vote?.says && vote.reason !== reason.trim())
      void send({ id: one.id, says: vote.says, reason: reason.trim() });
  }
  const settle = (verdict: Says | null) =>
    one &&
    change(
      `/api/choices/${choice.id}`,
      { act: 'settle', id: one.id, says: verdict },
      verdict ? `Settled: ${VERDICT_WORDS[verdict].toLowerCase()}.` : 'Open again.',
    );
  offer(() =>
    votes ? Object.fromEntries(VERDICTS[choice.way].map((verdict, i) => [KEYS[i]!, () => say(verdict)])) : {},
  );
  const mark = (id: string) => {
    const over = settled.get(id)?.says;
    const verdict = over ?? mine.get(id)?.says;
    return verdict ? { text: VERDICT_WORDS[verdict], look: LOOKS[verdict] } : undefined;
  };
  const hiddenWords = $derived(
    choice.way === 'screening'
      ? 'What the other says is hidden until both have judged everything.'
      : votes
        ? 'What others say is hidden until you have said something yourself.'
        : 'What was said is hidden until all who are asked have judged everything.',
  );
</script>

{#if !one}
  <p class="none">None of the sources is there any more.</p>
{:else}
  <div class="judging">
    <CandidateList among={choice.among} {at} {mark} onat={(to) => (at = to)} />
    <section class="stage" aria-label="Candidate">
      <p class="small-label">
        {(at + 1).toLocaleString('en')} of {choice.among.length.toLocaleString('en')}{#if votes}, {mine.size.toLocaleString(
            'en',
          )} judged by you{/if}
      </p>
      <Reference reference={seen?.reference} fallback={one.headline} />
      {#if seen}
        <p class="links">
          <a class="link" href="/sources/{one.id}">The record</a>
          {#each seen.copies as copy (copy.id)}<a class="link" href="/copies/{copy.id}"
              >The kept {copyKind(copy)}</a
            >{/each}
          {#if seen.address}<a class="link" href={seen.address} target="_blank" rel="noopener noreferrer"
              >Its address</a
            >{/if}
        </p>
        {#if seen.abstract}<p class="abstract serif">{seen.abstract}</p>
        {:else}<p class="small-label">No abstract is in its record.</p>{/if}
      {/if}

      {#if votes}
        <div class="verdicts" role="group" aria-label="What you say of it">
          {#each VERDICTS[choice.way] as verdict, i (verdict)}
            <Button
              look={vote?.says === verdict ? 'main' : 'plain'}
              aria-pressed={vote?.says === verdict}
              keys={keyFor(KEYS[i]!)}
              onclick={() => say(verdict)}>{VERDICT_WORDS[verdict]}</Button
            >
          {/each}
          <Input
            class="why"
            aria-label="Reason"
            placeholder="Why, if you like to say"
            list="{choice.id}-reasons"
            bind:value={reason}
            onchange={why}
          />
          <datalist id="{choice.id}-reasons">
            {#each choice.reasons as text (text)}<option value={text}></option>{/each}
          </datalist>
        </div>
        {#if choice.reasons.length}
          <p class="reasons">
            {#each choice.reasons as text (text)}<Button
                look="chip"
                aria-pressed={reason === text}
                onclick={() => {
                  reason = reason === text ? '' : text;
                  why();
                }}>{text}</Button
              >{/each}
          </p>
        {/if}
      {/if}

      {#if open.has(one.id)}
        {#if others.length}
          <ul class="others" aria-label="What others say">
            {#each others as other (other.person)}
              <li>
                <PersonMark id={other.person} name={nameOf.get(other.person) ?? 'somebody who was asked'} />
                {#if other.says}<strong class={LOOKS[other.says]}>{VERDICT_WORDS[other.says]}</strong>
                {:else}<strong>place {(other.place ?? 0) + 1}</strong>{/if}
                {#if other.reason}<span>{other.reason}</span>{/if}
              </li>
            {/each}
          </ul>
        {:else if ballot.voters.some((id) => id !== self)}<p class="small-label">
            Nobody else has said anything of it yet.
          </p>{/if}
        {#if settled.has(one.id)}
          <p class="settled">
            Settled by {settled.get(one.id)!.by}:
            <strong>{VERDICT_WORDS[settled.get(one.id)!.says].toLowerCase()}</strong>
            {#if edits}<Button small look="quiet" onclick={() => settle(null)}>Open again</Button>{/if}
          </p>
        {:else if disputed}
          <p class="settled">
            You differ here.
            {#if edits}{#each VERDICTS.screening as verdict (verdict)}<Button
                  small
                  onclick={() => settle(verdict)}>Settle as {VERDICT_WORDS[verdict].toLowerCase()}d</Button
                >{/each}{/if}
          </p>
        {/if}
      {:else if ballot.voters.some((id) => id !== self)}<p class="small-label">{hiddenWords}</p>{/if}
    </section>
  </div>
{/if}

<style>
  .judging {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(240px, 400px) minmax(0, 1fr);
    min-height: 0;
  }
  .stage {
    display: flex;
    flex-direction: column;
    gap: 12px;
    min-height: 0;
    padding: 18px 26px 40px;
    overflow-y: auto;
  }
  .none {
    padding: 26px;
    color: var(--ink-2);
  }
  .links,
  .reasons,
  .verdicts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: center;
  }
  .verdicts {
    gap: 8px;
  }
  .verdicts :global(.why) {
    flex: 1;
    min-width: 180px;
  }
  .reasons {
    gap: 6px;
  }
  .abstract {
    max-width: 68ch;
    font-size: 16px;
    line-height: 1.5;
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  .others li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .settled {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
  @media (max-width: 760px) {
    .judging {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: 30vh minmax(0, 1fr);
    }
    .judging :global(.list) {
      border-right: 0;
      border-bottom: 2px solid var(--rule);
    }
  }
</style>
