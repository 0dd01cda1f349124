<script lang="ts">
  import { renew as renewPage } from '../frame/live.svelte';
  import { page } from '$app/state';
  import type { Opening } from '$lib/server/backup';
  import { call } from '../frame/client';
  import { dayLabel } from '../frame/dates';
  import { countOf } from '../frame/counting';
  import { attempt } from '../frame/toasts.svelte';
  import { Button, Progress, Select } from '../kit';
  import Lines from './Lines.svelte';

  /** A backup that is opened: which libraries it has, each to be brought in beside what is here. */
  let { state: how, renew }: { state: Opening; renew: () => Promise<void> } = $props();
  /** Whom of a library the one who brings it is, where nobody has an account here. */
  let as = $state<Record<string, string>>({});
  const alone = $derived(!page.data.person);
  /** Who they may be: asked only where it cannot be known. */
  const may = (library: NonNullable<Opening['opened']>['libraries'][number]) =>
    alone && !library.here && !library.people.some(({ id }) => id === page.data.personId)
      ? library.people
      : [];

  const bring = (id: string) =>
    attempt(async () => {
      const self = as[id] ?? may(how.opened!.libraries.find((one) => one.id === id)!)[0]?.id;
      await call('POST', `/api/backups/opened/${id}`, self && self !== 'nobody' ? { as: self } : {});
      await renew();
    });
  const close = () =>
    attempt(async () => {
      await call('DELETE', '/api/backups/opened', {});
      await renew();
    });
  const going = $derived(how.under?.way);
  // What came in is among the libraries of the frame too.
  const came = $derived(how.brought?.libraryId);
  $effect(() => {
    if (came) void renewPage('*');
  });
</script>

{#if how.under}
  <div class="under" role="status">
    <span
      >{going === 'opening' ? 'The backup is gone through, file by file' : 'The library is brought in'}; go on
      working. {Math.round(how.under.share)} %</span
    >
    <Progress
      label={going === 'opening' ? 'Opening the backup' : 'Bringing the library in'}
      done={how.under.share}
      total={100}
      width="100%"
    />
  </div>
{/if}
{#if how.problem}<p class="pencil-red" role="alert">Nothing came of it: {how.problem}</p>{/if}
{#if how.brought}
  {@const { name, sources, people, missing } = how.brought}
  <p role="status">
    <strong>{name}</strong> is in: {countOf(sources, 'source')}. It is among
    {alone ? 'your libraries' : `the libraries of ${people.join(', ')}`}.
    {#if missing}<span class="pencil-red"
        >{countOf(missing, 'document')} that it names {missing === 1 ? 'is' : 'are'} not in the backup.</span
      >{/if}
  </p>
{/if}
{#if how.opened && going !== 'opening'}
  {@const { name, made, libraries } = how.opened}
  <section aria-label="What is in the backup">
    <div class="head">
      <h2>In {name}</h2>
      <span class="sub">made {dayLabel(made)}</span>
      <span class="flex-1"></span>
      <Button small onclick={close} disabled={Boolean(going)}>Close it</Button>
    </div>
    <p>
      A library comes in with all that people keep in it. Nothing here is changed by it: one that is here
      already comes in beside it. What somebody keeps for themselves stays theirs.
    </p>
    <Lines>
      {#each libraries as library (library.id)}
        {@const people = may(library)}
        <li>
          <span>
            {library.name}
            <span class="sub"
              >{countOf(library.sources, 'source')}, {countOf(library.passages, 'passage')}, {countOf(
                library.documents,
                'document',
              )} · {library.people.map((one) => one.name).join(', ')}{library.here
                ? ' · is here; comes in beside it'
                : ''}</span
            >
          </span>
          <span class="do">
            {#if people.length}
              <label class="as"
                >You are
                <Select
                  value={as[library.id] ?? people[0]!.id}
                  onchange={(e) => (as[library.id] = e.currentTarget.value)}
                >
                  {#each people as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
                  <option value="nobody">none of them</option>
                </Select></label
              >
            {/if}
            <Button
              small
              look="main"
              onclick={() => bring(library.id)}
              disabled={Boolean(going)}
              aria-label="Bring in {library.name}">Bring in</Button
            >
          </span>
        </li>
      {/each}
    </Lines>
  </section>
{/if}

<style>
  .under {
    display: grid;
    gap: 6px;
    max-width: 520px;
    margin-top: 16px;
  }
  section {
    margin-top: 22px;
    padding: 14px 18px 18px;
    border: 1px solid var(--edge);
    background: var(--page);
  }
  .head,
  .do,
  .as {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: center;
  }
  .do {
    flex: none;
  }
  .as {
    color: var(--ink-2);
    font-size: 14px;
    white-space: nowrap;
  }
  h2 {
    font-weight: 700;
    font-size: 16px;
  }
  .head + p {
    margin: 6px 0 8px;
  }
  .sub {
    color: var(--ink-3);
    font-size: 13.5px;
  }
  p {
    max-width: 70ch;
    margin-top: 12px;
    color: var(--ink-2);
  }
</style>
