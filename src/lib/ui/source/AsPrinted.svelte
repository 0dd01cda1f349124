<script lang="ts">
  import { Button } from '../kit';
  import { fieldLabel } from '$lib/core/source';
  import type { Preview } from './source-editing.svelte';
  import { copyText } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';
  import ProofList from './ProofList.svelte';
  import Reference from './Reference.svelte';
  import SheetHeading from './SheetHeading.svelte';

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
  <SheetHeading
    >{trial ? 'As it would print' : 'As it prints'} <span class="font-normal">{style}</span></SheetHeading
  >
  <Reference
    reference={shown?.reference}
    fallback={preview ? 'Nothing prints: the record is empty.' : 'Printing…'}
    {lit}
    {onpoint}
    {onchoose}
  />
  {#if lit}<p class="pointed">{fieldLabel(lit)}</p>{/if}
  <SheetHeading>In the text</SheetHeading>
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
  <SheetHeading>Proof</SheetHeading>
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
