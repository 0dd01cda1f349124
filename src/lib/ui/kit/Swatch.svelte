<script lang="ts">
  /** A tag’s colour in its pattern. What it says stands beside it in words. */
  let { tint, pattern, large = false }: { tint: string; pattern: string; large?: boolean } = $props();
</script>

<span class="swatch {pattern}" class:large style="--of: var(--tag-{tint})" aria-hidden="true"></span>

<style>
  .swatch {
    flex: none;
    display: inline-block;
    width: 10px;
    height: 10px;
    margin-right: 5px;
    vertical-align: -1px;
    border: 1.5px solid var(--of);
    border-radius: 2px;
    background: var(--page);
  }
  .large {
    width: 18px;
    height: 18px;
    margin-right: 0;
  }
  .full {
    background: var(--of);
  }
  .stripes {
    background: repeating-linear-gradient(135deg, var(--of) 0 2px, var(--page) 2px 4.5px);
  }
  .upright {
    background: repeating-linear-gradient(90deg, var(--of) 0 1.5px, var(--page) 1.5px 4px);
  }
  .level {
    background: repeating-linear-gradient(0deg, var(--of) 0 1.5px, var(--page) 1.5px 4px);
  }
  .dots {
    background: radial-gradient(circle, var(--of) 1.1px, var(--page) 1.5px) 50% 50% / 4px 4px;
  }
  .chequers {
    background: repeating-conic-gradient(var(--of) 0 25%, var(--page) 0 50%) 50% 50% / 6px 6px;
  }
</style>
