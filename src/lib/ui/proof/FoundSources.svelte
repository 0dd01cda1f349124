<script lang="ts">
  import type { Made } from '$lib/server/many';
  import type { OpenedProof } from '$lib/server/proof';
  import type { ShownReference } from '$lib/server/lists';
  import { call } from '../frame/client';
  import { attempt, doneWith, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Checkbox } from '../kit';

  interface Props {
    opened: OpenedProof;
    /** The project it is proofed in, which may leave a check out. */
    project: string | undefined;
    aside: boolean;
    /** Shows more of the sources. */
    more: string;
  }
  /** The sources in which one check found something, and what can be done: all of them at once, or those that are picked. */
  let { opened, project, aside, more }: Props = $props();

  /** References shown before and after at once. */
  const SHOWN = 40;
  let left = $state<Record<string, boolean>>({});
  let busy = $state(false);
  let printed = $state.raw<Record<string, { before: ShownReference; after: ShownReference }> | undefined>();

  const chosen = $derived(opened.ids.filter((id) => !left[id]));
  const fixable = $derived(opened.sources.some((s) => s.fixed !== undefined));
  const many = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'source' : 'sources'}`;

  async function decide(act: 'mend' | 'let stand') {
    if (busy || chosen.length === 0) return;
    busy = true;
    // Another group may be opened before the answer comes.
    const { check, name } = opened;
    const of = chosen;
    const made = await attempt(() => call<Made>('POST', '/api/proof', { check, ids: of, act }));
    busy = false;
    if (!made) return;
    await doneWith(made, of.length, (changed, left) => {
      const what = act === 'mend' ? 'Mended' : 'Let stand';
      const rest = left ? ` ${many(left)} left as ${left === 1 ? 'it is' : 'they are'}.` : '';
      return `${what} in ${many(changed)}: ${name}.${rest}`;
    });
  }

  async function leaveOut(out: boolean) {
    const set = (to: boolean) => call('POST', '/api/proof/aside', { check: opened.check, aside: to });
    const made = await attempt(async () => {
      await set(out);
      return true;
    });
    if (made)
      doneWithUndo(out ? `Not asked in ${project}: ${opened.name}.` : `Asked again: ${opened.name}.`, () =>
        set(!out),
      );
  }

  async function show() {
    const ids = opened.sources.filter((s) => s.fixed !== undefined).slice(0, SHOWN);
    const shown = await attempt(() =>
      call<{ id: string; before: ShownReference; after: ShownReference }[]>('POST', '/api/proof/shown', {
        check: opened.check,
        ids: ids.map((s) => s.id),
      }),
    );
    if (shown) printed = Object.fromEntries(shown.map(({ id, ...both }) => [id, both]));
  }
  $effect(() => {
    // Another check, or other values: what was shown is of the one before.
    void opened;
    printed = undefined;
  });
</script>

<header>
  <h2>{opened.name}</h2>
  <p class="why">{opened.why}</p>
  <div class="acts">
    {#if fixable}
      <Button needs="edit" look="main" disabled={busy || chosen.length === 0} onclick={() => decide('mend')}
        >Mend {many(chosen.length)}</Button
      >
      <Button aria-pressed={Boolean(printed)} onclick={() => (printed ? (printed = undefined) : show())}
        >{printed ? 'Hide how they print' : 'Show how they would print'}</Button
      >
    {/if}
    <Button needs="edit" disabled={busy || chosen.length === 0} onclick={() => decide('let stand')}
      >Let {chosen.length === 1 ? 'it' : 'them'} stand</Button
    >
    {#if project}<Button needs="edit" look="quiet" onclick={() => leaveOut(!aside)}
        >{aside ? 'Ask it in this project again' : 'Do not ask it in this project'}</Button
      >{/if}
  </div>
  {#if opened.ids.length > 1}
    <div class="pick small-label">
      <Button
        look="link"
        onclick={() => (left = chosen.length ? Object.fromEntries(opened.ids.map((id) => [id, true])) : {})}
        >{chosen.length ? 'Pick none' : 'Pick all'}</Button
      >
      <span>{chosen.length.toLocaleString('en')} of {opened.ids.length.toLocaleString('en')} picked</span>
    </div>
  {/if}
</header>

<ul class="found">
  {#each opened.sources as source (source.id)}
    {@const both = printed?.[source.id]}
    <li class:left={left[source.id]}>
      <Checkbox
        checked={!left[source.id]}
        aria-label="Pick {source.label}"
        onchange={(event) => (left[source.id] = !event.currentTarget.checked)}
      />
      <div class="what">
        <p>
          <a class="link" href="/sources/{source.id}#f-{source.field}">{source.label}</a>
          {#if source.title && !source.label.startsWith(source.title)}<span class="serif">{source.title}</span
            >{/if}
        </p>
        <p class="value">
          <span class="small-label">{source.message}</span>
          {#if source.fixed !== undefined}
            <del>{source.value.slice(0, 300) || 'empty'}</del>
            <ins>{source.fixed.slice(0, 300) || source.fixLabel}</ins>
          {/if}
        </p>
        {#if both}
          <div class="prints serif">
            <p><span class="small-label">now</span> {@html both.before.html || 'Nothing prints.'}</p>
            {#if both.after.html === both.before.html}
              <p class="small-label">Prints the same in this style; others print the difference.</p>
            {:else}<p>
                <span class="small-label">then</span>
                {@html both.after.html || 'Nothing prints.'}
              </p>{/if}
          </div>
        {/if}
      </div>
    </li>
  {/each}
</ul>
{#if opened.sources.length < opened.ids.length}
  <p class="more"><Button href={more} data-sveltekit-keepfocus>Show more of them</Button></p>
{/if}

<style>
  header {
    position: sticky;
    z-index: 5;
    top: 0;
    padding: 16px 26px 10px;
    border-bottom: 1px solid var(--rule);
    background: var(--page);
  }
  h2 {
    font-size: 18px;
    font-weight: 650;
  }
  .why {
    max-width: 68ch;
    margin: 3px 0 10px;
    color: var(--ink-2);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .pick {
    display: flex;
    gap: 12px;
    align-items: center;
    margin-top: 8px;
  }
  .found {
    padding: 4px 26px 30px;
  }
  li {
    display: flex;
    gap: 12px;
    padding: 9px 0;
    border-bottom: 1px solid var(--rule);
  }
  li.left .what {
    opacity: 0.62;
  }
  .what {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .value {
    margin-top: 2px;
    font-size: 14px;
  }
  .value .small-label {
    margin-right: 8px;
  }
  del {
    color: var(--ink-3);
    text-decoration-color: var(--red-pencil);
  }
  ins {
    text-decoration: none;
    border-bottom: 2px solid var(--green-pencil);
  }
  .prints {
    margin-top: 6px;
    padding: 6px 12px;
    border-left: 3px solid var(--rule);
    font-size: 15.5px;
    line-height: 1.4;
  }
  .prints .small-label {
    display: inline-block;
    width: 34px;
  }
  .more {
    padding: 0 26px 40px;
  }
</style>
