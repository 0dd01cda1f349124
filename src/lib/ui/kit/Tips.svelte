<script lang="ts">
  import { Tooltip } from 'flowbite-svelte';
  import { tick } from 'svelte';

  /** How long the pointer rests on something before its words come, in milliseconds. */
  const REST = 450;
  const id = $props.id();

  /**
   * Shows what stands in `data-tip` of whatever the pointer rests on or the keyboard comes to. One for the whole page:
   * lists of thousands of rows have nothing of their own to listen to. It covers nothing (what lies under it can be
   * pressed), stays while the pointer goes over it, and goes at Escape (WCAG 2.1, 1.4.13).
   */
  let of: HTMLElement | undefined = $state.raw();
  let open = $state(false);
  let words = $state('');
  let shown: HTMLElement | undefined = $state.raw();
  let coming: ReturnType<typeof setTimeout> | undefined;

  const tipped = (target: EventTarget | null) =>
    target instanceof Element ? (target.closest<HTMLElement>('[data-tip]') ?? undefined) : undefined;

  const hide = () => {
    clearTimeout(coming);
    of?.removeAttribute('data-tip-shown');
    if (of?.getAttribute('aria-describedby') === id) of.removeAttribute('aria-describedby');
    of = undefined;
    open = false;
  };
  const show = async (element: HTMLElement) => {
    hide();
    // Its place is looked for when it comes: one that was there for another is gone before.
    await tick();
    if (!element.dataset.tip || !element.isConnected) return;
    words = element.dataset.tip;
    element.setAttribute('data-tip-shown', '');
    // A link has no part of the kit that says it.
    if (!element.hasAttribute('aria-description') && !element.hasAttribute('aria-describedby'))
      element.setAttribute('aria-describedby', id);
    of = element;
    // The kit shows what is opened, not what comes open.
    await tick();
    open = of === element;
  };

  const within = ({ clientX: x, clientY: y }: PointerEvent) => {
    const box = shown?.getBoundingClientRect();
    return !!box && x >= box.left && x <= box.right && y >= box.top - 8 && y <= box.bottom + 8;
  };
  const moved = (event: PointerEvent) => {
    if (event.pointerType === 'touch') return;
    const element = tipped(event.target);
    if (of && (element === of || within(event))) return;
    hide();
    if (element) coming = setTimeout(() => void show(element), REST);
  };
  /** The last key goes from one thing to the next: a dialogue that opens gives its focus unasked. */
  let going = false;
  const key = (event: KeyboardEvent) => {
    going = event.key === 'Tab' || event.key.startsWith('Arrow');
    if (!going) hide();
  };
  const reached = (event: FocusEvent) => {
    const element = tipped(event.target);
    const typedIn = event.target instanceof Element && event.target.matches('input, textarea, select');
    if (element && going && !typedIn && element.matches(':focus-visible')) void show(element);
    else hide();
  };
  // What it belongs to may go while it is shown: another view, a row scrolled away.
  $effect(() => {
    const element = of;
    if (!element) return;
    const watch = new ResizeObserver(() => element.isConnected || hide());
    watch.observe(element);
    return () => watch.disconnect();
  });
</script>

<svelte:document
  onpointerover={moved}
  onpointermove={of ? moved : undefined}
  onpointerdown={hide}
  onfocusin={reached}
  onfocusout={hide}
  onkeydown={key}
/>

<span hidden tabindex="-1"></span>
{#if of}
  <Tooltip
    {id}
    bind:isOpen={open}
    type="custom"
    reference="[data-tip-shown]"
    placement="bottom"
    arrow={false}
    transitionParams={{ duration: 0 }}
    class="max-w-72 rounded-md bg-[#123644] px-2.5 py-1.5 text-[12.5px] leading-[1.35] font-medium text-white shadow-lg dark:border dark:border-edge print:hidden"
    ><span bind:this={shown}>{words}</span></Tooltip
  >
{/if}
