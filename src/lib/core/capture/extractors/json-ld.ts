import type { Candidate } from '../candidate';
import { fromSchemaNodes, isNode, listOf, type SchemaNode } from '../schema-org';

/** Text of a block as it may be spoilt by templates: wrapped in comments or CDATA, with raw line ends inside strings. */
function opened(text: string): unknown {
  const bare = text
    .replace(/^\s*(?:<!--|\/\/\s*<!\[CDATA\[|<!\[CDATA\[)/, '')
    .replace(/(?:-->|\/\/\s*\]\]>|\]\]>)\s*$/, '')
    .trim();
  try {
    return JSON.parse(bare);
  } catch {
    return JSON.parse(bare.replace(/[\n\r\t]+/g, ' ').replace(/;\s*$/, ''));
  }
}

/** All nodes of a page's JSON-LD blocks, `@graph`, `mainEntity` and arrays opened; blocks that do not parse are passed over. */
export function jsonLdNodes(doc: Document): SchemaNode[] {
  const nodes: SchemaNode[] = [];
  for (const script of doc.querySelectorAll('script[type="application/ld+json" i]')) {
    const open = (value: unknown, depth = 0): void => {
      if (depth > 8 || nodes.length > 2_000) return;
      for (const v of listOf(value)) {
        if (!isNode(v)) continue;
        nodes.push(v);
        open(v['@graph'], depth + 1);
        open(v.mainEntity, depth + 1);
      }
    };
    try {
      open(opened(script.textContent ?? ''));
    } catch {
      continue;
    }
  }
  return nodes;
}

/** Reads schema.org in JSON-LD. */
export const jsonLd = (doc: Document, address: string): Candidate[] =>
  fromSchemaNodes(jsonLdNodes(doc), 'json-ld', address);
