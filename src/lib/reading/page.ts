import DOMPurify from 'dompurify';
import { JSDOM } from 'jsdom';
import { readDocument, type PageReading } from '../core/capture';
import { textOf } from '../core/passages';
import { withoutPassword } from '../core/source';
import { nfc, withoutControls } from '../core/text';
import { Unreadable } from './failure';
import { unmarkedUtf16 } from './sniff';
const TAGS =
  'a abbr address article aside b bdi bdo blockquote br caption cite code col colgroup dd del details dfn div dl dt em figcaption figure footer h1 h2 h3 h4 h5 h6 header hr i img ins kbd li main mark ol p pre q rp rt ruby s samp section small span strong sub summary sup table tbody td tfoot th thead time tr u ul var wbr'.split(
    ' ',
  );
/** Formulas (MathML Core, 3), without what lets other markup into them. */
const FORMULAS =
  'math mfrac mi mmultiscripts mn mo mover mpadded mprescripts mroot mrow ms mspace msqrt mstyle msub msubsup msup mtable mtd mtext mtr munder munderover semantics'.split(
    ' ',
  );
const MATHML = 'http://www.w3.org/1998/Math/MathML';
const ATTRIBUTES = [
  'href',
  'title',
  'lang',
  'dir',
  'colspan',
  'rowspan',
  'alt',
  'datetime',
  'start',
  'id',
  'scope',
  'display',
  'mathvariant',
  'columnalign',
  'stretchy',
];

/** Most pictures of a page that are kept. */
const MOST_PICTURES = 60;
/** Widest picture that is chosen of several widths, in pixels. */
const WIDEST = 2_000;

/** The candidates of a `srcset` with their widths (HTML, 4.8.4.2.1); a density counts as a thousand pixels. */
function widthsOf(srcset: string): { address: string; width: number }[] {
  return [...srcset.slice(0, 20_000).matchAll(/([^\s,]\S*[^\s,])(?:\s+([\d.]{1,8})([wx]))?\s*(?:,|$)/g)].map(
    ([, address, n, unit]) => ({ address: address!, width: Number(n ?? 1) * (unit === 'w' ? 1 : 1_000) }),
  );
}

/** Where the picture of an element is, the widest there is within bounds; nothing where it has no address of its own. */
function pictureAddress(image: Element, page: string): string | undefined {
  const picture = image.parentElement?.tagName === 'PICTURE' ? image.parentElement : undefined;
  const sets = [image, ...(picture?.querySelectorAll('source') ?? [])].flatMap((e) =>
    widthsOf(e.getAttribute('srcset') ?? e.getAttribute('data-srcset') ?? ''),
  );
  const [widest] = sets.filter(({ width }) => width <= WIDEST).sort((a, b) => b.width - a.width);
  const plain = image.getAttribute('src')?.trim() ?? '';
  const late = image.getAttribute('data-src') ?? image.getAttribute('data-original') ?? '';
  const given = widest?.address ?? (late || plain);
  if (!given || !URL.canParse(given, page)) return undefined;
  const { protocol, href } = new URL(given, page);
  return /^https?:$/.test(protocol) ? withoutPassword(href) : undefined;
}

/** The last two labels of a host's name: what most sites share between their pages and their pictures. */
const siteOf = (address: string): string => new URL(address).hostname.split('.').slice(-2).join('.');

/**
 * Whether a picture is of what the page says: one in a figure, or of the page's own site. Others are counters and
 * advertisements as often as not, and asking for them would tell others what is read.
 */
const ofThePage = (image: Element, address: string, page: string): boolean =>
  image.closest('figure') !== null || siteOf(address) === siteOf(page);

/** A dot that is there to be asked for. */
const isDot = (image: Element): boolean =>
  ['width', 'height'].some((side) => /^[0-3](?:px)?$/.test(image.getAttribute(side)?.trim() ?? ''));

/** Numbers the pictures of a part of a page that are to be kept, and gives their addresses. */
function numberPictures(part: Element, page: string): string[] {
  for (const numbered of part.querySelectorAll('[data-picture-n]'))
    numbered.removeAttribute('data-picture-n');
  const addresses: string[] = [];
  for (const image of part.querySelectorAll('img')) {
    if (addresses.length >= MOST_PICTURES) break;
    const from = isDot(image) ? undefined : pictureAddress(image, page);
    if (!from || !ofThePage(image, from, page)) continue;
    image.setAttribute('data-picture-n', String(addresses.length));
    addresses.push(from);
  }
  return addresses;
}

