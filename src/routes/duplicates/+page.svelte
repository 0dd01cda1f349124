<script lang="ts">
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import type { MergeField, Picks } from '$lib/core/duplicates';
  import type { ShownReference } from '$lib/server/lists';
  import Reference from '$lib/ui/source/Reference.svelte';
  import { offer } from '$lib/ui/frame/actions.svelte';
  import { call, isTyping } from '$lib/ui/frame/client';
  import Decided from '$lib/ui/duplicates/Decided.svelte';
  import { mergeGroups, undoMerge } from '$lib/ui/duplicates/deciding';
  import GroupActs from '$lib/ui/duplicates/GroupActs.svelte';
  import GroupTable from '$lib/ui/duplicates/GroupTable.svelte';
  import Verdict from '$lib/ui/duplicates/Verdict.svelte';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, done, doneWithUndo } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  let picks = $state<Picks>({});
  let preview = $state<ShownReference | undefined>();
  let row = $state(0);
  let typing = $state(false);
  let undoing = $state(false);
  let apartShown = $state(false);
  let busy = $state(false);
  let shown = '';

  /** What is laid out: the sources one chose, or a group that was found. */
  const group = $derived(
    data.chosen
      ? { verdict: data.chosen.against ? 'Two works?' : 'One work?', reasons: data.chosen.reasons }
      : data.groups[data.at] && {
          verdict: data.groups[data.at]!.verdict === 'sure' ? 'Surely one work' : 'One work?',
          reasons: data.groups[data.at]!.reasons,
        },
  );
  const sources = $derived(data.comparison?.sources ?? []);
  const rows = $derived(data.comparison?.proposals ?? []);
  const ids = $derived(sources.map((s) => s.id));
  const bases = $derived(sources.map((s) => s.revision));
  $effect(() => {
    const key = `${ids.join()} ${bases.join()}`;
    untrack(() => {
      if (key === shown) return;
      shown = key;
      picks = {};
      row = 0;
      typing = false;
      preview = undefined;
    });
  });
  let asked = 0;
  $effect(() => {
    if (ids.length < 2) return;
    const body = { ids, picks: $state.snapshot(picks) };
    const mine = ++asked;
    void attempt(async () => {
      const printed = await call<ShownReference>('POST', '/api/duplicates/merged', body);
      if (mine === asked) preview = printed;
    });
  });

  const many = (n: number, one: string, several = `${one}s`) => `${n} ${n === 1 ? one : several}`;
  const pick = (field: MergeField, to: number | { value: unknown }) => (picks = { ...picks, [field]: to });

  async function go(to: number) {
    const next = data.groups[((to % data.groups.length) + data.groups.length) % data.groups.length];
    if (next)
      await goto(`/duplicates?with=${next.id}`, { replaceState: true, noScroll: true, keepFocus: true });
  }

  async function merge() {
    if (ids.length < 2 || busy) return;
    busy = true;
    const made = await attempt(() => mergeGroups([{ ids, bases, picks: $state.snapshot(picks) }]));
    busy = false;
    if (made)
      doneWithUndo('Merged into one.', async () => {
        const said = await undoMerge(made);
        if (said.includes('stays')) done(said);
      });
    if (made && data.chosen) await goto(`/sources/${ids[0]}`);
    await renewed();
  }

  /** Says something of the sources that `back` takes back. */
  async function say(words: string, body: object, back: object) {
    const kept = await attempt(async () => {
      await call('POST', '/api/duplicates', body);
      return true;
    });
    if (kept) doneWithUndo(words, () => call('POST', '/api/duplicates', back));
    await renewed();
  }
  const fromOthers = (id: string) => ({ id, others: ids.filter((other) => other !== id) });
  const apart = (id: string, words: string) =>
    say(
      `${words} They will not be suggested again.`,
      { act: 'apart', ...fromOthers(id) },
      { act: 'not-apart', ...fromOthers(id) },
    );
  const out = (id: string) => apart(id, 'Kept out of the group.');
  const keepApart = () => apart(ids[0]!, 'Kept apart.');
  const relate = (id: string, kind: string) =>
    say(
      ids.length > 2 ? 'Linked. The sources say so.' : 'Linked. Both sources say so.',
      { act: 'relate', ...fromOthers(id), kind },
      { act: 'unrelate', ...fromOthers(id) },
    );

  async function lookThrough() {
    await attempt(() => call('POST', '/api/duplicates/pass', {}));
  }

  offer(() =>
    group
      ? {
          'duplicates merge': () => void merge(),
          'duplicates apart': ids.length === 2 ? () => void keepApart() : undefined,
          'duplicates later': data.chosen ? undefined : () => void go(data.at + 1),
          'duplicates type': rows.length ? () => void (typing = true) : undefined,
        }
      : {},
  );

  function onkey(event: KeyboardEvent) {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !group) return;
    const current = rows[row];
    const side = (by: 1 | -1) => () => {
      const now = picks[current!.field] ?? current!.from;
      const to = typeof now === 'number' ? now + by : by > 0 ? 0 : ids.length - 1;
      pick(current!.field, Math.max(0, Math.min(ids.length - 1, to)));
    };
    const acts: Record<string, (() => void) | undefined> = {
      ArrowDown: () => (row = Math.min(rows.length - 1, row + 1)),
      ArrowUp: () => (row = Math.max(0, row - 1)),
      ArrowLeft: current && side(-1),
      ArrowRight: current && side(1),
    };
    const act = acts[event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:head><title>Duplicates · Retexa</title></svelte:head>
<svelte:window onkeydown={onkey} />

<PageHead>
  <h1>Duplicates</h1>
  <span class="sub"
    >{data.chosen
      ? `${sources.length} you chose`
      : data.total
        ? `${data.first + data.at + 1} of ${data.total.toLocaleString('en')} · surest first`
        : 'none suspected'}</span
  >
  <span class="flex-1"></span>
  {#if data.chosen && data.total}<Button look="chip" href="/duplicates"
      >{many(data.total, 'group')} found in the library</Button
    >{/if}
  {#if data.sure > 1}<Button look="chip" href="/duplicates/sure"
      >All {data.sure.toLocaleString('en')} sure ones at once</Button
    >{/if}
  {#if data.spellings}<Button look="chip" href="/duplicates/spellings"
      >{many(data.spellings, 'name')} in several spellings</Button
    >{/if}
  <Button needs="edit" look="chip" title="Judges every source of the library again" onclick={lookThrough}
    >Look through all again</Button
  >
  {#if data.merges.length}<Button look="chip" aria-expanded={undoing} onclick={() => (undoing = !undoing)}
      >{many(data.merges.length, 'merge')} can be undone</Button
    >{/if}
  {#if data.apart.length}<Button
      look="chip"
      aria-expanded={apartShown}
      onclick={() => (apartShown = !apartShown)}>{many(data.apart.length, 'pair')} kept apart</Button
    >{/if}
</PageHead>

<Decided merges={undoing ? data.merges : []} apart={apartShown ? data.apart : []} />

{#if !group || !data.comparison}
  <Empty>
    <h2>Nothing twice</h2>
    <p>
      When sources look like one work, they are set side by side here, whatever site or file they came from.
      Editions, volumes, preprints and notices that share a title are left alone.
    </p>
  </Empty>
{:else}
  <div class="body">
    <Verdict verdict={group.verdict}>
      {ids.length > 2 ? `${ids.length} sources · ` : ''}{group.reasons.join(' · ')}
    </Verdict>
    <GroupTable
      comparison={data.comparison}
      {picks}
      {row}
      {typing}
      onpick={(field, to, i) => {
        row = i;
        pick(field, to);
      }}
      ontyped={() => (typing = false)}
      onout={out}
      onrelate={relate}
    />
    <section class="prints" aria-label="As it will print">
      <p class="small-label">As it will print</p>
      <Reference reference={preview} fallback="Printing…" />
    </section>
    <GroupActs
      size={ids.length}
      {busy}
      others={!data.chosen && data.groups.length > 1}
      differing={rows.length > 0}
      onmerge={merge}
      onapart={keepApart}
      onrelate={(kind) => relate(ids[0]!, kind)}
      onlater={() => go(data.at + 1)}
      ontype={() => (typing = true)}
    />
  </div>
{/if}

<style>
  .body {
    padding: 12px 26px 30px;
  }
  .prints {
    margin: 14px 0;
    padding: 12px 20px 14px;
    border: 1px solid var(--edge);
    border-left: 4px solid var(--green-pencil);
    border-radius: 8px;
  }
</style>
