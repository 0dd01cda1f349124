import { untrack } from 'svelte';

/**
 * Parts of something long, put on the page one a frame so that it answers meanwhile, and renewed there the same way when
 * what is wanted changes. Must be made while a component is.
 */
export function filling<Part>(wanted: () => Part[]): { readonly parts: Part[] } {
  let parts = $state.raw<Part[]>([]);
  $effect(() => {
    const all = wanted();
    let at = 0;
    let frame = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // A page that is not seen gets no frames, and is filled all the same.
    const later = () => {
      if (document.hidden) timer = setTimeout(put);
      else frame = requestAnimationFrame(put);
    };
    const put = () => {
      const next = untrack(() => parts).slice();
      if (at < all.length) next[at] = all[at]!;
      else next.pop();
      at++;
      parts = next;
      if (at < all.length || next.length > all.length) later();
    };
    if (all.length || untrack(() => parts).length) put();
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  });
  return {
    get parts() {
      return parts;
    },
  };
}
