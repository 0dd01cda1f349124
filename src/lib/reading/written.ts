import { posix } from 'node:path';
import { strFromU8, unzipSync, type UnzipFileInfo } from 'fflate';
import { JSDOM } from 'jsdom';
import { collector, type Candidate } from '../core/capture';
import { findIsbn } from '../core/source';
import { escapeHtml, squash } from '../core/text';
import { Unreadable } from './failure';
import { MOST_FILES } from './packed';
import { checkDepth, settlePart } from './page';
import { sniffBytes } from './sniff';
import { textOfBytes } from './text';

/** Documents that are read as running text, by what they are written in. */
export const WRITTEN = ['epub', 'docx', 'markdown', 'text'] as const;
export type Written = (typeof WRITTEN)[number];

/** A document in running text as it is read: `data-picture-n` in `html` says where each of its pictures stands. */
export interface ReadWritten {
  html: string;
  text: string;
  title: string;
  candidates: Candidate[];
  pictures: Uint8Array[];
}

/** Most bytes of one file of a packed document and of all of them, unpacked, and most pictures that are kept. */
const LARGEST = 60_000_000;
const ALL = 250_000_000;
const MOST_PICTURES = 500;
/** Longest running text that is set for reading, in characters of its markup: a book of some thousand pages. */
const LONGEST = 12_000_000;

/** Unpacks a document. What it says of its sizes is held against bounds before anything is unpacked. */
function unpacked(bytes: Uint8Array, wanted: (name: string) => boolean): Map<string, Uint8Array> {
  let [files, all] = [0, 0];
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    files++;
    if (files > MOST_FILES || originalSize > LARGEST || (all += originalSize) > ALL)
      throw new Unreadable('The document unpacks to more than is opened here. Save a smaller one.');
    return wanted(name);
  };
  try {
    return new Map(Object.entries(unzipSync(bytes, { filter })));
  } catch (error) {
    if (error instanceof Unreadable) throw error;
    throw new Unreadable(`The document is damaged and cannot be unpacked (${(error as Error).message}).`);
  }
}

function xmlOf(bytes: Uint8Array, what: string): Document {
  checkDepth(bytes);
  try {
    return new JSDOM(strFromU8(bytes), { contentType: 'application/xml' }).window.document;
  } catch (error) {
    throw new Unreadable(`${what} cannot be read (${(error as Error).message.split('\n')[0]}).`);
  }
}

const DC = 'http://purl.org/dc/elements/1.1/';
const saidBy = (document: Document, name: string): string[] =>
  [...document.getElementsByTagNameNS(DC, name)].map((e) => squash(e.textContent ?? '')).filter(Boolean);

/** What an EPUB says of itself (EPUB 3.3, 5.5): Dublin Core, with roles of creators where it says them. */
function ofPackage(opf: Document): Candidate[] {
  const c = collector('document');
  const note = 'the package of the EPUB';
  const roleOf = (element: Element): string =>
    element.getAttribute('opf:role') ??
    [...opf.getElementsByTagName('meta')].find(
      (m) => m.getAttribute('property') === 'role' && m.getAttribute('refines') === `#${element.id}`,
    )?.textContent ??
    '';
  const people = (name: string, roles: RegExp) =>
    [...opf.getElementsByTagNameNS(DC, name)]
      .filter((e) => roles.test(roleOf(e)))
      .map((e) => squash(e.textContent ?? ''));
  c.type('book', note);
  c.text('title', saidBy(opf, 'title')[0], note);
  // Roles of the MARC relator codes: author where none is said.
  c.names('author', people('creator', /^(?:aut)?$/), note);
  c.names('editor', [...people('creator', /^edt$/), ...people('contributor', /^edt$/)], note);
  c.names('translator', [...people('creator', /^trl$/), ...people('contributor', /^trl$/)], note);
  c.text('publisher', saidBy(opf, 'publisher')[0], note);
  c.date('issued', saidBy(opf, 'date')[0]?.slice(0, 10), note);
  c.text('language', saidBy(opf, 'language')[0], note);
  const isbn = saidBy(opf, 'identifier').map(findIsbn).find(Boolean);
  c.text('ISBN', isbn, note);
  return c.found;
}

/** Pictures that are taken over from a packed document, each once, with their numbers. */
function gathering(files: ReadonlyMap<string, Uint8Array>) {
  const pictures: Uint8Array[] = [];
  const numbers = new Map<string, number>();
  return {
    pictures,
    /** The number of a picture; nothing for one that is not there or is none that is shown. */
    numberOf(name: string): number | undefined {
      const known = numbers.get(name);
      if (known !== undefined) return known;
      const bytes = files.get(name);
      if (!bytes || pictures.length >= MOST_PICTURES) return undefined;
      if (!/^image\/(?:png|jpeg|webp|gif)$/.test(sniffBytes(bytes))) return undefined;
      numbers.set(name, pictures.length);
      pictures.push(bytes);
      return pictures.length - 1;
    },
  };
}

