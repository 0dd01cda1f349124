import { SaxesParser } from 'saxes';
import type { Tree } from '../core/citing';

/** An element that is open, with all that stands in it so far; a comment has its place, and no words. */
interface Open {
  name: string;
  attrs: Record<string, string>;
  nodes: (Tree | string | undefined)[];
}

const isText = (name: string) => name === 'term' || name === 'single' || name === 'multiple';

function closed({ name, attrs, nodes }: Open): Tree {
  const children = nodes.filter(
    (node): node is Tree | string =>
      node !== undefined &&
      (typeof node !== 'string' || Boolean(node.trim() || (nodes.length === 1 && node && isText(name)))),
  );
  return { name, attrs, children: isText(name) && children.length === 0 ? [''] : children };
}

/**
 * A CSL style or locale in XML as the tree the processor takes. White space between elements and comments are left out, text inside
 * `term`, `single` and `multiple` stays as it is. Throws when it is not well formed, or declares entities of its own.
 */
export function treeOfXml(xml: string): Tree {
  if (/<!ENTITY/i.test(xml.slice(0, 100_000))) throw new Error('The XML declares entities of its own.');
  const parser = new SaxesParser({ xmlns: true });
  const open: Open[] = [{ name: '', attrs: {}, nodes: [] }];
  const put = (node: Tree | string | undefined) => void open[open.length - 1]!.nodes.push(node);
  parser.on('opentag', ({ local, attributes }) => {
    const attrs: Record<string, string> = {};
    for (const { name, value } of Object.values(attributes)) if (name !== 'xmlns') attrs[name] = value;
    open.push({ name: local, attrs, nodes: [] });
  });
  parser.on('closetag', () => put(closed(open.pop()!)));
  parser.on('text', put);
  parser.on('cdata', put);
  parser.on('comment', () => put(undefined));
  parser.on('processinginstruction', () => put(undefined));
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(xml).close();
  return open[0]!.nodes.find((node): node is Tree => typeof node === 'object')!;
}
