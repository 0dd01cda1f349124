import { PDFDocument, PDFName, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib';
import { drawLeaf } from '../src/lib/reading/pdf';
import { MARSH, THESIS } from './texts';

const A4: [number, number] = [595, 842];
const BODY = 10.5;

/** Sets text into lines of a width, words at a line's end divided by nothing. */
function lines(text: string, font: PDFFont, size: number, width: number): string[] {
  const out: string[] = [];
  let line = '';
  for (const word of text.split(' ')) {
    const longer = line ? `${line} ${word}` : word;
    if (font.widthOfTextAtSize(longer, size) > width && line) {
      out.push(line);
      line = word;
    } else line = longer;
  }
  return line ? [...out, line] : out;
}

interface Setting {
  doc: PDFDocument;
  serif: PDFFont;
  bold: PDFFont;
}

async function begin(): Promise<Setting> {
  const doc = await PDFDocument.create();
  doc.setCreationDate(new Date(0));
  doc.setModificationDate(new Date(0));
  return {
    doc,
    serif: await doc.embedFont(StandardFonts.TimesRoman),
    bold: await doc.embedFont(StandardFonts.TimesRomanBold),
  };
}

/** Writes paragraphs down a page until it is full; gives the paragraphs left. */
function fill(page: PDFPage, font: PDFFont, paragraphs: string[], top: number): string[] {
  let y = top;
  for (const [i, paragraph] of paragraphs.entries()) {
    const set = lines(paragraph, font, BODY, 451);
    if (y - set.length * 14 < 80) return paragraphs.slice(i);
    for (const line of set) {
      page.drawText(line, { x: 72, y, size: BODY, font });
      y -= 14;
    }
    y -= 8;
  }
  return [];
}

/** An article as a journal prints it: running head, page number at the foot, title, authors, abstract. */
async function article(given: {
  journal: string;
  volume: string;
  issue: string;
  first: number;
  year: string;
  title: string;
  authors: string;
  abstract: string;
  doi?: string;
  paragraphs: string[];
}): Promise<Uint8Array> {
  const { doc, serif, bold } = await begin();
  const pages: PDFPage[] = [];
  let left = given.paragraphs;
  while (pages.length === 0 || (left.length > 0 && pages.length < 8)) {
    const page = doc.addPage(A4);
    let top = 770;
    if (pages.length === 0) {
      for (const line of lines(given.title, bold, 18, 451)) {
        page.drawText(line, { x: 72, y: 742, size: 18, font: bold });
        top = 742;
      }
      page.drawText(given.authors, { x: 72, y: 714, size: 12, font: serif });
      page.drawText('Abstract', { x: 72, y: 686, size: BODY, font: bold });
      let y = 670;
      for (const line of lines(given.abstract, serif, BODY, 451)) {
        page.drawText(line, { x: 72, y, size: BODY, font: serif });
        y -= 14;
      }
      top = y - 20;
    }
    left = fill(page, serif, left, top);
    pages.push(page);
  }
  const last = given.first + pages.length - 1;
  for (const [i, page] of pages.entries()) {
    const head =
      i === 0
        ? `${given.journal} ${given.volume} (${given.issue}), ${given.first}–${last} (${given.year})`
        : given.title.split(':')[0]!;
    page.drawText(head, { x: 72, y: 806, size: 8.5, font: serif });
    page.drawText(String(given.first + i), { x: 292, y: 40, size: 9, font: serif });
    if (i === 0 && given.doi)
      page.drawText(`https://doi.org/${given.doi}`, { x: 72, y: 56, size: 8, font: serif });
  }
  return doc.save();
}

const sentences = (parts: typeof MARSH) =>
  parts.flatMap((p) => p.paragraphs.map((s) => s.map((x) => x.text).join(' ')));
/** Letters beyond those the built-in fonts have are not needed in these texts, but quotation marks are. */
const latin = (text: string) => text.replace(/[^\u0000-\u00ff–—‘’“”•…]/g, '?');

async function thesis(): Promise<Uint8Array> {
  const { doc, serif, bold } = await begin();
  const title = doc.addPage(A4);
  title.drawText('Mud and memory', { x: 72, y: 640, size: 24, font: bold });
  title.drawText('Nuala Byrne', { x: 72, y: 600, size: 14, font: serif });
  title.drawText('A thesis submitted for the degree of Doctor of Philosophy', {
    x: 72,
    y: 540,
    size: 11,
    font: serif,
  });
  title.drawText('University of Northsound', { x: 72, y: 520, size: 11, font: serif });
  title.drawText('2018', { x: 72, y: 500, size: 11, font: serif });
  let left = sentences(THESIS).map(latin);
  for (let i = 0; i < 5; i++) {
    const page = doc.addPage(A4);
    const after = fill(page, serif, left, 760);
    left = after.length ? after : sentences(THESIS).map(latin);
  }
  // Front matter in roman numerals, then from 1, told by the file itself (ISO 32000, 12.4.2).
  doc.catalog.set(
    PDFName.of('PageLabels'),
    doc.context.obj({ Nums: [0, { S: PDFName.of('r') }, 2, { S: PDFName.of('D') }] }),
  );
  doc.setTitle('Mud and memory');
  doc.setAuthor('Nuala Byrne');
  return doc.save();
}

async function workingPaper(): Promise<Uint8Array> {
  const bytes = await article({
    journal: 'Northsound Papers in Economic History',
    volume: '9',
    issue: '1',
    first: 33,
    year: '1997',
    title: 'Toll and tide: Leases of the Skerry mill',
    authors: 'E. M. Barrow',
    abstract:
      'Eleven leases of one mill are read for what they say of toll, repairs and the hours of the tide.',
    paragraphs: [...sentences(MARSH), ...sentences(MARSH), ...sentences(THESIS)].map(latin),
  });
  const doc = await PDFDocument.load(bytes);
  doc.setTitle('Microsoft Word - leases_final3.doc');
  doc.setAuthor('user');
  return doc.save();
}

const LEASE = [
  'This lease made the fourth day of March',
  'Between the Prior of Longsound and Thomas Tully, miller,',
  'witnesseth that the said Thomas shall have the mill',
  'and the pond for one and twenty years,',
  'and shall scour the sluice at every spring tide.',
];

async function leasePage(): Promise<Uint8Array> {
  const { doc, serif, bold } = await begin();
  const page = doc.addPage([420, 560]);
  page.drawText('A lease of the tide mill', { x: 40, y: 500, size: 20, font: bold });
  LEASE.forEach((line, i) => page.drawText(line, { x: 40, y: 440 - i * 28, size: 14, font: serif }));
  return doc.save();
}

/** The picture of a page, as a phone or a scanner gives it. */
export async function leasePicture(): Promise<Buffer> {
  return drawLeaf(await leasePage(), 1, 1_400);
}

async function scanned(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.setCreationDate(new Date(0));
  const picture = await doc.embedPng(await leasePicture());
  for (let i = 0; i < 2; i++)
    doc.addPage([420, 560]).drawImage(picture, { x: 0, y: 0, width: 420, height: 560 });
  return doc.save();
}

/** A chart for a page to show: how far pond floors rose, against years since the breach. */
async function chart(): Promise<Uint8Array> {
  const { createCanvas } = await import('@napi-rs/canvas');
  const canvas = createCanvas(720, 400);
  const context = canvas.getContext('2d');
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, 720, 400);
  context.strokeStyle = '#16222c';
  context.lineWidth = 2;
  context.strokeRect(60, 20, 630, 320);
  context.fillStyle = '#2f6f73';
  for (let i = 0; i < 41; i++) {
    const years = ((i * 37) % 41) / 41;
    const rise = 1 - Math.exp(-3 * years) + (((i * 53) % 17) - 8) / 60;
    context.beginPath();
    context.arc(60 + 630 * years, 340 - 270 * Math.max(0, Math.min(1, rise)), 5, 0, 2 * Math.PI);
    context.fill();
  }
  return canvas.toBuffer('image/png');
}

