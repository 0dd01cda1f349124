<script lang="ts">
  import type { ApexOptions } from 'apexcharts';
  import { SvelteSet } from 'svelte/reactivity';
  import { untrack } from 'svelte';
  import {
    agreement,
    outcomes,
    strengthOf,
    VERDICT_WORDS,
    VERDICTS,
    type Ballot,
    type Outcome,
  } from '$lib/core/choosing';
  import type { Choice, Said } from '$lib/server/choosing';
  import type { OutlineSection, Project } from '$lib/server/projects';
  import {
    ActionBar,
    Button,
    Chart,
    Checkbox,
    Input,
    Menu,
    Table,
    TableBody,
    TableBodyCell,
    TableBodyRow,
    TableHead,
    TableHeadCell,
  } from '../kit';
  import { placesFor } from '../outline/tree.svelte';
  import { saveTable } from '../source/table-out';

  interface Props {
    choice: Choice;
    said: Said;
    ballot: Ballot;
    /** Who looks. */
    self: string;
    edits: boolean;
    projects: Project[];
    outlines: OutlineSection[];
  }
  /** What comes of a choice, as far as it may be seen: counted, drawn, how far two agree, and what is chosen to be filed. */
  let { choice, said, ballot, self, edits, projects, outlines }: Props = $props();

  const settled = $derived(new Map(said.settled.map(({ candidate, says }) => [candidate, says])));
  const open = $derived(new Set(said.open));
  const all = $derived(outcomes(ballot, settled));
  const seen = $derived(all.filter(({ candidate }) => open.has(candidate)));
  const hidden = $derived(all.length - seen.length);
  const headline = $derived(new Map(choice.among.map((one) => [one.id, one.headline])));
  const agreed = $derived(open.size === all.length ? agreement(ballot) : undefined);
  const verdicts = $derived(VERDICTS[choice.way]);
  const voterName = $derived(new Map(said.voters.map(({ id, name }) => [id, name])));

  /** What is ticked: what is proposed, until somebody ticks otherwise. */
  const ticked = new SvelteSet<string>();
  let touched = false;
  $effect(() => {
    const proposed = seen.filter((o) => o.proposed).map((o) => o.candidate);
    untrack(() => {
      if (touched) return;
      ticked.clear();
      for (const id of proposed) ticked.add(id);
    });
  });
  const chosen = $derived(seen.map((o) => o.candidate).filter((id) => ticked.has(id)));
  function tick(id: string, yes: boolean) {
    touched = true;
    if (yes) ticked.add(id);
    else ticked.delete(id);
  }
  let first = $state('');
  function takeFirst() {
    touched = true;
    ticked.clear();
    for (const { candidate } of seen.slice(0, Math.max(0, Math.trunc(Number(first))))) ticked.add(candidate);
  }

  /** How many the chart has room for. */
  const DRAWN = 14;
  const drawn = $derived(seen.slice(0, DRAWN));
  const short = (id: string) => {
    const text = headline.get(id) ?? '';
    return text.length > 27 ? `${text.slice(0, 26)}…` : text;
  };
  const series = $derived(
    choice.way === 'order'
      ? [{ name: 'Points', data: drawn.map((o) => o.points ?? 0) }]
      : verdicts.map((verdict) => ({
          name: VERDICT_WORDS[verdict],
          data: drawn.map((o) => o.counts[verdict] ?? 0),
        })),
  );
  const options = $derived<ApexOptions>({
    series,
    chart: { type: 'bar', stacked: true, toolbar: { show: false } },
    colors: ['--green-pencil', ...(verdicts.length === 3 ? ['--blue-pencil'] : []), '--red-pencil'],
    // Told apart by pattern too.
    fill: {
      type: ['solid', ...(verdicts.length === 3 ? ['pattern'] : []), 'pattern'],
      pattern: {
        style: ['squares', ...(verdicts.length === 3 ? ['verticalLines'] : []), 'slantedLines'],
        width: 5,
        height: 5,
        strokeWidth: 2,
      },
    },
    plotOptions: { bar: { horizontal: true, barHeight: '68%' } },
    xaxis: {
      categories: drawn.map((o) => short(o.candidate)),
      labels: { formatter: (value: string) => (Number.isInteger(Number(value)) ? value : '') },
      ...(choice.way === 'order' ? {} : { tickAmount: Math.min(said.voters.length, 8) }),
    },
    yaxis: {
      labels: { maxWidth: 230 },
      ...(choice.way === 'order' ? {} : { min: 0, max: said.voters.length }),
    },
    legend: { show: series.length > 1, position: 'top', horizontalAlign: 'left' },
    grid: { padding: { top: -12 } },
  });
  const words = (o: Outcome) =>
    o.points !== null
      ? `${o.points.toLocaleString('en')} points`
      : verdicts
          .filter((v) => o.counts[v])
          .map((v) => `${o.counts[v]} ${VERDICT_WORDS[v].toLowerCase()}`)
          .join(', ') || 'nothing said';
  const reasonsOf = (id: string) =>
    said.votes
      .filter((v) => v.candidate === id && v.reason)
      .map((v) => `${voterName.get(v.person) ?? ''}: ${v.reason}`);
  /** Why something was left out, and how often. */
  const counted = $derived.by(() => {
    const counts: Record<string, number> = {};
    for (const { candidate, says, reason } of said.votes)
      if (reason && (says === 'leave' || says === 'exclude') && open.has(candidate))
        counts[reason] = (counts[reason] ?? 0) + 1;
    return Object.entries(counts).sort((a, b) => b[1] - a[1]);
  });
  const percent = (n: number) => `${Math.round(n * 100)} %`;

  const save = () =>
    saveTable(
      {
        heads: [
          'Source',
          ...said.voters.flatMap(({ name }) => [name, `${name}: reason`]),
          choice.way === 'order' ? 'Points' : 'Outcome',
        ],
        rows: seen.map((o) => [
          headline.get(o.candidate) ?? '',
          ...said.voters.flatMap(({ id }) => {
            const vote = said.votes.find((v) => v.person === id && v.candidate === o.candidate);
            const says = vote?.says
              ? VERDICT_WORDS[vote.says]
              : vote?.place !== null && vote
                ? vote.place + 1
                : '';
            return [says, vote?.reason ?? ''];
          }),
          o.points ??
            (settled.has(o.candidate)
              ? `${VERDICT_WORDS[settled.get(o.candidate)!]} (settled)`
              : o.disputed
                ? 'They differ'
                : o.proposed
                  ? VERDICT_WORDS[verdicts[0]!]
                  : ''),
        ]),
      },
      choice.name,
      'csv',
    );
