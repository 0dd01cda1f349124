<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** The label is for assistive technology alone, where a line has no room for it. */
    quiet?: boolean;
    /** What is wrong with what is in it. */
    errors?: string[] | undefined;
    /** The field itself. */
    children: Snippet<
      [attributes: { 'aria-invalid': 'true' | undefined; 'aria-describedby': string | undefined }]
    >;
  }
  /** A field under its label, with what is wrong with it below. */
  let { label, quiet = false, errors, children }: Props = $props();
  const id = $props.id();
  const wrong = $derived(Boolean(errors?.length));
</script>

<label class="block">
  <span class={quiet ? 'sr-only' : 'small-label'}>{label}</span>
  {@render children({
    'aria-invalid': wrong ? 'true' : undefined,
    'aria-describedby': wrong ? `${id}-wrong` : undefined,
  })}
  {#if wrong}<span id="{id}-wrong" class="pencil-red block text-[13px]" role="alert">{errors?.join(' ')}</span
    >{/if}
</label>
