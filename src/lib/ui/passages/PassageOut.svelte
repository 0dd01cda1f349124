<script lang="ts">
  import type { PassageOutput } from '$lib/server/passages';
  import { call, copyText, downloadMade, type MadeFile } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Checkbox, Popover, Radio } from '../kit';
  import { people } from '../people/others.svelte';

  interface Props {
    /** The passages, in the order they go out. */
    ids: string[];
    title: string;
  }
  /** Passages out of the library: on the clipboard or as a file, each cited in the project's style. */
  let { ids, title }: Props = $props();
  const FILES: [PassageOutput, string][] = [
    ['docx', '.docx'],
    ['html', 'HTML'],
    ['markdown', 'Markdown'],
    ['text', 'Text'],
    ['csv', 'CSV'],
  ];
  let layout = $state<'beside' | 'below'>('beside');
  let replies = $state(false);
  let busy = $state(false);
  const id = $props.id();

  async function working(work: () => Promise<void>) {
    busy = true;
    await attempt(work);
    busy = false;
  }
  const copy = () =>
    working(async () => {
      const { plain, rich } = await call<{ plain: string; rich: string }>('POST', '/api/passages/copied', {
        ids,
        layout,
      });
      await copyText(plain, rich);
      done(ids.length === 1 ? 'The passage is copied, cited.' : `${ids.length} passages are copied, cited.`);
    });
  const save = (as: PassageOutput) =>
    working(async () => {
      const made = await call<MadeFile>('POST', '/api/passages/out', {
        ids,
        as,
        layout,
        title,
        replies,
      });
      downloadMade(made);
      done(`${made.name} is saved.`);
    });
</script>

<Button id="out-{id}" disabled={ids.length === 0}>Copy or save…</Button>
<Popover triggeredBy="#out-{id}" label="Copy or save" placement="bottom">
  <div class="out">
    <p class="small-label">
      {ids.length === 1 ? 'One passage' : `${ids.length.toLocaleString('en')} passages`}, each with its
      citation, and their references
    </p>
    <div role="radiogroup" aria-label="How they stand" class="grid gap-1">
      <Radio bind:group={layout} value="beside" name="layout-{id}">quotation and own words side by side</Radio
      >
      <Radio bind:group={layout} value="below" name="layout-{id}">one below the other</Radio>
    </div>
    {#if people.several}<label
        ><Checkbox bind:checked={replies} /> with what was said to them, in the file</label
      >{/if}
    <div class="files">
      <Button look="main" small disabled={busy} onclick={copy}>Copy</Button>
      {#each FILES as [as, name] (as)}<Button small disabled={busy} onclick={() => save(as)}>{name}</Button
        >{/each}
    </div>
  </div>
</Popover>

<style>
  .out {
    display: grid;
    gap: 10px;
    max-width: 330px;
    font-size: 13px;
  }
  .files {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
