<script lang="ts">
  import type { Noted } from '$lib/server/audit';
  import { timeLabel } from '../frame/dates';

  /** What was handed out of the library, to whom and by whom. */
  let { list }: { list: Noted[] } = $props();
  const SAID: Record<Noted['act'], string> = {
    invited: 'invited',
    'invitation withdrawn': 'withdrew the invitation of',
    joined: 'joined',
    'role changed': 'changed',
    removed: 'took out',
    left: 'left:',
    'library deleted': 'deleted the library',
    'account closed': 'closed the account',
    'brought in': 'brought in from a backup:',
    'link made': 'made a link to',
    'link withdrawn': 'withdrew the link to',
    'token made': 'made the token',
    'token taken back': 'took back the token',
    'account made': 'made an account',
    'signed in': 'signed in',
    'pass phrase changed': 'changed the pass phrase',
    'codes on': 'asks for codes',
    'codes off': 'asks for no codes',
    'passkey added': 'added the passkey',
    'passkey taken off': 'took off the passkey',
    'way back mailed': 'was sent a way back',
    'way back given': 'gave a way back',
    'way back taken': 'took a way back',
  };
</script>

<ul>
  {#each list as one (one.id)}
    <li>
      <time datetime={one.at}>{timeLabel(one.at)}</time> <span>{one.who} {SAID[one.act]} {one.words}</span>
    </li>
  {:else}
    <li><span>Nothing was handed out yet.</span></li>
  {/each}
</ul>

<style>
  li {
    display: flex;
    gap: 14px;
    padding: 4px 0;
    font-size: 13.5px;
  }
  time {
    flex: none;
    width: 150px;
    color: var(--ink-3);
    font-variant-numeric: tabular-nums;
  }
  span {
    min-width: 0;
    overflow-wrap: anywhere;
  }
</style>
