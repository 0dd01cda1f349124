import { squash } from '../text';

/** Descendants by local name, whatever the prefix. */
export function all(root: Document | Element, name: string): Element[] {
  return [...root.getElementsByTagNameNS('*', name)];
}

/** Children by local name. */
export function children(root: Element, name: string): Element[] {
  return [...root.children].filter((c) => c.localName === name);
}

/** The text of an element, white space squashed; nothing for none. */
export function textIn(element: Element | undefined): string {
  return squash(element?.textContent ?? '');
}

/** Text without the punctuation that ISBD sets after a part of a description, and without non-sorting marks. */
export function unpunctuated(text: string): string {
  return squash(text.replace(/[\u0098\u009c¬]/g, ''))
    .replace(/\s*[/:;,=+]\s*$/, '')
    .replace(/(?<![\s.]\p{L})(?<!\b(?:Jr|Sr|Inc|Ltd|Co|ed|etc))\.$/u, '')
    .trim();
}
