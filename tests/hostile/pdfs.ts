/** PDFs that are damaged, or built to take time or memory (ISO 32000-1 for what each part should have been). */
import { deflateSync } from 'node:zlib';

type Part = string | Buffer;
const joined = (parts: Part[]) =>
  Buffer.concat(parts.map((p) => (typeof p === 'string' ? Buffer.from(p, 'latin1') : p)));

const stream = (dict: string, data: Part): Buffer => {
  const bytes = typeof data === 'string' ? Buffer.from(data, 'latin1') : data;
  return joined([`<< ${dict} /Length ${bytes.length} >>\nstream\n`, bytes, '\nendstream']);
};
const packed = (data: Part, dict = '') =>
  stream(
    `${dict} /Filter /FlateDecode`,
    deflateSync(typeof data === 'string' ? Buffer.from(data, 'latin1') : data),
  );

/** A file of numbered objects; the first is the catalogue. `trailer` is what stands in the trailer besides. */
function file(
  objects: Record<number, Part>,
  { trailer = '', prev }: { trailer?: string; prev?: 'itself' } = {},
) {
  const parts: Part[] = ['%PDF-1.7\n'];
  let at = 9;
  const offsets = new Map<number, number>();
  for (const [n, body] of Object.entries(objects)) {
    const part = joined([`${n} 0 obj\n`, body, '\nendobj\n']);
    offsets.set(Number(n), at);
    parts.push(part);
    at += part.length;
  }
  const size = Math.max(...offsets.keys()) + 1;
  const lines = Array.from({ length: size }, (_, n) =>
    n === 0 || !offsets.has(n)
      ? '0000000000 65535 f \n'
      : `${String(offsets.get(n)).padStart(10, '0')} 00000 n \n`,
  );
  parts.push(
    `xref\n0 ${size}\n${lines.join('')}trailer\n<< /Size ${size} /Root 1 0 R ${prev ? `/Prev ${at}` : ''} ${trailer} >>\nstartxref\n${at}\n%%EOF\n`,
  );
  return joined(parts);
}

const FONT = '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>';
const WORDS = 'BT /F1 12 Tf 72 700 Td (Grain was ground with the tide.) Tj ET';

interface PageParts {
  box?: string;
  page?: string;
  resources?: string;
  content?: Part;
  catalogue?: string;
  pages?: string;
  more?: Record<number, Part>;
  trailer?: string;
}

/** A file of one page, of which some parts are other than they should be. */
const onePage = ({
  box = '[0 0 595 842]',
  page = '',
  resources = '',
  content = packed(WORDS),
  catalogue = '',
  pages,
  more = {},
  trailer,
}: PageParts = {}) =>
  file(
    {
      1: `<< /Type /Catalog /Pages 2 0 R ${catalogue} >>`,
      2: pages ?? '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      3: `<< /Type /Page /Parent 2 0 R ${box && `/MediaBox ${box}`} ${page} /Resources << /Font << /F1 5 0 R >> ${resources} >> /Contents 4 0 R >>`,
      4: content,
      5: FONT,
      ...more,
    },
    trailer === undefined ? {} : { trailer },
  );

const image = (dict: string, data: Part = packed('', '')) =>
  onePage({
    resources: '/XObject << /I 6 0 R >>',
    content: packed('500 0 0 700 40 40 cm /I Do'),
    more: {
      6:
        typeof data === 'string'
          ? stream(`/Type /XObject /Subtype /Image ${dict}`, data)
          : stream(`/Type /XObject /Subtype /Image ${dict}`, data),
    },
  });
const grey = '/ColorSpace /DeviceGray /BitsPerComponent 8';
const bomb = (size: number, with_ = ' ') => deflateSync(Buffer.alloc(size, with_), { level: 9 });

/** Forms, each of which draws the next ten times. */
function nested(levels: number): Record<number, Part> {
  const forms: Record<number, Part> = {};
  for (let i = 0; i < levels; i++) {
    const next = 10 + i + 1;
    const inner = i + 1 < levels ? '/X Do '.repeat(10) : '0 0 1 1 re f ';
    forms[10 + i] = stream(
      `/Type /XObject /Subtype /Form /BBox [0 0 600 800] /Resources << /XObject << /X ${next} 0 R >> >>`,
      inner,
    );
  }
  return forms;
}

/** A sound one. */
export const soundPdf = (): Buffer => onePage();

