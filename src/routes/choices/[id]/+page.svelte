<script lang="ts">
  import { page } from '$app/state';
  import { WAY_WORDS, type Ballot } from '$lib/core/choosing';
  import { may } from '$lib/core/members';
  import Judging from '$lib/ui/choosing/Judging.svelte';
  import Ordering from '$lib/ui/choosing/Ordering.svelte';
  import Outcomes from '$lib/ui/choosing/Outcomes.svelte';
  import { change } from '$lib/ui/frame/toasts.svelte';
  import { Button, PageHead, Trail } from '$lib/ui/kit';

  let { data } = $props();
  const choice = $derived(data.choice);
  const ballot = $derived<Ballot>({
    way: choice.way,
    candidates: choice.among.map(({ id }) => id),
    voters: data.said.voters.map(({ id }) => id),
    votes: data.said.votes,
  });
  const asked = $derived(ballot.voters.includes(data.personId));
  const over = $derived(Boolean(choice.closed ?? choice.putAway));
  const votes = $derived(asked && !over && may(data.role, 'annotate'));
  const shown = $derived(page.url.searchParams.get('see') ?? (votes ? 'judge' : 'outcome'));
  const close = (closed: boolean) =>
    change(
      `/api/choices/${choice.id}`,
      { act: 'close', closed },
      closed ? 'The choice is closed; everybody sees what was said.' : 'The choice is open again.',
    );
</script>

<svelte:head><title>{choice.name} · Choices · Retexa</title></svelte:head>

<PageHead>
  <Trail above={[{ href: '/choices', name: 'Choices' }]} />
  <h1>{choice.name}</h1>
  <span class="sub"
    >{WAY_WORDS[choice.way].name.toLowerCase()}, asked by {choice.ownerId === data.personId
      ? 'you'
      : choice.by}{choice.closed ? ', closed' : ''}{choice.putAway ? ', put away' : ''}</span
  >
  <span class="flex-1"></span>
  <nav class="flex gap-2" aria-label="Of this choice" data-sveltekit-keepfocus>
    <Button
      look="chip"
      href="?see=judge"
      aria-current={shown === 'judge' ? 'page' : undefined}
      data-sveltekit-replacestate>{votes ? 'Judge' : 'Candidates'}</Button
    >
    <Button
      look="chip"
      href="?see=outcome"
      aria-current={shown === 'outcome' ? 'page' : undefined}
      data-sveltekit-replacestate>What comes of it</Button
    >
  </nav>
  {#if data.edits && !choice.putAway}
    <Button small onclick={() => close(!choice.closed)}>{choice.closed ? 'Open again' : 'Close'}</Button>
  {/if}
</PageHead>

{#if shown === 'outcome'}
  <Outcomes
    {choice}
    said={data.said}
    {ballot}
    self={data.personId}
    edits={data.edits}
    projects={data.projects}
    outlines={data.outlines}
  />
{:else if choice.way === 'order' && votes}
  <Ordering {choice} {ballot} self={data.personId} />
{:else}
  <Judging {choice} said={data.said} {ballot} self={data.personId} {votes} edits={data.edits} />
{/if}