/** Takes out of formulas whatever is no part of them, but for its words. */
function settleFormulas(root: Element): void {
  for (const inside of root.querySelectorAll('math *'))
    if (inside.namespaceURI !== MATHML) inside.replaceWith(inside.textContent ?? '');
}

/** The part of a page worth keeping: what it marks as main when that holds most of the text, else the whole body. */
function mainPart(document: Document): Element {
  for (const gone of document.querySelectorAll(
    'nav, form, dialog, [role="navigation"], [role="search"], [hidden]',
  ))
    gone.remove();
  const whole = document.body.textContent?.length ?? 0;
  for (const selector of ['main', '[role="main"]', 'article']) {
    const parts = document.querySelectorAll(selector);
    if (parts.length === 1 && (parts[0]!.textContent?.length ?? 0) > whole * 0.4) return parts[0]!;
  }
  return document.body;
}

/** White space as it shows: runs become one space, blank text between blocks goes, `pre` stays as it is. */
function settleSpace(root: Element): void {
  const view = root.ownerDocument.defaultView!;
  const walker = root.ownerDocument.createTreeWalker(root, view.NodeFilter.SHOW_TEXT);
  const texts: Text[] = [];
  while (walker.nextNode()) texts.push(walker.currentNode as Text);
  for (const text of texts) {
    const data = nfc(withoutControls(text.data));
    if (text.parentElement?.closest('pre')) text.data = data;
    else text.data = data.replace(/[ \t\n\r\f]+/g, ' ');
    const blank = text.data.trim() === '';
    const beside = [text.previousSibling, text.nextSibling];
    if (
      blank &&
      beside.every(
        (n) =>
          !n ||
          /^(?:P|DIV|H\d|UL|OL|LI|TABLE|T\w+|TR|SECTION|ARTICLE|HEADER|FOOTER|BLOCKQUOTE|FIGURE|DL|DT|DD|HR|MAIN|ASIDE)$/.test(
            n.nodeName,
          ),
      )
    )
      text.remove();
  }
}

/** A page to read. `contentType` is its header, for the character set; `linkHeader` its Link header. */
export interface PageGiven {
  bytes: Uint8Array;
  contentType: string;
  address: string;
  linkHeader?: string;
}

/** What a page says and the page itself, sanitised for reading. `text` is the text passages are anchored on. */
export interface ReadPage extends PageReading {
  html: string;
  text: string;
  title: string;
  lang: string;
  /** Addresses of its pictures, in order; `data-picture-n` in `html` says where each stands, counted from 0. */
  pictures: string[];
}

const isUtf8 = (bytes: Uint8Array): boolean => {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
};

const isCharset = (label: string): boolean => {
  try {
    return Boolean(new TextDecoder(label));
  } catch {
    return false;
  }
};

/**
 * The content type a page is parsed by. It is HTML whatever it was sent as. Where neither the header nor the page says the
 * character set, it is UTF-8 when the bytes are that, as they are nearly always, and else what HTML falls back to.
 */
function typeOfPage(bytes: Uint8Array, contentType: string): string {
  const told = /charset\s*=\s*"?([\w.:-]+)/i.exec(contentType)?.[1];
  const unmarked = unmarkedUtf16(bytes);
  const charset = unmarked ?? (told && isCharset(told) ? told : undefined);
  if (charset) return `text/html; charset=${charset}`;
  const head = Buffer.from(bytes.subarray(0, 2_048)).toString('latin1');
  return !/<meta[^<>]*charset/i.test(head) && isUtf8(bytes) ? 'text/html; charset=utf-8' : 'text/html';
}

/** Deepest nesting of elements that is read; the pages there are stay below a hundred, browsers cut at some hundreds. */
const DEEPEST = 1_000;
/** Elements that have no content, or whose end is understood where the next begins (HTML, 13.1.2). */
const NOT_NESTED =
  /^(?:area|base|br|col|embed|hr|img|input|link|meta|param|source|track|wbr|p|li|dt|dd|tr|td|th|thead|tbody|tfoot|colgroup|option|optgroup|rt|rp|html|head|body)$/i;

