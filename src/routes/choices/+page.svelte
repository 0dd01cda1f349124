<script lang="ts">
  import { WAY_WORDS } from '$lib/core/choosing';
  import type { ChoiceLine } from '$lib/server/choosing';
  import { call } from '$lib/ui/frame/client';
  import { dateLabel } from '$lib/ui/frame/dates';
  import { attempt, change, done } from '$lib/ui/frame/toasts.svelte';
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import Lines from '$lib/ui/people/Lines.svelte';

  let { data } = $props();
  const many = (n: number, one: string) => `${n.toLocaleString('en')} ${n === 1 ? one : `${one}s`}`;
  const groups = $derived(
    [
      { name: 'Waiting for you', rows: data.choices.filter((c) => c.waits) },
      { name: 'Open', rows: data.choices.filter((c) => !c.waits && !c.closed && !c.putAway) },
      { name: 'Closed', rows: data.choices.filter((c) => c.closed && !c.putAway) },
      { name: 'Put away', rows: data.choices.filter((c) => c.putAway) },
    ].filter(({ rows }) => rows.length),
  );
  const judged = ({ voters, candidates }: ChoiceLine) =>
    voters.length === 1
      ? `${voters[0]!.judged} of ${candidates} judged`
      : `${voters.filter((v) => v.judged >= candidates).length} of ${voters.length} have judged all`;
  const putAway = ({ id, name }: ChoiceLine, away: boolean) =>
    change(
      `/api/choices/${id}`,
      { act: 'put away', away },
      away ? `${name} is put away.` : `${name} is back.`,
    );
  const remove = ({ id, name }: ChoiceLine) =>
    attempt(async () => {
      await call('DELETE', `/api/choices/${id}`, {});
      done(`${name} is deleted, with what was said in it.`);
    });
</script>

<svelte:head><title>Choices · Retexa</title></svelte:head>

<PageHead>
  <h1>Choices</h1>
  <span class="sub">what is chosen from many, by several people or by you</span>
</PageHead>

{#if data.choices.length === 0}
  <Empty>
    <h2>Nothing is being chosen</h2>
    <p>
      Select sources, and under <em>More</em> take <em>Choose among them</em>: everybody who is asked gives an
      opinion with a reason, puts them in an order, or two people screen them apart from each other. What is
      chosen is filed by one action.
    </p>
    <p class="mt-4"><Button look="main" href="/sources">Go to Sources</Button></p>
  </Empty>
{:else}
  <div class="view">
    {#each groups as { name, rows } (name)}
      <section aria-label={name}>
        <h2>{name}</h2>
        <Lines>
          {#each rows as choice (choice.id)}
            <li>
              <span class="what"
                ><a class="link" href="/choices/{choice.id}">{choice.name}</a>
                <span class="sub block"
                  >{WAY_WORDS[choice.way].name} · {many(choice.candidates, 'source')} · {judged(choice)} · by {choice.ownerId ===
                  data.personId
                    ? 'you'
                    : choice.by},
                  {dateLabel(choice.made)}</span
                ></span
              >
              {#if data.edits}
                {#if choice.putAway}
                  <span class="acts"
                    ><Button small onclick={() => putAway(choice, false)}>Bring back</Button>
                    <Button
                      small
                      look="quiet"
                      aria-label="Delete {choice.name} for good"
                      onclick={() => remove(choice)}>Delete for good</Button
                    ></span
                  >
                {:else}<Button
                    small
                    look="quiet"
                    aria-label="Put {choice.name} away"
                    onclick={() => putAway(choice, true)}>Put away</Button
                  >{/if}
              {/if}
            </li>
          {/each}
        </Lines>
      </section>
    {/each}
  </div>
{/if}

<style>
  .view {
    max-width: 900px;
    padding: 4px 26px 60px;
  }
  section {
    padding: 16px 0 4px;
  }
  h2 {
    margin-bottom: 4px;
    color: var(--ink-3);
    font-size: 12.5px;
    font-weight: 650;
  }
  .what {
    display: grid;
    min-width: 0;
    padding: 4px 0;
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    flex: none;
    gap: 4px;
  }
</style>
