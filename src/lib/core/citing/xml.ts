import type { Tree } from '../csl';

/**
 * A CSL style or locale as XML to the tree the processor takes; the parsed document is given, since core has no parser.
 * White space between elements and comments are left out, text inside `term`, `single` and `multiple` stays as it is.
 */
export function treeOfElement(element: Element): Tree {
  const attrs: Record<string, string> = {};
  for (const { name, value } of element.attributes) if (name !== 'xmlns') attrs[name] = value;
  const nodes = [...element.childNodes];
  const children = nodes.flatMap((node): (Tree | string)[] => {
    if (node.nodeType === 1) return [treeOfElement(node as Element)];
    const text = node.nodeType === 3 || node.nodeType === 4 ? (node.nodeValue ?? '') : '';
    return text.trim() || (nodes.length === 1 && text && isText(element.localName)) ? [text] : [];
  });
  const empty = isText(element.localName) && children.length === 0;
  return { name: element.localName, attrs, children: empty ? [''] : children };
}

const isText = (name: string) => name === 'term' || name === 'single' || name === 'multiple';