/** A relative address in a packed document as the name of a file in it, and what is behind its number sign. */
function within(from: string, href: string): { name: string; fragment: string } {
  const [path = '', fragment = ''] = href.split('#');
  let plain = path;
  try {
    plain = decodeURIComponent(path);
  } catch {
    // What is no escape is a name as it stands.
  }
  return { name: plain ? posix.normalize(posix.join(posix.dirname(from), plain)) : from, fragment };
}

/** What an EPUB calls its parts, as roles (EPUB Structural Semantics Vocabulary; DPUB-ARIA 1.1). */
const ROLES = [
  ['pagebreak', 'doc-pagebreak'],
  ['noteref', 'doc-noteref'],
] as const;

/** The chapters of an EPUB in their order, in one document: links between them lead within it. */
function chaptersOf(files: ReadonlyMap<string, Uint8Array>, names: readonly string[]) {
  const dom = new JSDOM('<!doctype html><html><body><main></main></body></html>');
  const { document } = dom.window;
  const main = document.querySelector('main')!;
  const { pictures, numberOf } = gathering(files);
  const nth = new Map(names.map((name, i) => [name, i]));
  let length = 0;
  for (const [i, name] of names.entries()) {
    const bytes = files.get(name);
    if (!bytes) continue;
    length += bytes.length;
    if (length > LONGEST)
      throw new Unreadable('The book is longer than is opened here. Split it and drop its parts.');
    checkDepth(bytes);
    let chapter: JSDOM;
    try {
      chapter = new JSDOM(Buffer.from(bytes), { contentType: 'application/xhtml+xml' });
    } catch {
      // A chapter that is no XML is read as browsers read pages.
      chapter = new JSDOM(Buffer.from(bytes), { contentType: 'text/html; charset=utf-8' });
    }
    const section = document.createElement('section');
    section.id = `c${i}`;
    const { body } = chapter.window.document;
    for (const element of body?.querySelectorAll('*') ?? []) {
      if (element.id) element.id = `c${i}-${element.id}`;
      const type = ROLES.find(([of]) => element.getAttribute('epub:type')?.split(/\s+/).includes(of))?.[1];
      if (type && !element.hasAttribute('role')) element.setAttribute('role', type);
      if (element.localName === 'a' && element.hasAttribute('href')) {
        const href = element.getAttribute('href')!;
        if (/^[a-z][a-z\d+.-]*:/i.test(href)) continue;
        const to = within(name, href);
        const chapterOf = nth.get(to.name);
        if (chapterOf === undefined) element.removeAttribute('href');
        else element.setAttribute('href', to.fragment ? `#c${chapterOf}-${to.fragment}` : `#c${chapterOf}`);
      }
      if (element.localName === 'img' || element.localName === 'image') {
        const href =
          element.getAttribute('src') ??
          element.getAttribute('xlink:href') ??
          element.getAttribute('href') ??
          '';
        const number = numberOf(within(name, href).name);
        const img = chapter.window.document.createElementNS('http://www.w3.org/1999/xhtml', 'img');
        img.setAttribute('alt', element.getAttribute('alt') ?? '');
        if (number !== undefined) img.setAttribute('data-picture-n', String(number));
        // A picture in a drawing stands in its place: the drawing itself is not shown.
        (element.closest('svg') ?? element).replaceWith(img);
      }
    }
    for (const child of body?.childNodes ?? []) section.append(document.importNode(child, true));
    main.append(section);
    chapter.window.close();
  }
  return { dom, main, pictures };
}

/** Reads an EPUB: its chapters in their reading order, with its pictures and the printed pages it says (EPUB 3.3). */
async function readEpub(bytes: Uint8Array): Promise<ReadWritten> {
  const files = unpacked(bytes, () => true);
  const container = files.get('META-INF/container.xml');
  if (!container) throw new Unreadable('The EPUB has no container file.');
  if (files.has('META-INF/encryption.xml') && files.has('META-INF/rights.xml'))
    throw new Unreadable('The EPUB is locked. Only books without a lock can be opened.');
  const { Container, Packaging } = await import('@likecoin/epub-ts/node');
  const { packagePath = '' } = new Container(xmlOf(container, 'The container of the EPUB'));
  const opfBytes = files.get(packagePath);
  if (!opfBytes) throw new Unreadable(`The EPUB does not have its package file, “${packagePath}”.`);
  const opf = xmlOf(opfBytes, 'The package of the EPUB');
  const { manifest, spine } = new Packaging(opf);
  const names = spine.flatMap(({ idref }) => {
    const item = Object.hasOwn(manifest, idref) ? manifest[idref] : undefined;
    return item?.href ? [within(packagePath, item.href).name] : [];
  });
  if (names.length === 0) throw new Unreadable('The EPUB says nothing of what is in it and in which order.');
  const { dom, main, pictures } = chaptersOf(files, names);
  const { html, text } = settlePart(dom, main, 'about:blank');
  dom.window.close();
  const candidates = ofPackage(opf);
  return { html, text, title: saidBy(opf, 'title')[0] ?? '', candidates, pictures };
}

