<script lang="ts">
  import { UserOutline } from 'flowbite-svelte-icons';
  import { call } from '../frame/client';
  import { attempt } from '../frame/toasts.svelte';
  import { noteWho } from '../capture/waiting';
  import { Button, Popover } from '../kit';

  /** Who is at work, who else is in the library, and the way out. */
  let { person, library, keeps }: { person: { name: string } | undefined; library: string; keeps: boolean } =
    $props();
  let open = $state(false);

  async function leave() {
    if (!(await attempt(() => call('DELETE', '/api/account', { session: 'here' })))) return;
    // What waits in this browser is theirs, and is not shown to who comes next.
    await noteWho(undefined).catch(() => undefined);
    location.assign('/sign-in');
  }
</script>

<Button
  id="person"
  look="strip"
  aria-label={person ? `${person.name}: account and members` : 'Members and accounts'}
  title={person?.name ?? 'Members and accounts'}><UserOutline size="sm" /></Button
>
<Popover triggeredBy="#person" label="Account and members" bind:open>
  <div class="menu">
    <p>{person?.name ?? 'You work here alone'}</p>
    <a href="/members" onclick={() => (open = false)}>Members of {library}</a>
    {#if keeps}<a href="/backup" onclick={() => (open = false)}>Backup</a>{/if}
    {#if person}
      <a href="/account" onclick={() => (open = false)}>Account</a>
      <Button small onclick={leave}>Sign out</Button>
    {/if}
  </div>
</Popover>

<style>
  .menu {
    display: grid;
    gap: 8px;
    justify-items: start;
    min-width: 190px;
    max-width: 280px;
  }
  p {
    font-weight: 650;
  }
  a {
    color: var(--thread);
    text-decoration: underline;
    text-underline-offset: 3px;
  }
</style>
