<script lang="ts">
  import { Select } from '../kit';
  import { narrow, narrowedBy } from './narrowing';

  /** Narrows a view by one of several values, which stands in the address under `name`. */
  let {
    name,
    label,
    any,
    options,
  }: { name: string; label: string; any: string; options: { value: string; text: string }[] } = $props();
</script>

<Select
  look="chip"
  class={[narrowedBy(name) && 'on']}
  aria-label={label}
  value={narrowedBy(name)}
  onchange={(e) => narrow({ [name]: e.currentTarget.value })}
>
  <option value="">{any}</option>
  {#each options as { value, text } (value)}<option {value}>{text}</option>{/each}
</Select>
