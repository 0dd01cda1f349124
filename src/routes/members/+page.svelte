<script lang="ts">
  import { ROLE_WORDS } from '$lib/core/members';
  import { libraryWords } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { dateLabel } from '$lib/ui/frame/dates';
  import { drafts } from '$lib/ui/frame/drafts';
  import { formOf } from '$lib/ui/frame/forms';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import { Button, Field, Input, PageHead } from '$lib/ui/kit';
  import AccountForm from '$lib/ui/people/AccountForm.svelte';
  import DeleteLibrary from '$lib/ui/people/DeleteLibrary.svelte';
  import Handed from '$lib/ui/people/Handed.svelte';
  import Invite from '$lib/ui/people/Invite.svelte';
  import Shares from '$lib/ui/people/Shares.svelte';
  import Lines from '$lib/ui/people/Lines.svelte';
  import MemberList from '$lib/ui/people/MemberList.svelte';

  let { data } = $props();

  const open = async (libraryId: string) => {
    await attempt(() => call('POST', '/api/scope', { libraryId }));
    location.assign('/');
  };
  const { form, errors, enhance } = formOf(libraryWords, { name: '' }, async (said) => {
    await call('POST', '/api/libraries', said);
    location.assign('/members');
  });
  // svelte-ignore state_referenced_locally
  const naming = formOf(libraryWords, { name: data.library }, async (said) => {
    await call('PATCH', '/api/libraries', said);
    done(`The library is called ${said.name} now.`);
  });
  const { form: named, errors: namedErrors, enhance: rename } = naming;

  const withdraw = (id: string, name: string) =>
    attempt(async () => {
      await call('DELETE', `/api/invitations/${id}`, {});
      done(`The invitation of ${name} is withdrawn: its link opens nothing any more.`);
    });
</script>

<svelte:head><title>Members · Retexa</title></svelte:head>

<PageHead>
  <h1>Members</h1>
  <span class="sub"
    >{data.library}: {data.members.length === 1 ? 'one person' : `${data.members.length} people`}</span
  >
</PageHead>

<div class="view">
  {#if data.alone}
    <section aria-labelledby="alone">
      <h2 id="alone">You work here alone</h2>
      <p>
        No account is needed for that. To invite somebody, make one for yourself first: from then on everybody
        signs in, you too. All you have stays as it is.
      </p>
      <div class="narrow">
        <AccountForm
          text="Make my account"
          make={async (said) => {
            await call('POST', '/api/door/set-up', said);
            drafts.give(data.personId);
            location.assign('/members');
          }}
        />
      </div>
    </section>
  {:else}
    <section aria-label="Who is in the library">
      <MemberList
        members={data.members}
        library={data.library}
        leads={data.leads}
        keeps={data.keeps}
        privately={data.privately}
      />
    </section>
    {#if data.leads}
      <section aria-labelledby="invite">
        <h2 id="invite">Invite somebody</h2>
        <Invite library={data.library} mails={data.mails} />
        {#if data.invitations.length}
          <h3>Not used yet</h3>
          <Lines>
            {#each data.invitations as one (one.id)}
              <li>
                <span
                  >{one.name}, as {ROLE_WORDS[one.role].name.toLowerCase()}, until {dateLabel(
                    one.expires,
                  )}</span
                >
                <Button
                  small
                  onclick={() => withdraw(one.id, one.name)}
                  aria-label="Withdraw the invitation of {one.name}">Withdraw</Button
                >
              </li>
            {/each}
          </Lines>
        {/if}
      </section>
    {/if}
  {/if}

  <section aria-labelledby="links">
    <h2 id="links">Links to read</h2>
    <Shares shares={data.shares} edits={data.edits} />
  </section>

  <section aria-labelledby="libraries">
    <h2 id="libraries">Your libraries</h2>
    <Lines>
      {#each data.libraries as one (one.id)}
        <li>
          <span>{one.name} <span class="sub">{ROLE_WORDS[one.role].name}</span></span>
          {#if one.id === data.libraryId}<span class="sub">open now</span>
          {:else}<Button small onclick={() => open(one.id)} aria-label="Open {one.name}">Open</Button>{/if}
        </li>
      {/each}
    </Lines>
    <div class="forms">
      <form method="POST" use:enhance aria-label="New library">
        <Field label="Another library, for a group or a subject" errors={$errors.name}>
          {#snippet children(attributes)}<Input bind:value={$form.name} {...attributes} />{/snippet}
        </Field>
        <Button type="submit">Make it</Button>
      </form>
      {#if data.leads}
        <form method="POST" use:rename aria-label="Name of the library">
          <Field label="What this library is called" errors={$namedErrors.name}>
            {#snippet children(attributes)}<Input bind:value={$named.name} {...attributes} />{/snippet}
          </Field>
          <Button type="submit">Rename</Button>
        </form>
      {/if}
    </div>
    {#if data.leads}<div class="mt-4">
        <DeleteLibrary library={data.library} people={data.members.length} />
      </div>{/if}
  </section>

  {#if data.leads && !data.alone}
    <section aria-labelledby="handed">
      <h2 id="handed">What was handed out</h2>
      <Handed list={data.audit} />
    </section>
  {/if}
</div>

<style>
  .view {
    max-width: 900px;
    padding: 4px 26px 60px;
  }
  section {
    padding: 18px 0 6px;
  }
  h2 {
    margin-bottom: 10px;
    font-size: 16px;
    font-weight: 700;
  }
  h3 {
    margin: 18px 0 4px;
    font-size: 14.5px;
    font-weight: 650;
  }
  section > p {
    max-width: 62ch;
    color: var(--ink-2);
  }
  .narrow {
    max-width: 380px;
    margin-top: 14px;
  }
  .narrow :global(form) {
    display: grid;
    gap: 12px;
  }
  .forms {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
    gap: 14px 34px;
    margin-top: 14px;
  }
  .forms form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    align-items: end;
  }
</style>
