<script lang="ts">
  import { localeLabel } from '$lib/core/citing';
  import { Button } from '../kit';

  /** Where a style is written for another language than it prints in: that it is, and one press to print in that. */
  let {
    language,
    locale,
    onchoose,
  }: { language: string | undefined; locale: string; onchoose: (language: string) => void } = $props();
</script>

{#if language && language !== locale}
  <Button
    small
    look="quiet"
    title="Its words and quotation marks are meant for that language"
    onclick={() => onchoose(language)}>Written for {localeLabel(language)}: print in it</Button
  >
{/if}
