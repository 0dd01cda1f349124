/**
 * Characters that are no text: control characters of Unicode (category Cc) but tab and line ends, halves of surrogate
 * pairs, and U+FFFE and U+FFFF. XML 1.0 (2.2) holds none of them, TeX and RTF read some as commands.
 */
const NO_TEXT =
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u009F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;
/** What may be one of them: most texts hold none, and are looked through once. */
const MAY_BE_NONE = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u009F\uD800-\uDFFF\uFFFE\uFFFF]/;
/** Those of them that part words. */
const BREAKS = /[\u000B\u000C\u0085]/;

/** Whether a text holds characters that are no text. */
export const hasControls = (text: string): boolean => MAY_BE_NONE.test(text) && text.search(NO_TEXT) !== -1;

/** A text without characters that are no text; those that part words become a blank. */
export const withoutControls = (text: string): string =>
  hasControls(text) ? text.replace(NO_TEXT, (c) => (BREAKS.test(c) ? ' ' : '')) : text;
