<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** What is wrong with what is in it. */
    errors?: string[] | undefined;
    /** The field itself. */
    children: Snippet<
      [attributes: { 'aria-invalid': 'true' | undefined; 'aria-describedby': string | undefined }]
    >;
  }
  /** A field under its label, with what is wrong with it below. */
  let { label, errors, children }: Props = $props();
  const id = $props.id();
  const wrong = $derived(Boolean(errors?.length));
</script>

<label class="block">
  <span class="small-label">{label}</span>
  {@render children({
    'aria-invalid': wrong ? 'true' : undefined,
    'aria-describedby': wrong ? `${id}-wrong` : undefined,
  })}
  {#if wrong}<span id="{id}-wrong" class="pencil-red block text-[13px]" role="alert">{errors?.join(' ')}</span
    >{/if}
</label>
