<script lang="ts">
  import { RELATION_LABELS, RELATIONS } from '$lib/core/duplicates';
  import { Select } from '../kit';

  interface Props {
    label: string;
    /** What stands in it while nothing is chosen. */
    words: string;
    onkind: (kind: string) => void;
  }
  /** Says how two works belong together that are no doubles. */
  let { label, words, onkind }: Props = $props();
</script>

<Select
  look="chip"
  aria-label={label}
  value=""
  onchange={(event) => {
    if (event.currentTarget.value) onkind(event.currentTarget.value);
  }}
>
  <option value="">{words}</option>
  {#each RELATIONS as kind (kind)}<option value={kind}>{RELATION_LABELS[kind]}</option>{/each}
</Select>
