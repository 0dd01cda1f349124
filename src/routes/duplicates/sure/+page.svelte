<script lang="ts">
  import { Button, Checkbox, Empty, PageHead, Trail } from '$lib/ui/kit';
  import { fieldName } from '$lib/core/source';
  import type { ShownReference } from '$lib/server/lists';
  import Reference from '$lib/ui/source/Reference.svelte';
  import { mergeGroups, undoMerge } from '$lib/ui/duplicates/deciding';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, done, doneWithUndo, trouble } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  let left = $state<Record<string, boolean>>({});
  let busy = $state(false);
  let printed = $state<Record<string, ShownReference | undefined>>({});
  $effect(() => {
    const list = data.printed;
    // What was printed before stays until it is printed anew; a list that cannot be printed has its labels.
    list.then((all) => {
      if (list === data.printed) printed = all;
    }, trouble);
  });
  const chosen = $derived(data.groups.filter((g) => !left[g.id]));
  const many = (n: number, one: string, several = `${one}s`) => `${n} ${n === 1 ? one : several}`;

  async function merge() {
    if (busy || chosen.length === 0) return;
    busy = true;
    const step = chosen.map(({ ids, bases }) => ({ ids, bases }));
    const made = await attempt(() => mergeGroups(step));
    busy = false;
    if (made) doneWithUndo(`${many(step.length, 'group')} merged.`, async () => done(await undoMerge(made)));
    await renewed();
  }
</script>

<svelte:head><title>Sure duplicates · Retexa</title></svelte:head>

<PageHead>
  <Trail above={[{ href: '/duplicates', name: 'Duplicates' }]} />
  <h1>Surely one work</h1>
  <span class="sub"
    >{data.total > data.groups.length
      ? `the first ${data.groups.length} of ${data.total.toLocaleString('en')} groups`
      : many(data.groups.length, 'group')}</span
  >
  <span class="flex-1"></span>
  <Button look="link" href="/duplicates">One by one</Button>
</PageHead>

{#if data.groups.length === 0}
  <Empty>
    <h2>Nothing that is surely twice</h2>
    <p>What is left is for you to decide, <a class="link" href="/duplicates">one by one</a>.</p>
  </Empty>
{:else}
  <p class="bar">
    <Button look="main" onclick={merge} disabled={busy || chosen.length === 0}
      >{busy ? 'Merging…' : `Merge ${many(chosen.length, 'group')}`}</Button
    >
    <span class="small-label">As each will print. Untick what is not one work; one undo takes all back.</span>
  </p>
  <ul>
    {#each data.groups as group (group.id)}
      <li class:left={left[group.id]}>
        <Checkbox
          checked={!left[group.id]}
          aria-label="Merge {group.label}"
          onchange={(event) => (left[group.id] = !event.currentTarget.checked)}
        />
        <div>
          <Reference reference={printed[group.id]} fallback={group.label} />
          <p class="small-label">
            {many(group.ids.length, 'source')} · {group.reasons.join(' · ')}{#if group.doubtful.length}&nbsp;· <span
                class="pencil-blue font-semibold"
                >check {group.doubtful.map((f) => fieldName(f)).join(', ')}</span
              >{/if}
          </p>
        </div>
        <Button small look="quiet" href="/duplicates?with={group.id}">Compare</Button>
      </li>
    {/each}
  </ul>
{/if}

<style>
  .bar {
    position: sticky;
    top: 0;
    z-index: 1;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 14px;
    padding: 10px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--page);
  }
  li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: start;
    padding: 10px 26px;
    border-bottom: 1px solid var(--rule);
  }
  li.left {
    opacity: 0.55;
  }
</style>
