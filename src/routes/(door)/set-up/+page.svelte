<script lang="ts">
  import { call } from '$lib/ui/frame/client';
  import AccountField from '$lib/ui/people/AccountField.svelte';
  import AccountForm from '$lib/ui/people/AccountForm.svelte';
  import Door from '$lib/ui/people/Door.svelte';

  let secret = $state('');
</script>

<Door title="The first account">
  <p>
    This server can be reached from other machines, and nobody has an account yet. Whoever started it finds a
    secret where it printed its address. The first account keeps the server, and invites the others.
  </p>
  <div class="mt-4">
    <AccountField label="Secret of the server" fills="off" bind:value={secret} />
  </div>
  <AccountForm
    text="Make the account"
    make={async (said) => {
      await call('POST', '/api/door/set-up', { ...said, secret: secret.trim() });
      location.assign('/');
    }}
  />
</Door>
