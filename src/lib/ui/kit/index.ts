/** The components every view is made of. */
export {
  CommandPalette,
  Table,
  TableBody,
  TableBodyCell,
  TableBodyRow,
  TableHead,
  TableHeadCell,
  Toast,
} from 'flowbite-svelte';
export { default as ActionBar } from './ActionBar.svelte';
export { default as Badge } from './Badge.svelte';
export { default as Banner } from './Banner.svelte';
export { default as Button } from './Button.svelte';
export { default as Chart } from './Chart.svelte';
export { default as Checkbox } from './Checkbox.svelte';
export { default as Dialog } from './Dialog.svelte';
export { default as Empty } from './Empty.svelte';
export { default as Field } from './Field.svelte';
export { default as FileButton } from './FileButton.svelte';
export { default as FileDrop } from './FileDrop.svelte';
export { default as Input } from './Input.svelte';
export { default as Key } from './Key.svelte';
export { default as Menu } from './Menu.svelte';
export { default as PageHead } from './PageHead.svelte';
export { default as Popover } from './Popover.svelte';
export { default as Progress } from './Progress.svelte';
export { default as Radio } from './Radio.svelte';
export { allows } from './rights';
export { default as Search } from './Search.svelte';
export { default as Select } from './Select.svelte';
export { default as Slider } from './Slider.svelte';
export { default as Swatch } from './Swatch.svelte';
export { default as Tabs } from './Tabs.svelte';
export { default as Textarea } from './Textarea.svelte';
export { default as Toggle } from './Toggle.svelte';
export { default as Trail } from './Trail.svelte';
