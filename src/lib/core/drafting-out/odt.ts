import { entryRuns, writable, type Run } from '../citing';
import { escapeHtml, withoutControls } from '../text';
import { spelledOut } from './keys';
import { laidOut, type DraftOut, type Laid, type PictureOut, type Stretch } from './layout';
import type { Citing } from './markdown';

/** The files of an OpenDocument text by their names; pictures are PNG in base64. */
export interface OdtFiles {
  texts: Record<string, string>;
  pictures: Record<string, string>;
}

/** A formula of TeX as a MathML element with its namespace, or nothing where it cannot be read. */
export type MathmlOf = (tex: string, display: boolean) => string | undefined;

const TYPE = 'application/vnd.oasis.opendocument.text';
const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const NAMES = [
  ['office', 'office'], ['style', 'style'], ['text', 'text'], ['table', 'table'], ['draw', 'drawing'], ['svg', 'svg-compatible'], ['fo', 'xsl-fo-compatible'],
].map(([name, is]) => ` xmlns:${name!}="urn:oasis:names:tc:opendocument:xmlns:${is!}:1.0"`).join('') + ' xmlns:xlink="http://www.w3.org/1999/xlink"'; // prettier-ignore

const said = (text: string) =>
  escapeHtml(withoutControls(text))
    // Blanks in a row are one, and one at the beginning none, but for those that are said to be there.
    .replace(/^ | {2,}/g, (blanks) => `<text:s text:c="${blanks.length}"/>`)
    .replace(/\t/g, '<text:tab/>');
const named = (id: string) => `p${id.replace(/[^A-Za-z0-9]/g, '')}`;
const dress = (style: string, inside: string) =>
  inside && `<text:span text:style-name="${style}">${inside}</text:span>`;

/** Looks of runs, each a style of its own; one in the other where there are several. */
const LOOKS = [
  ['italic', 'fo:font-style="italic"'], ['bold', 'fo:font-weight="bold"'], ['smallCaps', 'fo:font-variant="small-caps"'], ['underline', 'style:text-underline-style="solid"'],
  ['raised', 'style:text-position="super 58%"'], ['lowered', 'style:text-position="sub 58%"'], ['strike', 'style:text-line-through-style="solid"'], ['code', 'style:font-name="Courier New" fo:font-family="Courier New"'],
] as const; // prettier-ignore

/** The widest a picture is shown, in centimetres, and how many of its pixels one is. */
const WIDEST = 15;
const PIXELS = 96;

/**
 * A draft as an OpenDocument text (OpenDocument 1.3): headings, footnotes, captions that are pointed at, lists, tables, formulas as
 * MathML, and the list with its hanging indent. With citekeys, they stand in the text, and `{#refs}` in the list’s place.
 */
