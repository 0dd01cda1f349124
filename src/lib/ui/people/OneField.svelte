<script lang="ts">
  import { onMount } from 'svelte';
  import { Button, Field, Input } from '../kit';

  interface Props {
    label: string;
    value: string;
    errors: string[] | undefined;
    placeholder?: string;
    /** What the button that sends it says. */
    sends: string;
    sending: boolean;
    onclose: () => void;
  }
  /** The one field of a form that opens in a row: it has the focus at once, and Escape leaves it. */
  let { label, value = $bindable(), errors, placeholder, sends, sending, onclose }: Props = $props();
  let field: HTMLInputElement | undefined = $state();
  // What was pressed to open it may still be there, and keeps the focus otherwise.
  onMount(() => field?.focus());
</script>

<Field {label} {errors}>
  {#snippet children(attributes)}<Input
      bind:element={field}
      class="w-[340px]!"
      {placeholder}
      bind:value
      onkeydown={(e: KeyboardEvent) => {
        if (e.key === 'Escape') onclose();
      }}
      {...attributes}
    />{/snippet}
</Field>
<div class="flex gap-2">
  <Button look="main" type="submit" disabled={sending}>{sends}</Button>
  <Button look="quiet" onclick={onclose}>Leave it</Button>
</div>
