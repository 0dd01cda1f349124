import type { Parts } from './setting';

const RELATIONS = 'word/_rels/document.xml.rels';
export const TYPES = '[Content_Types].xml';
const KINDS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

/**
 * Says in the relations of a .docx document that a part belongs to it (ECMA-376, part 2, 9), and of what type it is, where that is
 * not said by its ending; in `changed`, which holds the parts that are other than before.
 */
export function withRelation(
  parts: Parts,
  changed: Record<string, string>,
  kind: 'customXml' | 'footnotes' | 'theme',
  target: string,
  of?: { part: string; type: string },
): void {
  const relations =
    changed[RELATIONS] ??
    parts[RELATIONS] ??
    '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"></Relationships>';
  const types = changed[TYPES] ?? parts[TYPES] ?? '';
  if (of && !types.includes(`PartName="${of.part}"`))
    changed[TYPES] = types.replace(
      /<\/Types>\s*$/,
      () => `<Override PartName="${of.part}" ContentType="${of.type}"/></Types>`,
    );
  else if (!of && !/Extension="xml"/i.test(types))
    changed[TYPES] = types.replace(
      /(<Types[^<>]*>)/,
      '$1<Default Extension="xml" ContentType="application/xml"/>',
    );
  if (relations.includes(`Target="${target}"`)) return;
  let n = 1;
  while (relations.includes(`"retexa${n}"`)) n++;
  const one = `<Relationship Id="retexa${n}" Type="${KINDS}/${kind}" Target="${target}"/>`;
  // A document without relations has them in one empty element.
  changed[RELATIONS] = /<Relationships[^<>]*\/>\s*$/.test(relations)
    ? relations.replace(/(<Relationships[^<>]*)\/>\s*$/, (_all, begun: string) => `${begun}>${one}</Relationships>`)
    : relations.replace(/<\/Relationships>\s*$/, () => `${one}</Relationships>`);
} // prettier-ignore