export function draftOdt(out: DraftOut, citing: Citing, maths: MathmlOf = () => undefined): OdtFiles {
  const laid = citing === 'keys' ? spelledOut(out) : laidOut(out);
  const formulas: string[] = [];
  const pictures: Record<string, string> = {};
  let notes = 0;

  const runs = (all: readonly Run[], more: readonly string[] = []): string =>
    writable([...all])
      .map((run) => {
        const has = run as unknown as Record<string, unknown>;
        return LOOKS.filter(([look]) => has[look] || more.includes(look)).reduce(
          (inside, [look]) => dress(`Look_${look}`, inside),
          said(run.text),
        );
      })
      .join('');
  const note = (inside: string) => {
    const number = ++notes;
    return `<text:note text:id="n${number}" text:note-class="footnote"><text:note-citation>${number}</text:note-citation><text:note-body><text:p text:style-name="Footnote">${inside}</text:p></text:note-body></text:note>`;
  };
  const formula = (tex: string, display: boolean): string => {
    const mathml = maths(tex, display);
    if (!mathml) return dress('Look_code', said(tex));
    formulas.push(mathml);
    return `<draw:frame draw:style-name="Formula" draw:name="Formula ${formulas.length}" text:anchor-type="as-char"><draw:object xlink:href="./Formula-${formulas.length}" xlink:type="simple" xlink:show="embed" xlink:actuate="onLoad"/></draw:frame>`;
  };
  const line = (stretches: readonly Stretch[]): string =>
    stretches
      .map((one): string => {
        switch (one.is) {
          case 'runs': {
            const inside = runs(one.runs, [...(one.code ? ['code'] : []), ...(one.strike ? ['strike'] : [])]);
            return one.href
              ? `<text:a xlink:type="simple" xlink:href="${escapeHtml(one.href)}">${inside}</text:a>`
              : inside;
          }
          case 'cite': {
            if (one.note !== undefined) return runs(one.author) + note(runs(one.runs));
            return [runs(one.author), runs(one.runs)].filter(Boolean).join(' ');
          }
          case 'note':
            return note(line(one.content));
          case 'tex':
            return formula(one.tex, false);
          case 'pointer':
            return one.name
              ? `<text:bookmark-ref text:reference-format="text" text:ref-name="${named(one.to)}">${said(one.name)}</text:bookmark-ref>`
              : '';
          case 'break':
            return '<text:line-break/>';
        }
      })
      .join('');
  const marked = (id: string, inside: string) =>
    id ? `<text:bookmark-start text:name="${named(id)}"/>${inside}<text:bookmark-end text:name="${named(id)}"/>` : inside; // prettier-ignore
  const paragraph = (style: string, inside: string) =>
    `<text:p text:style-name="${style}">${inside}</text:p>`;
  const captionOf = (id: string, name: string, caption: readonly Stretch[], behind = '') =>
    paragraph(
      'Caption',
      `${marked(id, dress('Look_bold', said(name)))}. ${line(caption)}${behind ? ` ${behind}` : ''}`,
    );
  const pictureOf = (id: string, { png, width, height }: PictureOut, alt: string) => {
    pictures[`Pictures/${named(id)}.png`] = png;
    const across = Math.min(WIDEST, (width / 2 / PIXELS) * 2.54);
    return paragraph(
      'Text_20_body',
      `<draw:frame draw:name="${named(id)}" text:anchor-type="as-char" svg:width="${across.toFixed(2)}cm" svg:height="${((across * height) / width).toFixed(2)}cm"><draw:image xlink:href="Pictures/${named(id)}.png" xlink:type="simple" xlink:show="embed" xlink:actuate="onLoad"/><svg:title>${escapeHtml(withoutControls(alt))}</svg:title></draw:frame>`,
    );
  };
  const block = (one: Laid, style = 'Text_20_body'): string => {
    switch (one.is) {
      case 'heading':
        return `<text:h text:style-name="Heading_20_${Math.min(6, one.level)}" text:outline-level="${Math.min(6, one.level)}">${marked(one.id, line(one.line))}</text:h>`;
      case 'paragraph':
        return paragraph(style, line(one.line));
      case 'quotation':
        return one.content.map((inner) => block(inner, 'Quotations')).join('');
      case 'list':
        return `<text:list text:style-name="${one.ordered ? 'Numbers' : 'Points'}">${one.items
          .map((item, i) => `<text:list-item${i === 0 && one.ordered && one.start !== 1 ? ` text:start-value="${one.start}"` : ''}>${item.map((inner) => block(inner)).join('')}</text:list-item>`)
          .join('')}</text:list>`;
      case 'table': {
        const wide = Math.max(1, ...one.rows.map((row) => row.reduce((sum, { across }) => sum + across, 0)));
        const rows = one.rows.map(
          (row) =>
            `<table:table-row>${row
              .map(({ head, across, down, content }) => {
                const spans = `${across > 1 ? ` table:number-columns-spanned="${across}"` : ''}${down > 1 ? ` table:number-rows-spanned="${down}"` : ''}`;
                const inside = content.map((inner) => block(inner, head ? 'Table_20_Heading' : 'Table_20_Contents')).join('') || paragraph('Table_20_Contents', '');
                return `<table:table-cell table:style-name="Cell"${spans}>${inside}</table:table-cell>${'<table:covered-table-cell/>'.repeat(across - 1)}`;
              })
              .join('')}</table:table-row>`,
        );
        const all = rows.join('');
        return `${captionOf(one.id, one.name, one.caption)}<table:table table:name="${escapeHtml(one.name || 'Table')}"><table:table-column table:number-columns-repeated="${wide}"/>${all}</table:table>${paragraph('Text_20_body', '')}`;
      }
      case 'figure':
        return `${one.picture ? pictureOf(one.id, one.picture, one.alt) : ''}${captionOf(one.id, one.name, one.caption, line(one.line))}`;
      case 'formula':
        return paragraph('Middle', formula(one.tex, true));
      case 'code':
        return one.text.split('\n').map((text) => paragraph('Preformatted_20_Text', said(text))).join('');
      case 'rule':
        return paragraph('Middle', '* * *');
    }
  };
  const entries = out.list?.entries ?? [];
  const list =
    entries.length === 0
      ? ''
      : `<text:h text:style-name="Heading_20_1" text:outline-level="1">References</text:h>${
          citing === 'keys'
            ? paragraph('Text_20_body', '{#refs}')
            : entries.map((e) => paragraph(out.list?.hangingIndent ? 'Hanging' : 'Text_20_body', runs(entryRuns(e)))).join('')
        }`;
  const text = paragraph('Title', said(out.title)) + laid.map((one) => block(one)).join('') + list;
  const content = `${HEAD}<office:document-content${NAMES} office:version="1.3"><office:automatic-styles>${automatic()}</office:automatic-styles><office:body><office:text>${text}</office:text></office:body></office:document-content>`;
  const texts: Record<string, string> = {
    mimetype: TYPE,
    'content.xml': content,
    'styles.xml': stylesOf(out.lang),
  };
  formulas.forEach((mathml, i) => (texts[`Formula-${i + 1}/content.xml`] = HEAD + mathml));
  const files = [
    ...['content.xml', 'styles.xml'].map((name) => [name, 'text/xml']),
    ...formulas.flatMap((_, i) => [[`Formula-${i + 1}/`, 'application/vnd.oasis.opendocument.formula'], [`Formula-${i + 1}/content.xml`, 'text/xml']]),
    ...Object.keys(pictures).map((name) => [name, 'image/png']),
  ]; // prettier-ignore
  texts['META-INF/manifest.xml'] =
    `${HEAD}<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:version="1.3" manifest:media-type="${TYPE}"/>${files.map(([name, type]) => `<manifest:file-entry manifest:full-path="${name!}" manifest:media-type="${type!}"/>`).join('')}</manifest:manifest>`;
  return { texts, pictures };
} // prettier-ignore

