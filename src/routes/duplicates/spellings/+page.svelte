<script lang="ts">
  import { goto } from '$app/navigation';
  import KeptApart from '$lib/ui/duplicates/KeptApart.svelte';
  import SpellingChoice from '$lib/ui/duplicates/SpellingChoice.svelte';
  import Verdict from '$lib/ui/duplicates/Verdict.svelte';
  import type { Made } from '$lib/server/many';
  import { call } from '$lib/ui/frame/client';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, done, doneWith, doneWithUndo } from '$lib/ui/frame/toasts.svelte';
  import { Button, Empty, PageHead, Trail } from '$lib/ui/kit';

  let { data } = $props();
  let busy = $state(false);
  let apartShown = $state(false);

  const of = $derived(data.kind === 'person' ? 'people' : 'containers');
  const at = $derived(data.groups.findIndex((g) => g.id === data.group?.id));
  const many = (n: number, one: string, several = `${one}s`) =>
    `${n.toLocaleString('en')} ${n === 1 ? one : several}`;

  const address = (id: number) => `/duplicates/spellings?of=${of}&with=${id}`;
  async function later() {
    const next = data.groups[(at + 1) % data.groups.length];
    if (next) await goto(address(next.id), { replaceState: true, noScroll: true, keepFocus: true });
  }

  async function one(
    to: { form: string } | { typed: string },
    sources: { id: string; revision: number }[],
  ): Promise<void> {
    const { group, kind } = data;
    if (!group) return;
    busy = true;
    const made = await attempt(() =>
      call<Made>('POST', '/api/spellings', {
        act: 'one',
        kind,
        key: group.key,
        forms: group.forms.map((f) => f.form),
        to,
        sources: sources.map(({ id, revision }) => ({ id, revision })),
      }),
    );
    if (made) await doneWith(made, sources.length, (n) => `Written alike in ${many(n, 'source')}.`);
    busy = false;
    await renewed();
  }

  async function apart(form: string) {
    const { group } = data;
    if (!group) return;
    const others = group.forms.map((f) => f.form).filter((f) => f !== form);
    const said = { key: group.key, form, others };
    const kept = await attempt(async () => {
      await call('POST', '/api/spellings', { act: 'apart', ...said });
      return true;
    });
    if (kept)
      doneWithUndo('Kept as another name.', () =>
        call('POST', '/api/spellings', { act: 'not-apart', ...said }),
      );
    await renewed();
  }

  async function notApart({ key, a, b }: { key: string; a: string; b: string }) {
    await attempt(async () => {
      await call('POST', '/api/spellings', { act: 'not-apart', key, form: a, others: [b] });
      done('They are compared again.');
    });
    await renewed();
  }
</script>

<svelte:head><title>Spellings · Retexa</title></svelte:head>

<PageHead>
  <Trail above={[{ href: '/duplicates', name: 'Duplicates' }]} />
  <h1>One name, several spellings</h1>
  <span class="sub">{data.groups.length ? `${many(data.totals[data.kind], 'name')} · surest first` : ''}</span
  >
  <span class="flex-1"></span>
  <Button
    look="chip"
    href="/duplicates/spellings?of=people"
    aria-current={data.kind === 'person' ? 'page' : undefined}
    data-sveltekit-keepfocus>People {data.totals.person.toLocaleString('en')}</Button
  >
  <Button
    look="chip"
    href="/duplicates/spellings?of=containers"
    aria-current={data.kind === 'container' ? 'page' : undefined}
    data-sveltekit-keepfocus>Containers {data.totals.container.toLocaleString('en')}</Button
  >
  {#if data.apart.length}<Button
      look="chip"
      aria-expanded={apartShown}
      onclick={() => (apartShown = !apartShown)}>{many(data.apart.length, 'pair')} kept apart</Button
    >{/if}
</PageHead>

<KeptApart
  pairs={apartShown
    ? data.apart.map((pair) => ({ words: pair.texts, at: pair.at, again: () => void notApart(pair) }))
    : []}
/>

{#if !data.group}
  <Empty>
    <h2>
      {data.kind === 'person' ? 'Every person is written one way' : 'Every container is written one way'}
    </h2>
    <p>
      {data.kind === 'person'
        ? 'When one author is spelled with initials here and in full there, or loses an accent, the spellings are gathered here to be made one.'
        : 'When a journal is abbreviated here and in full there, the spellings are gathered here to be made one.'}
    </p>
  </Empty>
{:else}
  <div class="body">
    <nav aria-label="Names in several spellings">
      <ol>
        {#each data.groups as group (group.id)}
          <li>
            <a
              href={address(group.id)}
              aria-current={group.id === data.group.id ? 'true' : undefined}
              data-sveltekit-noscroll
            >
              <span class="serif">{group.label}</span>
              <span class="small-label">{group.forms} spellings{group.sure ? '' : ' · to decide'}</span>
            </a>
          </li>
        {/each}
      </ol>
      {#if data.totals[data.kind] > data.groups.length}
        <p class="small-label more">The first {data.groups.length}; the next come as these are decided.</p>
      {/if}
    </nav>
    <section aria-label={data.groups[at]?.label}>
      <Verdict verdict={data.groups[at]?.sure ? 'Surely one name' : 'One name?'}>
        They differ by {data.groups[at]?.differences.join('; ')}.
      </Verdict>
      {#key data.group.id}
        <SpellingChoice
          kind={data.kind}
          group={data.group}
          {busy}
          others={data.groups.length > 1}
          onone={one}
          onapart={apart}
          onlater={later}
        />
      {/key}
    </section>
  </div>
{/if}

<style>
  .body {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(200px, 280px) minmax(0, 1fr);
  }
  nav {
    border-right: 1px solid var(--rule);
    background: var(--side);
  }
  nav a {
    display: block;
    padding: 7px 14px 7px 26px;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  nav a > span {
    display: block;
  }
  nav a[aria-current] {
    background: var(--page);
    box-shadow: inset 4px 0 0 var(--thread);
  }
  .more {
    padding: 8px 14px 8px 26px;
  }
  section {
    padding: 12px 26px 30px;
  }
  @media (max-width: 720px) {
    .body {
      grid-template-columns: minmax(0, 1fr);
      align-content: start;
    }
    nav {
      border-right: 0;
    }
    nav ol {
      max-height: 30vh;
      overflow-y: auto;
    }
  }
</style>
