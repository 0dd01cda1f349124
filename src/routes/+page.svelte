<script lang="ts">
  import { Button, PageHead } from '$lib/ui/kit';
  import DeskCharts from '$lib/ui/desk/DeskCharts.svelte';
  import FirstRun from '$lib/ui/frame/FirstRun.svelte';
  import ForMe from '$lib/ui/people/ForMe.svelte';
  import TaskList from '$lib/ui/reader/TaskList.svelte';
  import TintSwatch from '$lib/ui/reader/TintSwatch.svelte';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { dateLabel } from '$lib/ui/frame/dates';

  let { data } = $props();
  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const toRead = $derived(data.charts.reading.find(({ state }) => state === 'to-read')?.n ?? 0);
  const waits = $derived(
    [
      { n: data.counts.intake, text: 'captured and not checked yet', act: 'Check them', href: '/intake' },
      {
        n: data.counts.duplicates,
        text: data.counts.duplicates === 1 ? 'pair looks like one work' : 'pairs look like one work',
        act: 'Compare',
        href: '/duplicates',
      },
      {
        n: data.counts.findings,
        text: 'with something that will print wrong or a question',
        act: 'Look at them',
        href: '/sources?state=findings',
      },
      {
        n: toRead,
        text: 'to read',
        act: 'Read them',
        href: '/sources?q=reading:to-read',
      },
    ].filter((w) => w.n > 0),
  );
</script>

<svelte:head><title>Desk · Retexa</title></svelte:head>

<PageHead>
  <h1>Desk</h1>
  <span class="sub">{project ? project.name : data.library}</span>
</PageHead>

{#if data.counts.sources === 0}
  <FirstRun project={project?.name} />
{:else}
  <div class="desk">
    <section>
      <h2>What waits</h2>
      {#each waits as wait (wait.href)}
        <p class="wait">
          <strong>{wait.n}</strong><span>{wait.text}</span><Button small href={wait.href}>{wait.act}</Button>
        </p>
      {:else}<p class="pencil-green font-semibold">
          Nothing waits. Everything is checked and prints complete.
        </p>{/each}
      {#if data.forMe.length}
        <h2>For you</h2>
        <ForMe lines={data.forMe} />
      {/if}
      {#if data.tasks.length}
        <h2>To do</h2>
        <TaskList tasks={data.tasks} />
      {/if}
      <h2>Last added</h2>
      <ul>
        {#each data.desk.added as source (source.id)}
          <li>
            <TypeGlyph type={source.type} class="text-ink-3" /><a
              class="serif"
              href={source.checked ? `/sources/${source.id}` : `/intake?at=${source.id}`}>{source.headline}</a
            ><span class="small-label">{dateLabel(source.added)}</span>
          </li>
        {/each}
      </ul>
    </section>
    <section class="margin">
      <h2>Where you stopped reading</h2>
      {#each data.desk.passages as passage (passage.id)}
        <a
          class="card"
          href={passage.copyId
            ? `/copies/${passage.copyId}?passage=${passage.id}`
            : `/passages?source=${passage.sourceId}`}
        >
          <span class="small-label"><TintSwatch tint={passage.tint} /> {passage.label}</span>
          {#if passage.gist}<strong>{passage.gist}</strong>{/if}
          {#if passage.exact}<q class="serif"
              >{passage.exact.slice(0, 160)}{passage.exact.length > 160 ? '…' : ''}</q
            >{/if}
        </a>
      {:else}<p class="text-ink-2">
          No passages yet. Open the copy of a source and select a sentence.
        </p>{/each}
      <p class="mt-4"><a class="link" href="/references">Print the reference list</a> in {data.look.name}</p>
    </section>
  </div>
  <DeskCharts charts={data.charts} />
{/if}

<style>
  .desk {
    display: grid;
    flex: none;
    grid-template-columns: minmax(0, 1fr) 400px;
  }
  section {
    padding: 18px 26px 40px;
  }
  .margin {
    border-left: 1px solid var(--margin-rule);
  }
  h2 {
    margin-bottom: 8px;
    color: var(--ink-3);
    font-size: 12.5px;
    font-weight: 650;
  }
  h2:not(:first-child) {
    margin-top: 28px;
  }
  .wait {
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 9px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 15px;
  }
  .wait strong {
    min-width: 34px;
    color: var(--blue-pencil);
    font-family: var(--font-serif);
    font-size: 24px;
    line-height: 1;
    text-align: right;
  }
  .wait span {
    flex: 1;
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 10px;
    padding: 7px 0;
    border-bottom: 1px solid var(--rule);
  }
  li a {
    flex: 1;
    font-size: 16px;
    line-height: 1.35;
  }
  li a:hover {
    text-decoration: underline;
  }
  .card {
    display: grid;
    gap: 2px;
    padding: 10px 0;
    border-bottom: 1px solid var(--rule);
  }
  .card:hover strong {
    text-decoration: underline;
  }
  q {
    color: var(--ink-2);
    font-size: 15px;
    line-height: 1.4;
  }
  @media (max-width: 900px) {
    .desk {
      grid-template-columns: minmax(0, 1fr);
    }
    .margin {
      border: 0;
    }
  }
</style>
