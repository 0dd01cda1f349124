<script module lang="ts">
  export type SignName = 'caret' | 'capitals' | 'dele' | 'cross' | 'question' | 'twice' | 'check';
  const PATHS: Record<SignName, string> = {
    caret: 'M3 13 8 4l5 9',
    capitals: 'M3 4.500h10M3 8h10M3 11.500h10',
    dele: 'M12.500 3.500C8 2.500 4 6 5 9.500s5 3 5.500 0-4-4-6.500-.5c-1.500 2-1 4 0 5',
    cross: 'm4 4 8 8M12 4l-8 8',
    question: 'M5.500 6c0-3.500 5.500-3.500 5.500-.3C11 8 8.200 8 8.200 10.200M8.200 13v.1',
    twice: 'M3 6h10M3 10.500h10',
    check: 'm3 8.500 3.500 3.500L13 4.500',
  };
</script>

<script lang="ts">
  /** A proofreader's sign, drawn so that it does not depend on a font. */
  let { sign }: { sign: SignName } = $props();
</script>

<svg viewBox="0 0 16 16" width="13" height="13" aria-hidden="true">
  <path
    d={PATHS[sign]}
    fill="none"
    stroke="currentColor"
    stroke-width="2"
    stroke-linecap="round"
    stroke-linejoin="round"
  />
</svg>

<style>
  svg {
    flex: none;
    margin-top: 3px;
  }
</style>
