import { tv } from 'tailwind-variants';

/** What stands in place of a colour or size of Flowbite's, so that only ours are there. */
export const OURS = 'ours' as never;

/** Focus is an outline of our own, of the accent; Flowbite's rings would double it. */
const FOCUS =
  'focus-within:ring-0 focus-within:outline-none focus-visible:outline-2 focus-visible:outline-offset-2 focus-visible:outline-thread';

/** The looks of a button. */
export const buttonLook = tv({
  base: FOCUS,
  variants: {
    look: {
      plain:
        'min-h-8 gap-1.5 rounded-md border border-edge bg-page px-[13px] py-1 text-[13px] font-semibold whitespace-nowrap text-ink hover:border-thread hover:bg-row-chosen',
      main: 'min-h-8 gap-1.5 rounded-md border border-thread bg-thread px-[13px] py-1 text-[13px] font-semibold whitespace-nowrap text-on-thread hover:brightness-112',
      quiet:
        'min-h-8 gap-1.5 rounded-md border border-transparent bg-transparent px-2 py-1 text-[13px] font-[550] whitespace-nowrap text-ink-2 hover:bg-thread-soft hover:text-ink',
      chip: 'min-h-7 gap-[5px] rounded-[14px] border border-edge bg-page px-3 py-0.5 text-xs font-[550] whitespace-nowrap text-ink hover:border-thread aria-pressed:border-thread aria-pressed:bg-thread-soft aria-[current=page]:border-thread aria-[current=page]:bg-thread-soft',
      link: 'inline rounded-none text-start font-semibold text-thread underline decoration-1 underline-offset-3',
      icon: 'min-h-[26px] min-w-6 rounded-sm text-ink-3 hover:bg-thread-soft hover:text-ink',
      strip: 'size-[30px] flex-none rounded-md font-bold text-[#d5e2e6] hover:bg-[#1a4253]',
      bare: 'inline-block rounded-none [font:inherit]',
    },
    small: { true: '' },
    disabled: { true: 'cursor-default opacity-55', false: 'cursor-pointer' },
  },
  compoundVariants: [
    { look: ['plain', 'main', 'quiet'], small: true, class: 'min-h-[26px] px-[9px] py-px text-xs' },
    { look: 'icon', disabled: true, class: 'opacity-30' },
  ],
  defaultVariants: { look: 'plain', disabled: false },
});
export type ButtonLook = 'plain' | 'main' | 'quiet' | 'chip' | 'link' | 'icon' | 'strip' | 'bare';

/** The looks of a field: one among others in a form, a chip among filters, or none. */
export const fieldLook = tv({
  base: 'disabled:cursor-default',
  variants: {
    look: {
      field:
        'min-h-8 w-full rounded-md border border-edge bg-page px-[9px] py-1 text-sm leading-[1.4] text-ink placeholder:text-ink-3 focus:border-thread focus:ring-1 focus:ring-thread focus:outline-none',
      chip: 'min-h-7 w-auto rounded-[14px] border border-edge bg-page px-3 py-0.5 text-xs leading-[1.3] font-[550] text-ink placeholder:text-ink-3 hover:border-thread focus:border-thread focus:ring-1 focus:ring-thread focus:outline-none',
      bare: 'rounded-none border-0 bg-transparent p-0 text-inherit focus:ring-0',
    },
  },
  defaultVariants: { look: 'field' },
});
export type FieldLook = 'field' | 'chip' | 'bare';

/** The looks of a badge: a number of what is there, of what waits for somebody, or a tag. */
export const badgeLook = tv({
  base: 'rounded-[14px] leading-[1.4] whitespace-nowrap tabular-nums',
  variants: {
    look: {
      count: 'rounded-none px-0 py-0 text-[12.5px] font-medium text-ink-3',
      waiting: 'min-w-[23px] bg-blue-soft px-[7px] py-px text-[12.5px] font-bold text-blue-pencil',
      tag: 'min-h-7 gap-[5px] border border-edge px-3 py-0.5 text-xs font-[550] text-ink',
      part: 'gap-1.5 border border-thread bg-thread-soft px-3 py-0.5 text-xs font-[550] text-ink',
    },
  },
});
export type BadgeLook = 'count' | 'waiting' | 'tag' | 'part';

/** The looks of a banner: something said, or something wrong. */
export const bannerLook = tv({
  base: 'static z-auto block w-full flex-[1_0_100%] border-0 px-[26px] py-[7px] text-[13.5px] dark:border-0',
  variants: {
    look: {
      said: 'border-t border-rule bg-transparent text-ink-2 dark:border-t dark:border-rule dark:bg-transparent',
      wrong: 'bg-red-soft font-semibold text-red-pencil dark:bg-red-soft',
      asked:
        'border-b border-rule bg-red-soft px-5 py-[9px] text-ink dark:border-b dark:border-rule dark:bg-red-soft',
    },
  },
});
export type BannerLook = 'said' | 'wrong' | 'asked';
