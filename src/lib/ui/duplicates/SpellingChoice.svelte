<script lang="ts">
  import type { SpellingsIn } from '$lib/server/duplicates';
  import { keyFor, offer } from '../frame/actions.svelte';
  import { Button, Checkbox, Input, Radio } from '../kit';

  type Group = NonNullable<SpellingsIn['group']>;
  interface Props {
    kind: SpellingsIn['kind'];
    group: Group;
    busy: boolean;
    others: boolean;
    onone: (to: { form: string } | { typed: string }, sources: Group['sources']) => void;
    onapart: (form: string) => void;
    onlater: () => void;
  }
  /** Spellings that look like one name: which of them is to stand, and every source that changes for it. */
  let { kind, group, busy, others, onone, onapart, onlater }: Props = $props();

  /** Rows of sources drawn at first. */
  const FIRST = 60;
  const TYPED = 'typed';
  let chosen = $state('0');
  let typed = $state('');
  let left = $state<Record<string, boolean>>({});
  let all = $state(false);
  let field: HTMLInputElement | undefined = $state();

  const at = $derived(chosen === TYPED ? -1 : Number(chosen));
  const target = $derived(chosen === TYPED ? typed.trim() : (group.forms[at]?.text ?? ''));
  const touched = $derived(group.sources.filter((s) => s.has.some((i) => i !== at)));
  const taken = $derived(touched.filter((s) => !left[s.id]));
  const many = (n: number, one: string, several = `${one}s`) =>
    `${n.toLocaleString('en')} ${n === 1 ? one : several}`;

  function use() {
    if (busy || target === '' || taken.length === 0) return;
    onone(chosen === TYPED ? { typed } : { form: group.forms[at]!.form }, taken);
  }
  function type() {
    chosen = TYPED;
    field?.focus();
  }
  offer(() => ({
    'duplicates merge': use,
    'duplicates later': others ? onlater : undefined,
    'duplicates type': type,
  }));
</script>

<fieldset>
  <legend class="small-label">The spelling that stands</legend>
  {#each group.forms as spelling, i (spelling.form)}
    <div class="choice" class:on={at === i}>
      <Radio bind:group={chosen} value={String(i)} name="spelling">
        <span class="serif">{spelling.text}</span>
        <span class="small-label ml-3">in {many(spelling.times, 'source')}</span>
      </Radio>
      <Button
        needs="edit"
        small
        title="Not suggested with the others again"
        onclick={() => onapart(spelling.form)}>Another name</Button
      >
    </div>
  {/each}
  <div class="choice" class:on={chosen === TYPED}>
    <Radio bind:group={chosen} value={TYPED} name="spelling"
      ><span class="small-label whitespace-nowrap">or typed</span></Radio
    >
    <Input
      bind:value={typed}
      bind:element={field}
      aria-label="Spelling, typed"
      placeholder={kind === 'person' ? 'Family, Given' : 'Title in full'}
      onfocus={() => (chosen = TYPED)}
      onkeydown={(event: KeyboardEvent) => {
        if (event.key === 'Enter') use();
        if (event.key === 'Escape') field?.blur();
      }}
    />
  </div>
</fieldset>

<div class="acts">
  <Button
    look="main"
    keys={keyFor('duplicates merge')}
    onclick={use}
    disabled={busy || target === '' || taken.length === 0}
    >Write it so in {many(taken.length, 'source')}</Button
  >
  <Button keys={keyFor('duplicates later')} onclick={onlater} disabled={!others}>Decide later</Button>
  <Button needs="edit" keys={keyFor('duplicates type')} onclick={type}>Type a spelling</Button>
</div>

<h2 class="small-label">
  {touched.length ? `What changes: ${many(touched.length, 'source')}` : 'No source changes'}{group.more
    ? ', the first of more'
    : ''}
</h2>
<ul class="touched">
  {#each all ? touched : touched.slice(0, FIRST) as source (source.id)}
    <li class:left={left[source.id]}>
      <Checkbox
        checked={!left[source.id]}
        aria-label="Change {source.label}"
        onchange={(event) => (left[source.id] = !event.currentTarget.checked)}
      />
      <div>
        <a class="link" href="/sources/{source.id}">{source.label}</a>
        <span class="serif">{source.title}</span>
        <p class="small-label">
          {#each source.has.filter((i) => i !== at) as i (i)}<del>{group.forms[i]?.text}</del>&nbsp;{/each}
          {#if target}<ins>{target}</ins>{/if}
        </p>
      </div>
    </li>
  {/each}
</ul>
{#if !all && touched.length > FIRST}
  <Button look="link" onclick={() => (all = true)}
    >Show the other {many(touched.length - FIRST, 'source')}</Button
  >
{/if}

<style>
  fieldset {
    padding: 8px 14px 10px;
    border: 1px solid var(--edge);
    border-left: 4px solid var(--green-pencil);
    border-radius: 8px;
  }
  .choice {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    padding: 4px 0;
  }
  .choice.on .serif {
    font-weight: 600;
  }
  .acts {
    position: sticky;
    top: 0;
    z-index: 1;
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    padding: 12px 0;
    background: var(--page);
  }
  h2 {
    margin: 6px 0 2px;
  }
  .touched li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr);
    gap: 10px;
    padding: 7px 0;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .touched li.left {
    opacity: 0.55;
  }
  del {
    color: var(--ink-2);
  }
  ins {
    color: var(--ink);
    text-decoration: none;
    background: var(--thread-soft);
  }
</style>