/** Markup that others made of a document, as it is read. */
function setMarkup(
  markup: string,
  candidates: Candidate[],
  title: string,
  pictures: Uint8Array[] = [],
): ReadWritten {
  if (markup.length > LONGEST)
    throw new Unreadable('The document is longer than is opened here. Split it and drop its parts.');
  checkDepth(Buffer.from(markup));
  const dom = new JSDOM(`<!doctype html><html><body><main>${markup}</main></body></html>`);
  const main = dom.window.document.querySelector('main')!;
  const { html, text } = settlePart(dom, main, 'about:blank');
  const heading = squash(main.querySelector('h1, h2')?.textContent ?? '');
  dom.window.close();
  return { html, text, title: title || heading, candidates, pictures };
}

/** Reads a .docx (ECMA-376): headings, lists, tables, notes, pictures; what it says of itself in its core properties. */
async function readDocx(bytes: Uint8Array): Promise<ReadWritten> {
  const parts = unpacked(bytes, (name) => name === 'docProps/core.xml');
  const { default: mammoth } = await import('mammoth');
  const pictures: Uint8Array[] = [];
  const convertImage = mammoth.images.imgElement(async (image) => {
    const picture = new Uint8Array(await image.readAsArrayBuffer());
    const shown =
      /^image\/(?:png|jpeg|webp|gif)$/.test(sniffBytes(picture)) && pictures.length < MOST_PICTURES;
    if (!shown) return { src: '' };
    pictures.push(picture);
    return { src: '', 'data-picture-n': String(pictures.length - 1) };
  });
  const styleMap = ["p[style-name='Title'] => h1:fresh", "p[style-name='Subtitle'] => h2:fresh"];
  const made = await mammoth
    .convertToHtml({ buffer: Buffer.from(bytes) }, { convertImage, styleMap })
    .catch(() => {
      throw new Unreadable('The document is damaged and cannot be read.');
    });
  const c = collector('document');
  const note = 'the properties of the document';
  const core = parts.get('docProps/core.xml');
  const said = core ? xmlOf(core, 'The properties of the document') : undefined;
  const title = (said && saidBy(said, 'title')[0]) ?? '';
  const read = setMarkup(made.value, c.found, title, pictures);
  c.text('title', title, note);
  if (said) c.names('author', saidBy(said, 'creator'), note);
  return read;
}

/** The lines before a Markdown text that say what it is, as several writers of Markdown have them; common practice. */
const FRONT = /^---\r?\n([^]{0,20000}?)\r?\n(?:---|\.\.\.)\r?\n/;

/** Reads Markdown (CommonMark 0.31, with tables, and footnotes as is common practice). */
async function readMarkdown(source: string): Promise<ReadWritten> {
  const [{ default: MarkdownIt }, { default: footnotes }] = await Promise.all([
    import('markdown-it'),
    import('markdown-it-footnote'),
  ]);
  const front = FRONT.exec(source);
  const c = collector('document');
  const value = (key: string) =>
    new RegExp(`^${key}:[ \\t]*(["']?)(.{1,500})\\1[ \\t]*$`, 'mi').exec(front?.[1] ?? '')?.[2];
  c.text('title', value('title'), 'the head of the text');
  c.names('author', [value('author') ?? ''].filter(Boolean), 'the head of the text');
  c.date('issued', value('date'), 'the head of the text');
  const markup = new MarkdownIt({ html: true, linkify: false })
    .use(footnotes)
    .render(source.slice(front?.[0].length ?? 0));
  const read = setMarkup(markup, c.found, value('title') ?? '');
  if (!value('title') && read.title) c.text('title', read.title, 'the first heading');
  return read;
}

/** How long lines are that a program broke rather than a writer, on the average, in characters. */
const BROKEN = 45;

/** Reads plain text: paragraphs apart by empty lines; lines a program broke are joined, those of a poem or a list stay. */
function readText(source: string): ReadWritten {
  const paragraphs = source.replace(/\r\n?/g, '\n').split(/\n[ \t]*(?:\n[ \t]*)+/);
  const markup = paragraphs
    .filter((p) => p.trim())
    .map((paragraph) => {
      const lines = paragraph
        .trim()
        .split('\n')
        .map((line) => escapeHtml(line.trim()));
      const body = lines.slice(0, -1);
      const broken = body.length > 0 && body.reduce((sum, l) => sum + l.length, 0) / body.length >= BROKEN;
      return `<p>${lines.join(broken ? ' ' : '<br>')}</p>`;
    });
  return setMarkup(markup.join('\n'), [], '');
}

/** Reads a document in running text. Throws `Unreadable` with words for the person. */
export function readWritten(bytes: Uint8Array, as: Written): Promise<ReadWritten> {
  switch (as) {
    case 'epub':
      return readEpub(bytes);
    case 'docx':
      return readDocx(bytes);
    case 'markdown':
      return readMarkdown(textOfBytes(bytes));
    case 'text':
      return Promise.resolve(readText(textOfBytes(bytes)));
  }
}
