<script lang="ts">
  import { replyText } from '$lib/core/forms';
  import { may, mentionedIn } from '$lib/core/members';
  import { page } from '$app/state';
  import type { Reply, Thread } from '$lib/server/replies';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import { drafts } from '../frame/drafts';
  import { formOf } from '../frame/forms';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Checkbox, Field, Textarea } from '../kit';
  import { people } from './others.svelte';
  import PersonMark from './PersonMark.svelte';

  interface Props {
    passageId: string;
    thread: Thread | undefined;
    /** Who sees the passage, and so what is said to it. */
    seen: { visibility: 'private' | 'library'; shownTo: readonly string[]; ownerId: string };
  }
  /** What was said to a passage, and a place to say something. */
  let { passageId, thread, seen }: Props = $props();
  const replies = $derived(thread?.replies ?? []);
  const mayReply = $derived(may(page.data.role, 'annotate'));
  const others = $derived(
    people.all.filter(
      ({ id }) =>
        id !== people.self &&
        (seen.visibility === 'library' || id === seen.ownerId || seen.shownTo.includes(id)),
    ),
  );

  /** What was typed and not sent is there again. */
  // svelte-ignore state_referenced_locally
  const begun = `reply ${passageId}`;
  let to = $state<string[]>([]);
  let writing = $state(false);
  let rewording = $state('');
  const { form, errors, enhance, submitting } = formOf(
    replyText,
    { text: drafts.find<string>(begun) ?? '' },
    async (said) => {
      const { id } = await call<{ id: string }>('POST', `/api/passages/${passageId}/replies`, {
        text: said.text,
        to: [...new Set([...to, ...named])],
      });
      said.text = '';
      [to, writing] = [[], false];
      doneWithUndo('Your reply is kept.', () => call('PATCH', `/api/replies/${id}`, { gone: true }));
    },
  );
  const {
    form: anew,
    errors: wrong,
    enhance: reword,
    submitting: keeping,
  } = formOf(replyText, { text: '' }, async ({ text }) => {
    await call('PATCH', `/api/replies/${rewording}`, { text });
    rewording = '';
  });
  /** Who is named in what is typed is told of it. */
  const named = $derived(mentionedIn($form.text, others));
  $effect(() => {
    if ($form.text.trim()) drafts.keep(begun, $form.text);
    else drafts.drop(begun);
  });

  async function remove({ id }: Reply) {
    const set = (gone: boolean) => call('PATCH', `/api/replies/${id}`, { gone });
    if (await attempt(() => set(true))) doneWithUndo('The reply is taken away.', () => set(false));
  }
  const settle = (settled: boolean) =>
    attempt(async () => {
      await call('POST', `/api/passages/${passageId}/settled`, { settled });
      done(settled ? 'Marked as settled.' : 'Open again.');
    });
  const tell = (id: string, yes: boolean) => (to = yes ? [...to, id] : to.filter((other) => other !== id));
</script>

<div class="thread">
  {#if thread?.settled}<p class="small-label">
      Settled by {thread.settled.by}, {timeLabel(thread.settled.at)}
      {#if mayReply}<Button small look="quiet" onclick={() => settle(false)}>Open again</Button>{/if}
    </p>{/if}
  <ol aria-label="Replies">
    {#each replies as reply (reply.id)}
      <li>
        <p class="small-label">
          <PersonMark id={reply.ownerId} name={reply.owner} self={reply.ownerId === people.self} />
          <span
            >{reply.to.length ? `for ${reply.to.join(', ')}, ` : ''}{timeLabel(reply.added)}{reply.edited
              ? ', worded anew'
              : ''}</span
          >
        </p>
        {#if rewording === reply.id}
          <form method="POST" use:reword>
            <Field quiet label="The reply" errors={$wrong.text}>
              {#snippet children(attributes)}<Textarea
                  rows={2}
                  bind:value={$anew.text}
                  {...attributes}
                />{/snippet}
            </Field>
            <span class="line"
              ><Button small type="submit" disabled={$keeping}>Keep</Button>
              <Button small look="quiet" onclick={() => (rewording = '')}>Leave it</Button></span
            >
          </form>
        {:else}
          <p class="said">{reply.text}</p>
          {#if reply.ownerId === people.self}<span class="line"
              ><Button small look="quiet" onclick={() => ([rewording, $anew.text] = [reply.id, reply.text])}
                >Reword</Button
              ><Button small look="quiet" onclick={() => remove(reply)}>Take away</Button></span
            >{/if}
        {/if}
      </li>
    {/each}
  </ol>
  {#if mayReply}
    {#if writing || $form.text}
      <form method="POST" use:enhance aria-label="Reply">
        <Field quiet label="Your reply" errors={$errors.text}>
          {#snippet children(attributes)}<Textarea
              rows={3}
              autofocus={writing}
              placeholder={others.length
                ? `@${others[0]!.name.split(' ')[0]} tells them; Ctrl+Enter sends it`
                : 'Ctrl+Enter sends it'}
              bind:value={$form.text}
              onkeydown={(event: KeyboardEvent & { currentTarget: HTMLTextAreaElement }) => {
                event.stopPropagation();
                if (event.key === 'Enter' && (event.ctrlKey || event.metaKey))
                  event.currentTarget.form?.requestSubmit();
                if (event.key === 'Escape') writing = false;
              }}
              {...attributes}
            />{/snippet}
        </Field>
        {#if others.length}
          <fieldset>
            <legend>Who finds it on their Desk</legend>
            {#each others as one (one.id)}<label
                ><Checkbox
                  checked={to.includes(one.id) || named.includes(one.id)}
                  disabled={named.includes(one.id)}
                  onchange={(e) => tell(one.id, e.currentTarget.checked)}
                />
                {one.name}</label
              >{/each}
          </fieldset>
        {/if}
        <span class="line"
          ><Button small look="main" type="submit" disabled={$submitting}>Reply</Button>
          <Button
            small
            look="quiet"
            onclick={() => {
              writing = false;
              $form.text = '';
            }}>Throw away</Button
          ></span
        >
      </form>
    {:else}
      <span class="line"
        ><Button small onclick={() => (writing = true)}>{replies.length ? 'Answer' : 'Reply'}</Button>
        {#if replies.length && !thread?.settled}<Button small look="quiet" onclick={() => settle(true)}
            >Mark as settled</Button
          >{/if}</span
      >
    {/if}
  {/if}
</div>

<style>
  .thread {
    position: relative;
    margin-top: 7px;
    padding-top: 6px;
    border-top: 1px solid var(--rule);
  }
  li {
    padding: 3px 0 5px;
  }
  .small-label {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: center;
  }
  .said {
    font-size: 14px;
    line-height: 1.4;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  form {
    display: grid;
    gap: 6px;
  }
  .line {
    display: flex;
    gap: 6px;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    font-size: 13px;
  }
  legend {
    color: var(--ink-3);
    font-size: 12px;
  }
  label {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    min-height: 26px;
  }
</style>