const made = new Map<string, Promise<Uint8Array>>();
const once = (name: string, make: () => Promise<Uint8Array>) => {
  let bytes = made.get(name);
  if (!bytes) made.set(name, (bytes = make()));
  return bytes;
};

/** Documents of the invented web, by host and path. */
export const DOCUMENTS: Record<string, { type: string; bytes: () => Promise<Uint8Array> }> = {
  'estuaryshore.example/pdf/12-2-101.pdf': {
    type: 'application/pdf',
    bytes: () =>
      once('article', () =>
        article({
          journal: 'Estuary and Shore',
          volume: '12',
          issue: '2',
          first: 101,
          year: '2019',
          title: 'Sluices, mud and the long ebb: How mill ponds filled',
          authors: 'Nuala Byrne and Ravi Menon',
          abstract:
            'Nine mill ponds were cored and their mud dated by pollen. Every pond began to fill in the decade in which its mill stopped.',
          doi: '10.5555/es.12.101',
          paragraphs: Array.from({ length: 7 }, () => [...sentences(MARSH), ...sentences(THESIS)])
            .flat()
            .map(latin),
        }),
      ),
  },
  'repository.northsound.example/bitstream/1/7000/thesis.pdf': {
    type: 'application/pdf',
    bytes: () => once('thesis', thesis),
  },
  'repository.northsound.example/bitstream/1/6001/leases.pdf': {
    type: 'application/octet-stream',
    bytes: () => once('paper', workingPaper),
  },
  'skerryarchive.example/scans/lease-1641.pdf': {
    type: 'application/pdf',
    bytes: () => once('scan', scanned),
  },
  'marshletters.example/figures/1.png': { type: 'image/png', bytes: () => once('chart', chart) },
  'skerryarchive.example/photos/lease.png': { type: 'image/png', bytes: () => once('picture', leasePicture) },
};

/** A PDF that is cut off in the middle, and one that says its picture is larger than memory. */
export const BROKEN_PDF = new TextEncoder().encode(
  '%PDF-1.7\n1 0 obj\n<< /Type /Catalog /Pages 2 0 R >>\nendobj\n2 0 obj\n<< /Type /Pages /Ki',
);
