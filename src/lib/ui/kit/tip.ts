/**
 * Words in `title` of a part of the kit, as they stand on its element: `Tips` shows them, and assistive technology tells them
 * where they are not what the element is called by anyway.
 */
export const tipOf = (title: string | null | undefined, label: string | null | undefined): object => ({
  'data-tip': title,
  'aria-description': title === label ? undefined : title,
});
