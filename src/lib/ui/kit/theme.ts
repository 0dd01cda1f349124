import type { ThemeConfig } from 'flowbite-svelte';

/** The one theme of the interface. Colours come from the tokens of `app.css`; here are shape, size and type. */
export const theme: ThemeConfig = {
  modal: {
    base: 'rounded-[10px] border border-edge bg-page text-ink backdrop:bg-black/45 dark:backdrop:bg-black/60',
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
  toggle: {
    label: 'gap-2 text-[13px] font-normal text-inherit dark:text-inherit',
    span: 'me-0 border border-edge bg-edge peer-checked:border-thread peer-checked:bg-thread peer-focus:ring-0 peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-thread after:top-px after:start-px after:border-0 after:bg-page dark:border-edge dark:bg-edge',
    input: 'focus:ring-0',
  },
  search: {
    left: 'ps-2.5',
    icon: 'size-3 text-ink-3 dark:text-ink-3',
  },
  breadcrumb: { list: 'flex-wrap gap-x-2 space-x-0 md:space-x-0' },
  breadcrumbItem: {
    base: 'ms-0 gap-1 text-[12.5px] font-[550] text-ink-2 hover:text-ink hover:underline md:ms-0 dark:text-ink-2 dark:hover:text-ink',
  },
  table: { table: 'text-[13px] text-ink dark:text-ink' },
  tableHead: 'bg-transparent text-xs font-[650] text-ink-3 normal-case dark:bg-transparent dark:text-ink-3',
  tableHeadCell: 'px-0 py-1 pe-3 font-[650]',
  tableBodyRow: 'border-rule bg-transparent dark:border-rule dark:bg-transparent',
  tableBodyCell: 'px-0 py-1 pe-3 font-normal whitespace-normal',
  kbd: 'rounded-sm border border-edge bg-side px-1.5 py-0 font-sans text-xs font-medium text-ink-2 dark:border-edge dark:bg-side dark:text-ink-2',
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
    kbd: 'border-edge bg-page text-ink-2 dark:border-edge dark:bg-page dark:text-ink-2',
  },
};
