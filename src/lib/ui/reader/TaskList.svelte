<script lang="ts">
  import { taskWords } from '$lib/core/forms';
  import type { TaskItem } from '$lib/server/tasks';
  import { call } from '../frame/client';
  import { dayLabel, today } from '../frame/dates';
  import { formOf } from '../frame/forms';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { allows, Button, Checkbox, Field, Input } from '../kit';

  interface Props {
    tasks: TaskItem[];
    /** What a new one is at; without either none is added here. */
    sourceId?: string;
    passageId?: string;
    /** Whether each says the source and passage it is at. */
    where?: boolean;
  }
  /** Things to do, ticked off where they stand, and a line to put down another. */
  let { tasks, sourceId, passageId, where = true }: Props = $props();

  const { form, errors, enhance, submitting } = formOf(
    taskWords,
    { text: '', due: null as string | null },
    async (said) => {
      await call('POST', '/api/tasks', {
        ...said,
        ...(passageId ? { passageId } : sourceId ? { sourceId } : {}),
      });
      [said.text, said.due] = ['', null];
      await renewed();
    },
  );

  async function change(task: TaskItem, what: { done?: boolean; binned?: boolean }, said: string) {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('PATCH', `/api/tasks/${task.id}`, { base: task.revision, ...what }),
    );
    if (!made) return;
    done(said, [made.revisionId]);
    await renewed();
  }
</script>

<ul>
  {#each tasks as task (task.id)}
    <li class:ticked={task.done}>
      <label
        ><Checkbox
          checked={task.done !== null}
          onchange={(e) =>
            change(
              task,
              { done: e.currentTarget.checked },
              e.currentTarget.checked ? 'Ticked off.' : 'To do again.',
            )}
        />
        <span>
          {task.text}
          {#if task.due}<span class:late={!task.done && task.due < today()} class="small-label"
              >by {dayLabel(task.due)}</span
            >{/if}
          {#if task.visibility === 'private'}<span class="small-label">only for me</span>{/if}
        </span></label
      >
      {#if where && task.sourceId}
        <a
          class="link"
          href={task.passage?.copyId
            ? `/copies/${task.passage.copyId}?passage=${task.passageId}`
            : `/sources/${task.sourceId}`}>{task.passage?.line || task.sourceLabel}</a
        >
      {/if}
      <Button
        needs="annotate"
        small
        look="quiet"
        aria-label="Put in the bin: {task.text}"
        onclick={() => change(task, { binned: true }, 'The task is in the bin.')}>×</Button
      >
    </li>
  {/each}
</ul>
{#if (sourceId ?? passageId) && allows('annotate')}
  <form method="POST" use:enhance>
    <Field quiet label="What is to be done" errors={$errors.text}>
      {#snippet children(attributes)}<Input
          bind:value={$form.text}
          placeholder="What is to be done"
          {...attributes}
        />{/snippet}
    </Field>
    <Field quiet label="By when, if one likes" errors={$errors.due}>
      {#snippet children(attributes)}<Input
          type="date"
          class="due"
          bind:value={() => $form.due ?? '', (day) => ($form.due = day || null)}
          {...attributes}
        />{/snippet}
    </Field>
    <Button small type="submit" disabled={$submitting}>Add</Button>
  </form>
{/if}

<style>
  li {
    display: flex;
    gap: 8px;
    align-items: baseline;
    justify-content: space-between;
    padding: 3px 0;
    font-size: 13.5px;
  }
  label {
    display: flex;
    flex: 1;
    gap: 7px;
    align-items: baseline;
  }
  .ticked label {
    color: var(--ink-3);
    text-decoration: line-through;
  }
  .late {
    color: var(--red-pencil);
    font-weight: 650;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
  form :global(label:not(:has([type='date']))) {
    flex: 1 1 190px;
    min-width: 0;
  }
  form :global(.due) {
    flex: none;
    width: 138px;
  }
</style>
