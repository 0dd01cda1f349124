<script lang="ts">
  import { Field, Input } from '../kit';

  interface Props {
    label: string;
    /** What a browser may fill in; it also says whether what is typed is hidden. */
    fills: 'name' | 'username' | 'current-password' | 'new-password' | 'one-time-code' | 'off';
    value: string;
    errors?: string[] | undefined;
    autofocus?: boolean;
  }
  /** A field of what an account is held by: a name, a mail address, a pass phrase, a code. */
  let { label, fills, value = $bindable(), errors, autofocus = false }: Props = $props();
  const type = $derived(fills === 'username' ? 'email' : fills.endsWith('password') ? 'password' : 'text');
  const inputmode = $derived(fills === 'one-time-code' ? ('numeric' as const) : undefined);
</script>

<Field {label} {errors}>
  {#snippet children(attributes)}<Input
      {type}
      {autofocus}
      autocomplete={fills}
      bind:value
      {inputmode}
      {...attributes}
    />{/snippet}
</Field>