/** Refuses a page whose elements are nested deeper than any page's are: parsing it takes time by the square of that. */
export function checkDepth(bytes: Uint8Array): void {
  let depth = 0;
  for (const [, end, name] of Buffer.from(bytes)
    .toString('latin1')
    .matchAll(/<(\/?)([a-z][a-z0-9-]{0,30})/gi)) {
    if (NOT_NESTED.test(name!)) continue;
    depth = Math.max(0, depth + (end ? -1 : 1));
    if (depth > DEEPEST)
      throw new Unreadable(
        `The page nests more than ${DEEPEST.toLocaleString('en')} elements in each other, which takes too long to read. Start by hand with its address filled in.`,
      );
  }
}

function openDom(bytes: Uint8Array, contentType: string, address: string): JSDOM {
  checkDepth(bytes);
  return new JSDOM(Buffer.from(bytes), { url: address, contentType: typeOfPage(bytes, contentType) });
}

/** Printed pages as books that are read on a screen say them: where one begins, with its label (DPUB-ARIA 1.1, doc-pagebreak). */
function notePages(part: Element): void {
  for (const forged of part.querySelectorAll('[data-begins]')) forged.removeAttribute('data-begins');
  for (const element of part.querySelectorAll('[role="doc-pagebreak"]')) {
    const said =
      element.getAttribute('aria-label') ?? element.getAttribute('title') ?? element.textContent ?? '';
    const label = said.replace(/^\s*(?:page|p\.)\s*/i, '').trim();
    const place = part.ownerDocument.createElement('span');
    if (label && label.length <= 20) place.setAttribute('data-begins', label);
    if (element.id) place.id = element.id;
    element.replaceWith(place);
  }
}

/** Sets marks of notes as superscripts where only the style of the document does (DPUB-ARIA 1.1, doc-noteref). */
function raiseNotes(part: Element): void {
  for (const mark of part.querySelectorAll('[role="doc-noteref"]')) {
    if (mark.closest('sup') || mark.querySelector('sup')) continue;
    const raised = part.ownerDocument.createElement('sup');
    mark.replaceWith(raised);
    raised.append(mark);
  }
}

/**
 * Makes a part of a page fit for reading: nothing in it runs or loads, its links lead to where they led from `address`, within
 * the page too, and its pictures are places with their numbers (`data-picture-n`).
 */
export function settlePart(dom: JSDOM, part: Element, address: string): { html: string; text: string } {
  const { document } = dom.window;
  const purify = DOMPurify(dom.window);
  // What a formula was written as before is no part of what is read (MathML Core, 2.4).
  for (const written of part.querySelectorAll('annotation, annotation-xml')) written.remove();
  notePages(part);
  raiseNotes(part);
  purify.addHook('afterSanitizeAttributes', (node) => {
    if (node.tagName === 'A' && node.hasAttribute('href')) {
      const href = node.getAttribute('href')!;
      if (/^#[^\s]+$/.test(href)) node.removeAttribute('target');
      else if (!URL.canParse(href, address) || !/^https?:$/.test(new URL(href, address).protocol))
        node.removeAttribute('href');
      else {
        node.setAttribute('href', withoutPassword(new URL(href, address).href));
        node.setAttribute('target', '_blank');
        node.setAttribute('rel', 'noopener noreferrer nofollow');
      }
    }
    if (node.tagName === 'IMG') {
      const note = node.ownerDocument.createElement('span');
      note.setAttribute('data-picture', node.getAttribute('alt') || 'without description');
      const place = node.getAttribute('data-picture-n');
      if (place !== null) note.setAttribute('data-picture-n', place);
      node.replaceWith(note);
    }
  });
  const clean = purify.sanitize(part.outerHTML, {
    ALLOWED_TAGS: [...TAGS, ...FORMULAS],
    ALLOWED_ATTR: [...ATTRIBUTES, 'data-picture', 'data-picture-n', 'data-begins', 'target', 'rel'],
    ALLOW_DATA_ATTR: false,
    ALLOW_ARIA_ATTR: false,
    RETURN_DOM_FRAGMENT: true,
  });
  const root = document.createElement('div');
  root.append(clean);
  settleFormulas(root);
  settleSpace(root);
  return { html: root.innerHTML, text: textOf(root).text };
}

/** Reads a page without running anything in it. */
export function readPage({ bytes, contentType, address, linkHeader }: PageGiven): ReadPage {
  const dom = openDom(bytes, contentType, address);
  const { document } = dom.window;
  const reading = readDocument(document, address, linkHeader);
  const title = document.title;
  const lang = document.documentElement.lang;
  const main = mainPart(document);
  const pictures = numberPictures(main, address);
  const settled = settlePart(dom, main, address);
  dom.window.close();
  return { ...reading, ...settled, title, lang, pictures };
}
