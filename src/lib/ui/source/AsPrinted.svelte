<script lang="ts">
  import { Button } from '../kit';
  import { fieldLabel } from '$lib/core/source';
  import type { Preview } from './source-editing.svelte';
  import { copyText } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import ProofList from './ProofList.svelte';
  import Reference from './Reference.svelte';

  interface Props {
    preview: Preview | undefined;
    style: string;
    lit: string | undefined;
    onpoint: (field: string | undefined) => void;
    onchoose: (field: string) => void;
    onfix: (edit: Record<string, unknown>, why: string) => void;
    /** How it would print with a fix that is pointed at. */
    trial: Preview | undefined;
    /** Shows how it would print with an edit, or no longer. */
    ontry: (edit: Record<string, unknown> | undefined) => void;
    sourceId: string;
  }
  let { preview, trial, style, lit, onpoint, onchoose, onfix, ontry, sourceId }: Props = $props();
  const shown = $derived(trial ?? preview);
</script>

<section class="printed" aria-label="As it prints">
  <h3>{trial ? 'As it would print' : 'As it prints'} <span>{style}</span></h3>
  <Reference
    reference={shown?.reference}
    fallback={preview ? 'Nothing prints: the record is empty.' : 'Printing…'}
    {lit}
    {onpoint}
    {onchoose}
  />
  {#if lit}<p class="pointed">{fieldLabel(lit)}</p>{/if}
  <h3>In the text</h3>
  <p class="serif citation">{shown?.citation.text ?? ''}</p>
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
    <ProofList
      {sourceId}
      findings={preview.findings}
      standing={preview.standing}
      {onchoose}
      onfix={(edit, why) => {
        ontry(undefined);
        onfix(edit, why);
      }}
      ontry={(fix) => ontry(fix?.edit)}
    />
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