</script>

<div class="outcomes">
  <section class="sum" aria-label="In short">
    <p>
      {#each said.voters as voter, i (voter.id)}{i ? ', ' : ''}{voter.id === self
          ? `${i ? 'you' : 'You'} have`
          : `${voter.name} has`} judged {voter.judged >= choice.among.length
          ? 'all'
          : `${voter.judged} of ${choice.among.length}`}{/each}.
    </p>
    {#if hidden}<p class="small-label">
        What was said of {hidden === all.length ? 'them' : `${hidden.toLocaleString('en')} of them`} is hidden
        {choice.way === 'screening'
          ? 'until both have judged everything'
          : 'until you have said something yourself'}.
      </p>{/if}
    {#if agreed?.both}
      <div class="agreed">
        <p>
          {voterName.get(ballot.voters[0]!)} and {voterName.get(ballot.voters[1]!)} say the same of
          <strong>{agreed.alike} of {agreed.both}</strong> ({percent(agreed.observed!)}; {percent(
            agreed.expected!,
          )} would be by chance).
          {#if agreed.kappa !== null}Cohen’s kappa is <strong>{agreed.kappa.toFixed(2)}</strong>, an agreement
            that is called {strengthOf(agreed.kappa)}.
          {:else}Both always say the same, so that there is no kappa.{/if}
        </p>
        <Table aria-label="How often they said what">
          <TableHead
            ><TableBodyCell></TableBodyCell>{#each verdicts as v (v)}<TableHeadCell scope="col"
                >{voterName.get(ballot.voters[1]!)}: {VERDICT_WORDS[v].toLowerCase()}</TableHeadCell
              >{/each}</TableHead
          >
          <TableBody
            >{#each verdicts as v, i (v)}<TableBodyRow
                ><TableHeadCell scope="row"
                  >{voterName.get(ballot.voters[0]!)}: {VERDICT_WORDS[v].toLowerCase()}</TableHeadCell
                >{#each verdicts as other, j (other)}<TableBodyCell>{agreed.table[i]![j]}</TableBodyCell
                  >{/each}</TableBodyRow
              >{/each}</TableBody
          >
        </Table>
      </div>
    {/if}
    {#if counted.length}
      <details>
        <summary>Why something was left out</summary>
        <ul class="why">
          {#each counted as [reason, n] (reason)}<li><span>{reason}</span><span>{n}</span></li>{/each}
        </ul>
      </details>
    {/if}
  </section>

  {#if seen.length}
    <section aria-label="Drawn">
      <Chart
        label="{choice.name}: {drawn.map((o) => `${headline.get(o.candidate)} ${words(o)}`).join('; ')}"
        height={70 + drawn.length * 27}
        {options}
      />
      {#if seen.length > DRAWN}<p class="small-label">
          The first {DRAWN} are drawn; all of them are below.
        </p>{/if}
    </section>
    <ul class="rows" aria-label="What was said of each">
      {#each seen as o (o.candidate)}
        <li>
          <Checkbox
            aria-label="Choose {headline.get(o.candidate)}"
            checked={ticked.has(o.candidate)}
            onchange={(e) => tick(o.candidate, e.currentTarget.checked)}
          />
          <span class="name"
            ><a class="serif" href="/sources/{o.candidate}">{headline.get(o.candidate)}</a>
            {#each reasonsOf(o.candidate) as reason, i (i)}<span class="small-label">{reason}</span
              >{/each}</span
          >
          <span class="says"
            >{words(o)}{#if settled.has(o.candidate)}<br /><span class="pencil-green"
                >settled: {VERDICT_WORDS[settled.get(o.candidate)!].toLowerCase()}</span
              >{:else if o.disputed}<br /><span class="pencil-blue">they differ</span>{/if}</span
          >
        </li>
      {/each}
    </ul>
  {/if}
</div>

{#if seen.length}
  <ActionBar>
    <strong class="whitespace-nowrap">{chosen.length.toLocaleString('en')} chosen</strong>
    {#if edits}<Menu
        id="file-chosen"
        text="File them in"
        label="File the chosen in"
        placement="top"
        disabled={chosen.length === 0}
        acts={placesFor(projects, outlines, chosen)}
      />{/if}
    <form
      class="flex items-center gap-2"
      onsubmit={(e) => {
        e.preventDefault();
        takeFirst();
      }}
    >
      <label for="take-first">Choose the first</label>
      <Input id="take-first" style="width: 64px" inputmode="numeric" bind:value={first} />
      <Button type="submit" disabled={!/^\d+$/.test(first)}>Choose</Button>
    </form>
    <span class="flex-1"></span>
    <Button onclick={save}>Save as a table (CSV)</Button>
  </ActionBar>
{/if}

<style>
  .outcomes {
    flex: 1;
    min-height: 0;
    padding: 16px 26px 40px;
    overflow-y: auto;
  }
  section {
    max-width: 900px;
    margin-bottom: 14px;
  }
  .sum {
    display: grid;
    gap: 8px;
  }
  .agreed {
    display: grid;
    gap: 10px;
    max-width: 72ch;
  }
  summary {
    color: var(--ink-2);
    cursor: pointer;
  }
  .why li {
    display: flex;
    gap: 12px;
    justify-content: space-between;
    max-width: 420px;
    padding: 2px 0;
  }
  .rows {
    max-width: 900px;
  }
  .rows li {
    display: flex;
    gap: 12px;
    align-items: baseline;
    padding: 7px 0;
    border-bottom: 1px solid var(--rule);
  }
  .name {
    display: grid;
    flex: 1;
    min-width: 0;
    font-size: 16px;
    line-height: 1.35;
    overflow-wrap: anywhere;
  }
  .name a:hover {
    text-decoration: underline;
  }
  .says {
    flex: none;
    max-width: 42%;
    font-size: 13.5px;
    text-align: right;
  }
</style>
