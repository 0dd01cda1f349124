<script lang="ts">
  import { call } from '$lib/ui/frame/client';
  import { attempt } from '$lib/ui/frame/toasts.svelte';
  import { Button } from '$lib/ui/kit';
  import AccountForm from '$lib/ui/people/AccountForm.svelte';
  import Door from '$lib/ui/people/Door.svelte';

  let { data } = $props();
  const { library, by, role, name } = $derived(data.invited);

  async function take(account?: { name: string; mail: string; phrase: string }) {
    await call('POST', '/api/door/invited', { secret: data.secret, ...(account ? { account } : {}) });
    location.assign('/');
  }
</script>

<Door title="You are invited">
  <p>
    {by} invites you to <strong>{library}</strong>. As {role.name.toLowerCase()} one {role.may}.
  </p>
  {#if data.signedIn}
    <p class="mt-3">You are signed in as {data.signedIn}.</p>
    <div class="mt-4">
      <Button look="main" onclick={() => attempt(() => take())}>Join {library}</Button>
    </div>
  {:else}
    <AccountForm text="Make an account and join" {name} make={take} />
    <p class="mt-5">
      You have an account here? <a
        class="link"
        href="/sign-in?to={encodeURIComponent(`/invited/${data.secret}`)}">Sign in</a
      > and join with it.
    </p>
  {/if}
</Door>
