import type { ThemeConfig } from 'flowbite-svelte';

/** The one theme of the interface. Colours come from the tokens of `app.css`; here are shape, size and type. */
export const theme: ThemeConfig = {
  modal: {
    base: 'rounded-[10px] border border-edge bg-page text-ink',
    header: 'px-5 py-3.5 text-[17px] text-ink',
    body: 'space-y-3.5 p-5',
  },
  checkbox: {
    base: 'me-0 size-[15px] rounded-[3px] border border-edge bg-page text-thread checked:border-thread checked:bg-thread focus:ring-0 dark:border-edge dark:bg-page dark:checked:bg-thread',
  },
  radio: {
    input:
      'me-0! mr-1.5! border-edge bg-page text-thread checked:border-transparent checked:bg-thread focus:ring-0 dark:border-edge dark:bg-page',
    label: 'gap-0! text-[13px] font-normal text-ink dark:text-ink',
  },
  kbd: 'rounded-sm border border-edge bg-side px-1.5 py-0 font-sans text-xs font-medium text-ink-2',
  toast: {
    base: 'w-full max-w-none items-start gap-3 rounded-lg bg-[#123644] px-3.5 py-2.5 text-white dark:bg-[#123644] dark:text-white',
    content: 'flex-1 text-sm font-normal',
  },
  commandPalette: {
    base: 'max-w-xl rounded-[10px] border border-edge bg-page text-ink',
    list: 'max-h-80',
    item: 'aria-selected:bg-thread aria-selected:text-on-thread [&[aria-selected=true]_*]:text-inherit dark:text-ink',
    itemDescription: 'text-xs text-ink-3',
    footer: 'border-rule bg-side text-ink-3 dark:bg-side',
    search: 'border-0',
    kbd: 'border-edge bg-page text-ink-2',
  },
};
