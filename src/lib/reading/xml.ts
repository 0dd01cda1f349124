import { createRequire } from 'node:module';
import type * as Dom from 'jsdom';

let parser: DOMParser | undefined;

/**
 * Loaded when first needed: it takes a second, which a command that reads no XML should not wait for. One window reads all that
 * comes; to make one takes longer than to read a record.
 */
function parserHere(): DOMParser {
  if (!parser) {
    const { JSDOM } = createRequire(import.meta.url)('jsdom') as typeof Dom;
    parser = new new JSDOM('').window.DOMParser();
  }
  return parser;
}

/** Parses XML; entities of a document type are never expanded from outside. Throws when it is not well formed. */
export function parseXml(text: string): Document {
  if (/<!ENTITY/i.test(text.slice(0, 100_000))) throw new Error('The XML declares entities of its own.');
  const document = parserHere().parseFromString(text, 'application/xml');
  const root = document.documentElement;
  if (root.localName === 'parsererror') throw new Error(root.textContent);
  return document;
}
