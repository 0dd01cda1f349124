<script lang="ts">
  interface Props {
    id: string;
    name: string;
    /** It is who looks. */
    self?: boolean;
  }
  /** Whose something is: by name, and by a pattern of their own, never by colour. */
  let { id, name, self = false }: Props = $props();

  /** Lines at an angle so far apart, or dots: told apart in one ink. */
  const PATTERNS = [
    'repeating-linear-gradient(45deg, currentColor 0 1.5px, transparent 1.5px 4px)',
    'repeating-linear-gradient(-45deg, currentColor 0 1.5px, transparent 1.5px 4px)',
    'repeating-linear-gradient(0deg, currentColor 0 1.5px, transparent 1.5px 4px)',
    'repeating-linear-gradient(90deg, currentColor 0 1.5px, transparent 1.5px 4px)',
    'radial-gradient(currentColor 1.2px, transparent 1.3px) 0 0 / 4px 4px',
    'repeating-linear-gradient(45deg, currentColor 0 1px, transparent 1px 3px), repeating-linear-gradient(-45deg, currentColor 0 1px, transparent 1px 3px)',
    'linear-gradient(currentColor, currentColor) 0 0 / 50% 100% no-repeat',
    'linear-gradient(currentColor, currentColor) 0 0 / 100% 50% no-repeat',
  ];
  // The last letters of an id are random; the first are the time it was made.
  const pattern = $derived(
    PATTERNS[[...id.slice(-6)].reduce((sum, c) => sum + c.charCodeAt(0), 0) % PATTERNS.length],
  );
</script>

<span class="person"
  ><span class="pattern" style:background={self ? 'currentColor' : pattern} aria-hidden="true"></span>{self
    ? 'you'
    : name}</span
>

<style>
  .person {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    min-width: 0;
  }
  .pattern {
    flex: none;
    width: 13px;
    height: 13px;
    border: 1.5px solid currentColor;
    border-radius: 3px;
  }
</style>