/** Fifty-five and some more, by what is wrong with them. */
export function hostilePdfs(): Record<string, Buffer> {
  const sound = onePage();
  const cut = (part: number) => sound.subarray(0, Math.round(sound.length * part));
  return {
    'only its header': Buffer.from('%PDF-1.7\n'),
    'cut after a quarter': cut(0.25),
    'cut in the middle': cut(0.5),
    'cut before its table': cut(0.8),
    'noise behind the header': joined([
      '%PDF-1.7\n',
      Buffer.from(Array.from({ length: 4_000 }, (_, i) => (i * 7_919) % 256)),
    ]),
    'a table that points to itself': file(
      { 1: '<< /Type /Catalog /Pages 2 0 R >>', 2: '<< /Type /Pages /Kids [] /Count 0 >>' },
      { prev: 'itself' },
    ),
    'no root': joined([
      '%PDF-1.7\nxref\n0 1\n0000000000 65535 f \ntrailer\n<< /Size 1 >>\nstartxref\n9\n%%EOF',
    ]),
    'a start that lies far outside': joined([
      sound.subarray(0, sound.lastIndexOf('startxref')),
      'startxref\n99999999999\n%%EOF',
    ]),
    'a root that is a number': file({ 1: '42' }),
    'no pages': file({ 1: '<< /Type /Catalog >>' }),
    'no page among the pages': file({
      1: '<< /Type /Catalog /Pages 2 0 R >>',
      2: '<< /Type /Pages /Kids [] /Count 0 >>',
    }),
    'pages that are their own parent': onePage({ pages: '<< /Type /Pages /Kids [2 0 R] /Count 1 >>' }),
    'two nodes of pages that hold each other': onePage({
      pages: '<< /Type /Pages /Kids [7 0 R] /Count 1 >>',
      more: { 7: '<< /Type /Pages /Parent 2 0 R /Kids [2 0 R] /Count 1 >>' },
    }),
    'a count below nothing': onePage({ pages: '<< /Type /Pages /Kids [3 0 R] /Count -5 >>' }),
    'a count of a thousand million': onePage({ pages: '<< /Type /Pages /Kids [3 0 R] /Count 1000000000 >>' }),
    'three thousand times the same page': onePage({
      pages: `<< /Type /Pages /Kids [${'3 0 R '.repeat(3_000)}] /Count 3000 >>`,
    }),
    'a page without a size': onePage({ box: '' }),
    'a page of no size': onePage({ box: '[0 0 0 0]' }),
    'a page whose size is words': onePage({ box: '[(a) (b) (c) (d)]' }),
    'a page of one by ten million': onePage({ box: '[0 0 1 10000000]' }),
    'a page of ten million by one': onePage({ box: '[0 0 10000000 1]' }),
    'a page of negative size': onePage({ box: '[595 842 0 0]' }),
    'a page whose unit is a mile': onePage({ page: '/UserUnit 4561920' }),
    'a page turned by 45 degrees': onePage({ page: '/Rotate 45' }),
    'a page turned a thousand million times': onePage({ page: '/Rotate 90000000000' }),
    'content that is not there': onePage({ more: { 4: 'null' } }),
    'content that is itself': onePage({ more: { 4: '4 0 R' } }),
    'ten thousand times the same content': onePage({
      more: { 4: `[${'6 0 R '.repeat(10_000)}]`, 6: packed(WORDS) },
    }),
    'content that unpacks to a gigabyte': onePage({
      content: stream('/Filter /FlateDecode', bomb(1_000_000_000)),
    }),
    'content of fifty million operators': onePage({
      content: stream('/Filter /FlateDecode', bomb(100_000_000, 'q ')),
    }),
    'content packed in itself two hundred times': onePage({
      content: stream(`/Filter [${'/FlateDecode '.repeat(200)}]`, bomb(10_000)),
    }),
    'content in a filter there is not': onePage({ content: stream('/Filter /Brotli', 'abc') }),
    'content in broken ASCII-85': onePage({ content: stream('/Filter /ASCII85Decode', '{{{{{{zzzz~') }),
    'content in broken LZW': onePage({ content: stream('/Filter /LZWDecode', Buffer.alloc(500, 0xff)) }),
    'content of runs': onePage({
      content: stream(
        '/Filter [/FlateDecode /RunLengthDecode]',
        deflateSync(Buffer.alloc(4_000_000, Buffer.from([0x81, 0x20]))),
      ),
    }),
    'a picture of one by sixty million': image(
      `/Width 1 /Height 60000000 ${grey} /Filter /FlateDecode`,
      bomb(60_000_000),
    ),
    'a picture of sixty million by one': image(
      `/Width 60000000 /Height 1 ${grey} /Filter /FlateDecode`,
      bomb(60_000_000),
    ),
    'a picture of seven thousand squared without data': image(`/Width 7000 /Height 7000 ${grey}`, 'x'),
    'a picture of twenty thousand squared': image(`/Width 20000 /Height 20000 ${grey}`, 'x'),
    'a picture whose mask is itself': image(`/Width 4 /Height 4 ${grey} /SMask 6 0 R`, 'abcdefghijklmnop'),
    'a picture in broken JPEG': image(
      `/Width 300 /Height 300 ${grey} /Filter /DCTDecode`,
      Buffer.from('ffd8ffe000104a464946', 'hex'),
    ),
    'a picture in broken JPEG 2000': image(
      `/Width 300 /Height 300 ${grey} /Filter /JPXDecode`,
      Buffer.from('0000000c6a5020200d0a870a', 'hex'),
    ),
    'a picture in broken JBIG2': image(
      `/Width 300 /Height 300 /ImageMask true /Filter /JBIG2Decode`,
      Buffer.alloc(300, 0x31),
    ),
    'a fax of a hundred million columns': image(
      `/Width 300 /Height 300 /ImageMask true /Filter /CCITTFaxDecode /DecodeParms << /K -1 /Columns 100000000 /Rows 100000000 >>`,
      Buffer.alloc(300, 0),
    ),
    'a picture of negative size': image(`/Width -5 /Height -5 ${grey}`, 'x'),
    'a picture in the text, of a million rows': onePage({
      content: packed(`BI /W 30000 /H 30000 /BPC 8 /CS /G ID x EI`),
    }),
    'a form that draws itself': onePage({
      resources: '/XObject << /X 6 0 R >>',
      content: packed('/X Do'),
      more: {
        6: stream(
          '/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /X 6 0 R >> >>',
          '/X Do',
        ),
      },
    }),
    'forms that draw ten each, nine deep': onePage({
      resources: '/XObject << /X 10 0 R >>',
      content: packed('/X Do'),
      more: nested(9),
    }),
    'a pattern of steps too small to see': onePage({
      resources: '/Pattern << /P 6 0 R >>',
      content: packed('/Pattern cs /P scn 0 0 595 842 re f'),
      more: {
        6: stream(
          '/Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 1 1] /XStep 0.00001 /YStep 0.00001 /Resources << >>',
          '0 0 1 1 re f',
        ),
      },
    }),
    'a shading between nowhere': onePage({
      resources:
        '/Shading << /S << /ShadingType 1 /ColorSpace /DeviceRGB /Function << /FunctionType 4 /Domain [0 1 0 1] /Range [0 1 0 1 0 1] >> >> >>',
      content: packed('/S sh'),
    }),
    'dashes too small to see': onePage({
      content: packed('[0.0000001 0.0000001] 0 d 1 w 0 0 m 595 842 l S'),
    }),
    'a line of enormous width': onePage({ content: packed('99999999999999999999 w 0 0 m 1e38 1e38 l S') }),
    'a million saved states': onePage({ content: packed('q '.repeat(1_000_000)) }),
    'a megabyte in one string': onePage({ content: packed(`BT /F1 12 Tf (${'a'.repeat(1_000_000)}) Tj ET`) }),
    'a string that does not end': onePage({ content: packed(`BT /F1 12 Tf (${'('.repeat(200_000)}`) }),
    'arrays a hundred thousand deep': onePage({
      more: { 6: '['.repeat(100_000) },
      catalogue: '/PageLabels 6 0 R',
    }),
    'dictionaries a hundred thousand deep': onePage({
      more: { 6: '<</A '.repeat(100_000) },
      catalogue: '/Outlines 6 0 R',
    }),
    'a font whose letters draw themselves': onePage({
      more: {
        5: '<< /Type /Font /Subtype /Type3 /FontBBox [0 0 1 1] /FontMatrix [1 0 0 1 0 0] /FirstChar 71 /LastChar 71 /Widths [1] /Encoding << /Differences [71 /G] >> /CharProcs << /G 6 0 R >> /Resources << /Font << /F1 5 0 R >> >> >>',
        6: stream('', '1 0 d0 BT /F1 1 Tf (G) Tj ET'),
      },
    }),
    'a font that maps letters to a gigabyte': onePage({
      more: {
        5: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /ToUnicode 6 0 R >>',
        6: packed(`begincmap 1 beginbfrange <0000> <FFFF> <${'0041'.repeat(500)}> endbfrange endcmap`),
      },
    }),
    'labels of pages that hold themselves': onePage({
      catalogue: '/PageLabels 6 0 R',
      more: { 6: '<< /Kids [6 0 R] >>' },
    }),
    'labels of pages counted to a quintillion': onePage({
      catalogue: '/PageLabels << /Nums [0 << /S /r /St 999999999 >>] >>',
    }),
    'data about itself that declares entities': onePage({
      catalogue: '/Metadata 6 0 R',
      more: {
        6: stream(
          '/Type /Metadata /Subtype /XML',
          '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><x:xmpmeta xmlns:x="adobe:ns:meta/">&b;</x:xmpmeta>',
        ),
      },
    }),
    'locked by a lock nobody knows': onePage({
      trailer: '/Encrypt << /Filter /Nobody /V 99 /R 99 >> /ID [<00> <00>]',
    }),
    'a script that runs when it is opened': onePage({
      catalogue: '/OpenAction << /S /JavaScript /JS (while(true){}) >>',
    }),
    'an object stream of a thousand million': file({
      1: '<< /Type /Catalog /Pages 2 0 R >>',
      2: stream('/Type /ObjStm /N 1000000000 /First 5 /Extends 2 0 R', '1 0 2 0'),
    }),
  };
}
