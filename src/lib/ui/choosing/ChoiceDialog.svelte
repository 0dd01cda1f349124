<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { WAY_WORDS, WAYS, type Way } from '$lib/core/choosing';
  import { choiceWords, MOST_ORDERED, type ChoiceWords } from '$lib/core/forms';
  import type { ChoiceLine } from '$lib/server/choosing';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { attempt, change } from '../frame/toasts.svelte';
  import { Button, Checkbox, Dialog, Field, Input, Radio, Select, Textarea } from '../kit';

  /** Asks others, or only oneself, to choose among sources; or adds these to a choice there is. */
  let { ids, onclose }: { ids: string[]; onclose: () => void } = $props();
  const everybody = $derived(page.data.everybody as { id: string; name: string }[]);
  let open = $state.raw<ChoiceLine[]>([]);
  let into = $state('');
  void attempt(async () => {
    open = (await call<ChoiceLine[]>('GET', '/api/choices')).filter((c) => !c.closed && !c.putAway);
  });

  // svelte-ignore state_referenced_locally
  const { form, errors, enhance, submitting } = formOf<ChoiceWords>(
    choiceWords,
    { name: '', way: 'opinion', voters: everybody.map(({ id }) => id), reasons: [], ids },
    async (said) => {
      const { id } = await call<{ id: string }>('POST', '/api/choices', said);
      onclose();
      await goto(`/choices/${id}`);
    },
  );
  let way = $state('opinion');
  $effect(() => void ($form.way = way as Way));
  const ask = (id: string, yes: boolean) =>
    ($form.voters = yes ? [...$form.voters, id] : $form.voters.filter((other) => other !== id));
  const many = $derived(ids.length === 1 ? 'one source' : `${ids.length.toLocaleString('en')} sources`);
  const sum = (lines: string[] | { _errors?: string[] } | undefined) =>
    Array.isArray(lines) ? lines : lines?._errors;

  async function addTo() {
    const name = open.find(({ id }) => id === into)?.name ?? '';
    const to = into;
    onclose();
    await change(`/api/choices/${to}`, { act: 'add', ids }, (made: { back?: unknown }) =>
      made.back ? `Added to ${name}.` : `All of them are in ${name} already.`,
    );
  }
</script>

<Dialog open title="Choose among {many}" size="sm" {onclose}>
  <form method="POST" use:enhance class="grid gap-3" aria-label="New choice">
    <Field label="What is chosen" errors={$errors.name}>
      {#snippet children(attributes)}<Input
          bind:value={$form.name}
          placeholder="Which of these go into the review"
          {...attributes}
        />{/snippet}
    </Field>
    <fieldset class="grid gap-1">
      <legend class="small-label">How</legend>
      {#each WAYS as one (one)}
        <Radio name="way" value={one} bind:group={way}
          ><span><strong>{WAY_WORDS[one].name}</strong>: {WAY_WORDS[one].says}</span></Radio
        >
      {/each}
    </fieldset>
    {#if $form.way === 'order' && ids.length > MOST_ORDERED}<p class="pencil-red" role="alert">
        At most {MOST_ORDERED} can be put in an order.
      </p>{/if}
    <fieldset>
      <legend class="small-label">Who is asked</legend>
      <div class="people">
        {#each everybody as one (one.id)}
          <label
            ><Checkbox
              checked={$form.voters.includes(one.id)}
              onchange={(e) => ask(one.id, e.currentTarget.checked)}
            />
            {one.id === page.data.personId ? 'You' : one.name}</label
          >
        {/each}
      </div>
      {#if sum($errors.voters)}<p class="pencil-red text-[13px]" role="alert">
          {sum($errors.voters)?.join(' ')}
        </p>{/if}
    </fieldset>
    {#if $form.way !== 'order'}
      <Field
        label="Reasons for leaving something out, one a line, to choose from"
        errors={sum($errors.reasons)}
      >
        {#snippet children(attributes)}<Textarea
            rows={3}
            placeholder="not on the subject&#10;no evidence of its own"
            value={$form.reasons.join('\n')}
            onchange={(e: Event & { currentTarget: HTMLTextAreaElement }) =>
              ($form.reasons = e.currentTarget.value
                .split('\n')
                .map((line) => line.trim())
                .filter(Boolean))}
            {...attributes}
          />{/snippet}
      </Field>
    {/if}
    <p class="small-label">What others say is hidden until one has said something oneself.</p>
    <div>
      <Button look="main" type="submit" disabled={$submitting}>Ask them</Button>
    </div>
  </form>
  {#if open.length}
    <div class="into">
      <label
        ><span class="small-label">Or add them to a choice there is</span><Select bind:value={into}>
          <option value="">Choose one</option>
          {#each open as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </Select></label
      >
      <Button disabled={!into} onclick={addTo}>Add them</Button>
    </div>
  {/if}
</Dialog>

<style>
  .people {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    max-height: 130px;
    overflow-y: auto;
  }
  .people label {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    min-height: 26px;
  }
  .into {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    align-items: end;
    padding-top: 12px;
    margin-top: 14px;
    border-top: 1px solid var(--rule);
  }
</style>
