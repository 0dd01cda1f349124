<script lang="ts">
  import { tick } from 'svelte';
  import { ROLE_WORDS, ROLES, type Role } from '$lib/core/members';
  import type { Member } from '$lib/server/libraries';
  import { call, downloadMade, type MadeFile } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Dialog, Select } from '../kit';
  import HandedOver from './HandedOver.svelte';

  interface Props {
    members: Member[];
    library: string;
    /** Who looks may say who is what. */
    leads: boolean;
    /** Who looks keeps the server. */
    keeps: boolean;
    /** How many passages they would leave behind that only they see. */
    privately: number;
  }
  /** Who is in the library, and as what. */
  let { members, library, leads, keeps, privately }: Props = $props();
  const owners = $derived(members.filter((one) => one.role === 'owner').length);
  let going = $state<Member>();
  let back = $state<{ name: string; address: string }>();

  async function set(member: Member, role: Role, menu: HTMLSelectElement) {
    const made = await attempt(async () => {
      await call('PATCH', `/api/members/${member.id}`, { role });
      return true;
    });
    if (!made) menu.value = member.role;
    else done(`${member.name} is ${ROLE_WORDS[role].name.toLowerCase()} now.`);
  }
  async function remove() {
    const { id, name, self } = going!;
    const made = await attempt(async () => {
      await call('DELETE', `/api/members/${id}`, {});
      return true;
    });
    going = undefined;
    await tick();
    if (!made) return;
    if (self) location.assign('/');
    else done(`${name} is not in ${library} any more.`);
    await renew('members');
  }
  const save = () =>
    attempt(async () => {
      const { passages } = await call<{ passages: string[] }>('GET', '/api/members/mine');
      downloadMade(await call<MadeFile>('POST', '/api/passages/out', { ids: passages, as: 'markdown' }));
    });
  async function giveBack({ id, name }: Member) {
    const made = await attempt(() => call<{ secret: string }>('POST', `/api/members/${id}/way-back`, {}));
    if (made) back = { name, address: `${location.origin}/way-back/${made.secret}` };
  }
</script>

<ul>
  {#each members as member (member.id)}
    <li>
      <span class="who">
        <span class="name">{member.name}{member.self ? ' (you)' : ''}</span>
        <span class="sub"
          >{[member.mail, member.joined && `since ${dateLabel(member.joined)}`]
            .filter(Boolean)
            .join(', ')}</span
        >
      </span>
      {#if leads && !(member.role === 'owner' && owners === 1)}
        <Select
          aria-label="What {member.name} is"
          value={member.role}
          onchange={(event: Event & { currentTarget: HTMLSelectElement }) =>
            set(member, event.currentTarget.value as Role, event.currentTarget)}
        >
          {#each ROLES as role (role)}<option value={role}>{ROLE_WORDS[role].name}</option>{/each}
        </Select>
      {:else}<span class="role" data-tip="One {ROLE_WORDS[member.role].may}"
          >{ROLE_WORDS[member.role].name}</span
        >{/if}
      <span class="acts">
        {#if keeps && !member.self}<Button small look="quiet" onclick={() => giveBack(member)}
            >Way back in</Button
          >{/if}
        {#if member.self && !(member.role === 'owner' && owners === 1)}<Button
            small
            onclick={() => (going = member)}>Leave…</Button
          >
        {:else if leads && !member.self}<Button
            small
            aria-label="Take {member.name} out"
            onclick={() => (going = member)}>Take out…</Button
          >{/if}
      </span>
    </li>
  {/each}
</ul>
{#if back}
  <div class="max-w-[560px] mt-3">
    <HandedOver
      address={back.address}
      words="With this link {back.name} sets a new pass phrase, once, within two days. It is shown this once."
    />
  </div>
{/if}

{#if going}
  <Dialog
    open
    title={going.self ? `Leave ${library}?` : `Take ${going.name} out of ${library}?`}
    size="sm"
    onclose={() => (going = undefined)}
  >
    <p>
      What {going.self ? 'you' : 'they'} kept for the library stays in it. What {going.self
        ? 'you keep private is seen by nobody then, and is there again should you come back.'
        : 'they keep private is seen by nobody then.'}
    </p>
    {#if going.self && privately > 0}
      <p class="mt-3">
        You have {privately === 1 ? 'one private passage' : `${privately} private passages`} here.
        <Button small onclick={save}>Save them as a file first</Button>
      </p>
    {/if}
    <div class="mt-5 flex gap-2">
      <Button look="main" onclick={remove}>{going.self ? 'Leave the library' : 'Take them out'}</Button>
      <Button onclick={() => (going = undefined)}>Stay as it is</Button>
    </div>
  </Dialog>
{/if}

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 150px minmax(190px, auto);
    gap: 6px 16px;
    align-items: center;
    min-height: 50px;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
  .who {
    display: grid;
  }
  .name {
    font-weight: 600;
  }
  .sub {
    color: var(--ink-3);
    font-size: 13px;
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    justify-content: flex-end;
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .acts {
      grid-column: 1 / -1;
      justify-content: start;
    }
  }
</style>
