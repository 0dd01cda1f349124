<script lang="ts">
  /** Says which sources a source looks the same as, and leads to comparing them. */
  let { id, doubles }: { id: string; doubles: { id: string; label: string; reason: string }[] } = $props();
</script>

{#each doubles as double (double.id)}
  <p>
    Looks like one you have: <a class="link" href="/sources/{double.id}">{double.label}</a> ({double.reason}).
    <a class="link" href="/duplicates?a={double.id}&b={id}">Compare them</a>
  </p>
{/each}

<style>
  p {
    padding: 8px 26px;
    border-bottom: 1px solid var(--rule);
    color: var(--blue-pencil);
    background: var(--blue-soft);
  }
</style>
