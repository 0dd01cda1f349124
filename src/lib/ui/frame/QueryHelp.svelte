<script lang="ts">
  import { ONE_OF, QUERY_FIELDS, type QueryField } from '$lib/core/query';
  import { Button, Popover } from '../kit';

  /** Says what can be asked where one looks for something. */
  const FIELDS = Object.entries(QUERY_FIELDS);
</script>

<Button
  look="chip"
  id="query-help"
  class="min-w-0! px-2.5!"
  title="What can be asked"
  aria-label="What can be asked">?</Button
>
<Popover triggeredBy="#query-help" label="What can be asked" placement="bottom-start">
  <div class="what">
    <p>Every word must be there; it may be the beginning of a longer one.</p>
    <dl>
      <dt>"salt marsh"</dt>
      <dd>words in a row</dd>
      <dt>-dam</dt>
      <dd>what must not be there; also before a field</dd>
      {#each FIELDS as [field, { what, example }] (field)}
        <dt>{example}</dt>
        <dd>
          {what}{ONE_OF[field as QueryField] ? `: ${ONE_OF[field as QueryField]!.join(', ')}` : ''}
        </dd>
      {/each}
      <dt>tag:silt,"salt marsh"</dt>
      <dd>one of several</dd>
    </dl>
  </div>
</Popover>

<style>
  .what {
    width: 430px;
    max-width: 88vw;
    font-size: 13px;
  }
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 4px 14px;
    margin-top: 8px;
  }
  dt {
    font-weight: 600;
  }
  dd {
    color: var(--ink-2);
  }
</style>
