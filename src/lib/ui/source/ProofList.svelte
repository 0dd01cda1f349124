<script lang="ts">
  import { checkedOf, type Finding } from '$lib/core/proof';
  import { call } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import { signOf } from './findings';
  import Sign from './Sign.svelte';

  interface Props {
    sourceId: string;
    findings: Finding[];
    standing: Finding[];
    onchoose: (field: string) => void;
    onfix: (edit: Record<string, unknown>, why: string) => void;
    /** Told of a fix that is pointed at, and when it no longer is. */
    ontry: (fix: Finding['fix']) => void;
  }
  /** What the proof finds in a source, each with why, what mends it, and that it can stand as it is. */
  let { sourceId, findings, standing, onchoose, onfix, ontry }: Props = $props();

  async function decide(finding: Finding, act: 'let stand' | 'ask again') {
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/proof', { check: finding.check, ids: [sourceId], act }),
    );
    if (made) done(act === 'let stand' ? 'It stands as it is.' : 'Asked again.', made.revisions);
  }
</script>

<ul class="proof">
  {#each findings as finding (finding.check + finding.message)}
    {@const fix = finding.fix}
    <li>
      <span class="pencil-{finding.pencil === 'grey' ? 'none' : finding.pencil}"
        ><Sign sign={signOf(finding)} /></span
      >
      <div>
        <Button
          look="bare"
          class="what pencil-{finding.pencil === 'grey' ? 'none' : finding.pencil}"
          title={checkedOf(finding.check).why}
          onclick={() => onchoose(finding.field)}>{finding.message}</Button
        >
        <span class="acts">
          {#if fix}<Button
              needs="edit"
              small
              title="Point at it to see how it would print"
              onmouseenter={() => ontry(fix)}
              onmouseleave={() => ontry(undefined)}
              onfocus={() => ontry(fix)}
              onblur={() => ontry(undefined)}
              onclick={() => onfix(fix.edit, `fixed: ${finding.message}`)}>{fix.label}</Button
            >{/if}
          {#if finding.check === 'spelled-otherwise'}<a
              class="link small-label"
              href="/duplicates/spellings?of={finding.field === 'container-title' ? 'containers' : 'people'}"
              >Compare them</a
            >
          {:else}<Button
              needs="edit"
              small
              look="quiet"
              title="It is right as it is: not asked again unless the value changes"
              onclick={() => decide(finding, 'let stand')}>Let it stand</Button
            >{/if}
        </span>
      </div>
    </li>
  {:else}
    <li class="pencil-green"><Sign sign="check" />Prints complete</li>
  {/each}
</ul>
{#if standing.length}
  <p class="small-label stands">Stands as it is</p>
  <ul class="proof">
    {#each standing as finding (finding.check)}
      <li class="small-label">
        <div>
          {finding.message}
          <Button small look="link" onclick={() => decide(finding, 'ask again')}>Ask again</Button>
        </div>
      </li>
    {/each}
  </ul>
{/if}

<style>
  .proof {
    display: grid;
    gap: 8px;
    font-size: 12.5px;
    line-height: 1.45;
  }
  li {
    display: flex;
    gap: 7px;
    font-weight: 600;
  }
  .proof :global(.what) {
    font-weight: 600;
    text-align: left;
  }
  .proof :global(.what:hover) {
    text-decoration: underline;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: center;
    margin-top: 3px;
  }
  .stands {
    margin: 10px 0 4px;
  }
</style>
