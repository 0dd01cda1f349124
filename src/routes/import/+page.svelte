<script lang="ts">
  import { onMount } from 'svelte';
  import { Button, Checkbox, FileButton, FileDrop, PageHead, Textarea } from '$lib/ui/kit';
  import { READABLE } from '$lib/core/formats';
  import type { FirstOf } from '$lib/server/lists';
  import type { Made } from '$lib/server/many';
  import { call } from '$lib/ui/frame/client';
  import ImportChoices from '$lib/ui/capture/ImportChoices.svelte';
  import { drafts } from '$lib/ui/frame/drafts';
  import { timeLabel } from '$lib/ui/frame/dates';
  import JobGoing from '$lib/ui/capture/JobGoing.svelte';
  import { actOn, isGoing } from '$lib/ui/capture/jobs';
  import { attempt, doneWith } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  let toIntake = $state(false);
  const BEGUN = 'import';
  let pasted = $state('');
  let pasting = $state(false);
  onMount(() => {
    pasted = drafts.find<string>(BEGUN) ?? '';
    pasting = pasted !== '';
  });
  $effect(() => {
    if (pasted.trim()) drafts.keep(BEGUN, pasted);
    else drafts.drop(BEGUN);
  });
  const project = $derived(data.projects.find((p) => p.id === data.projectId));

  async function bring(name: string, body: Blob) {
    return attempt(() =>
      call('POST', `/api/import?name=${encodeURIComponent(name)}${toIntake ? '&intake=1' : ''}`, body),
    );
  }
  async function files(list: FileList | File[]) {
    for (const file of list) await bring(file.name, file);
  }
  async function takeBack(id: string) {
    const made = await actOn<Made>(id, 'take-back');
    if (!made) return;
    await doneWith(made, 0, (n, _left, stays) =>
      [
        n
          ? `The import is taken back: ${many(n, 'source', 'sources')}.`
          : 'Nothing of this import is left in the library.',
        stays.length ? `Changed since, and left as it is: ${stays.join('; ')}.` : '',
      ]
        .filter(Boolean)
        .join(' '),
    );
  }
  const many = (n: number, one: string, more: string) => `${n.toLocaleString('en')} ${n === 1 ? one : more}`;
</script>

{#snippet rest({ total, items }: FirstOf<unknown>)}
  {#if total > items.length}<li>and {(total - items.length).toLocaleString('en')} more.</li>{/if}
{/snippet}

<svelte:head><title>Import · Retexa</title></svelte:head>

<PageHead>
  <h1>Import</h1>
  <span class="sub">references from a file, {project ? `into ${project.name}` : 'into the library'}</span>
</PageHead>

<div class="body">
  <FileDrop onfiles={files}>
    <p>
      Drop a file here: {Object.values(READABLE)
        .map((f) => `${f.label} (.${f.extension})`)
        .join(', ')}
    </p>
    <FileButton
      look="main"
      label="File of references"
      accept=".bib,.ris,.json,.txt,.nbib,.xml"
      multiple
      onfiles={files}>Choose a file</FileButton
    >
    <label class="flex items-center gap-2"
      ><Checkbox bind:checked={toIntake} /> Check them one by one in Intake</label
    >
  </FileDrop>
  <details bind:open={pasting}>
    <summary>Or paste references</summary>
    <Textarea
      class="mt-2"
      rows="6"
      aria-label="References to import"
      placeholder={'@book{…}   or   TY  - BOOK …   or   [{"type": "book", …}]'}
      bind:value={pasted}
    ></Textarea>
    <Button
      class="mt-2"
      disabled={!pasted.trim()}
      onclick={async () => {
        if (await bring('pasted text', new Blob([pasted]))) pasted = '';
      }}>Import what is pasted</Button
    >
  </details>

  {#each data.imports as job (job.id)}
    <section class="report" aria-label="Import of {job.input.fileName}" data-state={job.state}>
      <h2>
        {job.input.fileName}
        <span class="small-label">{READABLE[job.input.format]?.label} · {timeLabel(job.created)}</span>
      </h2>
      {#if isGoing(job)}<JobGoing {job} />
      {:else if job.state === 'failed'}
        <p class="pencil-red">{job.error?.message}</p>
        <Button small onclick={() => actOn(job.id, 'retry')}>Try again</Button>
      {:else if !job.result}<p>Put away: nothing of the file was added.</p>
      {:else if job.result.kind === 'asks'}
        {#if job.state === 'done'}<ImportChoices jobId={job.id} question={job.result} />
        {:else}<p>Left: nothing of the file was added.</p>{/if}
      {:else}
        {@const { added, skipped, doubles, noted, merged, leftOut } = job.result}
        <p>
          {#if !added && !merged && !leftOut && !skipped.total}The file holds no references:{/if}
          <strong>{many(added, 'source', 'sources')} added</strong>{#if merged},
            <strong>{many(merged, 'merged', 'merged')}</strong> with what you had{/if}{#if leftOut}, {leftOut}
            left out{/if}{#if skipped.total}, <strong class="pencil-red">{skipped.total} skipped</strong
            >{/if}{#if doubles.total}, <a class="link" href="/duplicates"
              >{many(doubles.total, 'looks', 'look')} like one you had</a
            >{/if}.
          {#if added || merged}<Button small onclick={() => takeBack(job.id)}>Take this import back</Button
            >{/if}
        </p>
        {#if skipped.total}
          <h3>Skipped</h3>
          <ul>
            {#each skipped.items as s, i (i)}<li>
                <span class="line">line {s.line}</span>
                {s.reason} <code>{s.text.slice(0, 80)}</code>
              </li>{/each}
            {@render rest(skipped)}
          </ul>
        {/if}
        {#if doubles.total}
          <h3>Perhaps already here</h3>
          <ul>
            {#each doubles.items as d (d.id)}<li>
                <a class="serif hover:underline" href="/sources/{d.id}">{d.label}</a>: {d.reason}
              </li>{/each}
            {@render rest(doubles)}
          </ul>
        {/if}
        {#if noted.total}
          <h3>Read otherwise than written</h3>
          <ul>
            {#each noted.items as n (n.id)}<li>
                <span class="line">line {n.line}</span>
                <a class="serif hover:underline" href="/sources/{n.id}">{n.label}</a>: {n.notes.join('; ')}
              </li>{/each}
            {@render rest(noted)}
          </ul>
        {/if}
      {/if}
    </section>
  {/each}
</div>

<style>
  .body {
    display: grid;
    gap: 16px;
    max-width: 860px;
    padding: 20px 26px 60px;
  }
  summary {
    color: var(--ink-2);
    cursor: pointer;
  }
  .report {
    padding-top: 12px;
    border-top: 1px solid var(--rule);
  }
  h2 {
    font-weight: 650;
  }
  h3 {
    margin-top: 10px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  li {
    padding: 2px 0;
    font-size: 13px;
  }
  .line {
    display: inline-block;
    min-width: 64px;
    color: var(--ink-3);
  }
  code {
    color: var(--ink-3);
    font-size: 12px;
  }
</style>
