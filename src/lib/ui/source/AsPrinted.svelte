<script lang="ts">
  import { Button } from '../kit';
  import { fieldLabel } from '$lib/core/source';
  import type { Preview } from './source-editing.svelte';
  import { copyText } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import Findings from './Findings.svelte';
  import Reference from './Reference.svelte';

  interface Props {
    preview: Preview | undefined;
    style: string;
    lit: string | undefined;
    onpoint: (field: string | undefined) => void;
    onchoose: (field: string) => void;
    onfix: (edit: Record<string, unknown>, why: string) => void;
  }
  let { preview, style, lit, onpoint, onchoose, onfix }: Props = $props();
  const fixable = $derived(preview?.findings.filter((f) => f.fix) ?? []);
</script>

<section class="printed" aria-label="As it prints">
  <h3>As it prints <span>{style}</span></h3>
  <Reference
    reference={preview?.reference}
    fallback={preview ? 'Nothing prints: the record is empty.' : 'Printing…'}
    {lit}
    {onpoint}
    {onchoose}
  />
  {#if lit}<p class="pointed">{fieldLabel(lit)}</p>{/if}
  <h3>In the text</h3>
  <p class="serif citation">{preview?.citation.text ?? ''}</p>
  <div class="flex gap-2">
    <Button
      small
      disabled={!preview}
      onclick={() =>
        attempt(async () => {
          await copyText(preview?.reference.text ?? '', preview?.reference.html);
          done('Reference copied.');
        })}>Copy reference</Button
    >
    <Button
      small
      disabled={!preview}
      onclick={() =>
        attempt(async () => {
          await copyText(preview?.citation.text ?? '');
          done('Citation copied.');
        })}>Copy citation</Button
    >
  </div>
  <h3>Proof</h3>
  {#if preview}
    <Findings findings={preview.findings} />
    {#each fixable as finding (finding.check)}
      <Button small class="mt-2 mr-1" onclick={() => onfix(finding.fix!.edit, `fixed: ${finding.message}`)}
        >{finding.fix!.label}</Button
      >
    {/each}
  {/if}
</section>

<style>
  h3 {
    margin: 18px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  h3:first-child {
    margin-top: 0;
  }
  h3 span {
    font-weight: 450;
  }
  .citation {
    margin-bottom: 8px;
    font-size: 16px;
  }
  .pointed {
    margin-top: 4px;
    color: var(--thread);
    font-size: 12px;
    font-weight: 600;
  }
</style>
