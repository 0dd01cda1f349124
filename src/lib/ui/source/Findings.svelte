<script lang="ts">
  import type { Finding } from '$lib/core/proof';
  import { signOf } from './findings';
  import Sign, { type SignName } from './Sign.svelte';

  interface Props {
    findings: Finding[];
    /** Other questions, set after the findings in blue pencil: a suspected double, not checked yet. */
    questions?: { sign: SignName; text: string; href: string }[];
    complete?: boolean;
  }
  let { findings, questions = [], complete = true }: Props = $props();
</script>

<ul class="findings">
  {#each findings as finding (finding.check)}
    <li class={finding.pencil === 'red' ? 'pencil-red' : 'pencil-blue'}>
      <Sign sign={signOf(finding)} />{finding.message}
    </li>
  {/each}
  {#each questions as q (q.text)}
    <li class="pencil-blue"><Sign sign={q.sign} /><a href={q.href}>{q.text}</a></li>
  {/each}
  {#if complete && findings.length === 0 && questions.length === 0}
    <li class="pencil-green"><Sign sign="check" />Prints complete</li>
  {/if}
</ul>

<style>
  .findings {
    display: grid;
    gap: 2px;
    font-size: 12.5px;
    font-weight: 600;
    line-height: 1.45;
  }
  li {
    display: flex;
    gap: 7px;
  }
  a {
    display: inline-block;
    min-height: 24px;
    margin-top: -1px;
    line-height: 1.7;
  }
  a:hover {
    text-decoration: underline;
  }
</style>
