import { createRequire } from 'node:module';
import type * as Dom from 'jsdom';

/** Loaded when first needed: it takes a second, which a command that reads no XML should not wait for. */
const dom = () => createRequire(import.meta.url)('jsdom') as typeof Dom;

/** Parses XML; entities of a document type are never expanded from outside. Throws when it is not well formed. */
export function parseXml(text: string): Document {
  if (/<!ENTITY/i.test(text.slice(0, 100_000))) throw new Error('The XML declares entities of its own.');
  const { JSDOM } = dom();
  return new JSDOM(text, { contentType: 'application/xml' }).window.document;
}