/** Styles of what stands in the text only: looks of letters, lists, cells. */
function automatic(): string {
  const looks = LOOKS.map(
    ([look, properties]) =>
      `<style:style style:name="Look_${look}" style:family="text"><style:text-properties ${properties}/></style:style>`,
  );
  const levels = (of: (level: number) => string) => Array.from({ length: 6 }, (_, i) => of(i + 1)).join('');
  const place = (level: number) =>
    `<style:list-level-properties text:list-level-position-and-space-mode="label-alignment"><style:list-level-label-alignment text:label-followed-by="listtab" fo:text-indent="-0.63cm" fo:margin-left="${(level * 1.27).toFixed(2)}cm"/></style:list-level-properties>`;
  return [
    ...looks,
    '<style:style style:name="Cell" style:family="table-cell"><style:table-cell-properties fo:padding="0.1cm" fo:border="0.5pt solid #888888"/></style:style>',
    '<style:style style:name="Formula" style:family="graphic"><style:graphic-properties style:vertical-pos="middle" style:vertical-rel="text"/></style:style>',
    `<text:list-style style:name="Points">${levels((level) => `<text:list-level-style-bullet text:level="${level}" text:bullet-char="•">${place(level)}</text:list-level-style-bullet>`)}</text:list-style>`,
    `<text:list-style style:name="Numbers">${levels((level) => `<text:list-level-style-number text:level="${level}" style:num-format="1" style:num-suffix=".">${place(level)}</text:list-level-style-number>`)}</text:list-style>`,
  ].join('');
} // prettier-ignore

/** The styles of a draft by their customary names, which another template can set otherwise. */
function stylesOf(lang: string): string {
  const [language, country] = lang.split('-');
  const of = (name: string, shown: string, parent: string, paragraph: string, text = '', more = '') =>
    `<style:style style:name="${name}" style:display-name="${shown}" style:family="paragraph"${parent ? ` style:parent-style-name="${parent}"` : ''}${more}><style:paragraph-properties ${paragraph}/>${text ? `<style:text-properties ${text}/>` : ''}</style:style>`;
  const styles = [
    of('Standard', 'Standard', '', 'fo:line-height="150%"', 'fo:font-family="Times New Roman" fo:font-size="12pt"'),
    of('Text_20_body', 'Text body', 'Standard', 'fo:margin-bottom="0.28cm"'),
    of('Title', 'Title', 'Standard', 'fo:margin-bottom="0.5cm"', 'fo:font-size="20pt" fo:font-weight="bold"'),
    ...Array.from({ length: 6 }, (_, i) => of(`Heading_20_${i + 1}`, `Heading ${i + 1}`, 'Standard', 'fo:margin-top="0.5cm" fo:margin-bottom="0.2cm" fo:keep-with-next="always"', `fo:font-size="${Math.max(12, 17 - 2 * i)}pt" fo:font-weight="bold"`, ` style:default-outline-level="${i + 1}"`)),
    of('Quotations', 'Quotations', 'Text_20_body', 'fo:margin-left="1.27cm" fo:margin-right="1.27cm" fo:text-indent="0cm" fo:margin-bottom="0.28cm"'),
    of('Footnote', 'Footnote', 'Standard', 'fo:line-height="100%"', 'fo:font-size="10pt"'),
    of('Caption', 'Caption', 'Standard', 'fo:margin-top="0.1cm" fo:margin-bottom="0.3cm"', 'fo:font-size="10pt"'),
    of('Hanging', 'Hanging indent', 'Text_20_body', 'fo:margin-left="1.27cm" fo:text-indent="-1.27cm" fo:margin-bottom="0.2cm"'),
    of('Middle', 'Set in the middle', 'Text_20_body', 'fo:text-align="center"'),
    of('Table_20_Contents', 'Table Contents', 'Standard', 'fo:line-height="100%"'),
    of('Table_20_Heading', 'Table Heading', 'Table_20_Contents', 'fo:line-height="100%"', 'fo:font-weight="bold"'),
    of('Preformatted_20_Text', 'Preformatted Text', 'Standard', 'fo:line-height="100%"', 'fo:font-family="Courier New" fo:font-size="10pt"'),
  ];
  return `${HEAD}<office:document-styles${NAMES} office:version="1.3"><office:styles><style:default-style style:family="paragraph"><style:text-properties fo:language="${escapeHtml(language ?? 'en')}"${country ? ` fo:country="${escapeHtml(country)}"` : ''}/></style:default-style>${styles.join('')}</office:styles></office:document-styles>`;
} // prettier-ignore
