<script lang="ts">
  import { may, mentionedIn } from '$lib/core/members';
  import { page } from '$app/state';
  import type { Reply, Thread } from '$lib/server/replies';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import { drafts } from '../frame/drafts';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Checkbox, Textarea } from '../kit';
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
  let text = $state(drafts.find<string>(begun) ?? '');
  let to = $state<string[]>([]);
  /** Who is named in what is typed is told of it. */
  const named = $derived(mentionedIn(text, others));
  let writing = $state(false);
  let rewording = $state<{ id: string; text: string }>();
  $effect(() => {
    if (text.trim()) drafts.keep(begun, text);
    else drafts.drop(begun);
  });

  async function send(event: Event) {
    event.preventDefault();
    const made = await attempt(() =>
      call<{ id: string }>('POST', `/api/passages/${passageId}/replies`, {
        text,
        to: [...new Set([...to, ...named])],
      }),
    );
    if (!made) return;
    [text, to, writing] = ['', [], false];
    doneWithUndo('Your reply is kept.', () => call('PATCH', `/api/replies/${made.id}`, { gone: true }));
  }
  async function reword(event: Event) {
    event.preventDefault();
    const { id, text } = rewording!;
    const made = await attempt(async () => {
      await call('PATCH', `/api/replies/${id}`, { text });
      return true;
    });
    if (made) rewording = undefined;
  }
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
        {#if rewording?.id === reply.id}
          <form onsubmit={reword}>
            <Textarea rows={2} aria-label="The reply" bind:value={rewording.text} />
            <span class="line"
              ><Button small type="submit" disabled={!rewording.text.trim()}>Keep</Button>
              <Button small look="quiet" onclick={() => (rewording = undefined)}>Leave it</Button></span
            >
          </form>
        {:else}
          <p class="said">{reply.text}</p>
          {#if reply.ownerId === people.self}<span class="line"
              ><Button small look="quiet" onclick={() => (rewording = { id: reply.id, text: reply.text })}
                >Reword</Button
              ><Button small look="quiet" onclick={() => remove(reply)}>Take away</Button></span
            >{/if}
        {/if}
      </li>
    {/each}
  </ol>
  {#if mayReply}
    {#if writing || text}
      <form onsubmit={send} aria-label="Reply">
        <Textarea
          rows={3}
          autofocus={writing}
          aria-label="Your reply"
          placeholder={others.length
            ? `@${others[0]!.name.split(' ')[0]} tells them; Ctrl+Enter sends it`
            : 'Ctrl+Enter sends it'}
          bind:value={text}
          onkeydown={(event: KeyboardEvent) => {
            event.stopPropagation();
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void send(event);
            if (event.key === 'Escape') writing = false;
          }}
        />
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
          ><Button small look="main" type="submit" disabled={!text.trim()}>Reply</Button>
          <Button
            small
            look="quiet"
            onclick={() => {
              writing = false;
              text = '';
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
