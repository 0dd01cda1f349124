<script lang="ts">
  import type { FoundGroup } from '$lib/server/proof';
  import { narrowedHref } from '../frame/narrowing';
  import { signOf } from '../source/findings';
  import Sign from '../source/Sign.svelte';

  interface Props {
    name: string;
    groups: FoundGroup[];
    check: string | undefined;
  }
  /** What the proof found, a line for each check. */
  let { name, groups, check }: Props = $props();
</script>

{#if groups.length}
  <section aria-label={name}>
    <h2 class="small-label">{name}</h2>
    <ul>
      {#each groups as group (group.check)}
        <li class:on={group.check === check}>
          <a
            href={narrowedHref({ check: group.check, show: undefined })}
            aria-current={group.check === check ? 'true' : undefined}
            data-sveltekit-keepfocus
          >
            <span class="pencil-{group.pencil === 'grey' ? 'none' : group.pencil}"
              ><Sign sign={signOf(group)} /></span
            >
            <span class="name">{group.name}</span>
            <span class="n">{group.n.toLocaleString('en')}</span>
          </a>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    margin-bottom: 18px;
  }
  h2 {
    padding: 0 14px 4px;
  }
  a {
    display: flex;
    gap: 8px;
    min-height: 28px;
    padding: 4px 14px;
    border-left: 3px solid transparent;
    font-size: 13.5px;
    line-height: 1.4;
  }
  a:hover {
    background: var(--blue-soft);
  }
  .on a {
    border-left-color: var(--thread);
    background: var(--page);
    font-weight: 650;
  }
  .name {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .n {
    color: var(--ink-3);
    font-variant-numeric: tabular-nums;
  }
</style>
