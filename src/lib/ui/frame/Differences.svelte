<script lang="ts">
  import { parts } from './differences';

  /** What a text was and what it is, with the words that differ marked in both. */
  let { was, is }: { was: string; is: string } = $props();
</script>

<span class="differences">
  <del
    >{#each parts(was, is) as part, i (i)}{#if part.differs && is}<mark>{part.text}</mark>{:else}{part.text ||
          'nothing'}{/if}{/each}</del
  >
  →
  <ins
    >{#each parts(is, was) as part, i (i)}{#if part.differs && was}<mark>{part.text}</mark
        >{:else}{part.text || 'nothing'}{/if}{/each}</ins
  >
</span>

<style>
  .differences {
    overflow-wrap: anywhere;
  }
  del {
    color: var(--ink-3);
    text-decoration: none;
  }
  del mark {
    background: none;
    color: inherit;
    text-decoration: line-through;
  }
  ins {
    text-decoration: none;
  }
  ins mark {
    background: var(--thread-soft);
    color: inherit;
    font-weight: 600;
  }
</style>
