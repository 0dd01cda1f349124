import { squash } from '../../text';
import type { Candidate } from '../candidate';
import { addTo, fromSchemaNodes, type SchemaNode } from '../schema-org';

/** The value of a property's element. Source: HTML Living Standard, "Microdata", 5.2.4 Values. */
function valueOf(element: Element): unknown {
  if (element.hasAttribute('itemscope')) return itemOf(element);
  const attribute = {
    META: 'content',
    A: 'href',
    LINK: 'href',
    AREA: 'href',
    IMG: 'src',
    DATA: 'value',
    TIME: 'datetime',
    OBJECT: 'data',
  }[element.tagName];
  const given = attribute ? element.getAttribute(attribute) : null;
  // A link that carries a name is a name with a link on it: the text says more than the address.
  const properties = element.getAttribute('itemprop') ?? '';
  if (element.tagName === 'A' && /\b(?:author|creator|editor|publisher|isPartOf|name)\b/.test(properties))
    return squash(element.textContent ?? '');
  return given ?? element.getAttribute('content') ?? squash(element.textContent ?? '');
}

function itemOf(root: Element): SchemaNode {
  const node: SchemaNode = { '@type': (root.getAttribute('itemtype') ?? '').split(/\s+/).filter(Boolean) };
  if (root.hasAttribute('itemid')) node['@id'] = root.getAttribute('itemid');
  const add = (element: Element) => {
    for (const name of (element.getAttribute('itemprop') ?? '').split(/\s+/).filter(Boolean)) {
      const local = name.replace(/^https?:\/\/schema\.org\//, '');
      const value = valueOf(element);
      addTo(node, local, value);
    }
  };
  const walk = (element: Element) => {
    for (let child = element.firstElementChild; child; child = child.nextElementSibling) {
      if (child.hasAttribute('itemprop')) add(child);
      if (!child.hasAttribute('itemscope')) walk(child);
    }
  };
  walk(root);
  for (const id of (root.getAttribute('itemref') ?? '').split(/\s+/).filter(Boolean)) {
    const referred = root.ownerDocument.getElementById(id);
    if (!referred || referred.contains(root)) continue;
    if (referred.hasAttribute('itemprop')) add(referred);
    else walk(referred);
  }
  return node;
}

/** The top-level schema.org items of a page's microdata. Source: HTML Living Standard, "Microdata". */
export function microdataNodes(doc: Document): SchemaNode[] {
  return [...doc.querySelectorAll('[itemscope][itemtype*="schema.org"]:not([itemprop])')]
    .slice(0, 500)
    .map(itemOf);
}

/** Reads schema.org in microdata. */
export const microdata = (doc: Document, address: string): Candidate[] =>
  fromSchemaNodes(microdataNodes(doc), 'microdata', address);
