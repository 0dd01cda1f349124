import type { Tint } from '../../core/passages';
import type { ReadAnnotation } from '../../core/passages-out';
import { toCodeUnit } from '../../core/text';
import type { PdfMark } from '../../reading/pdf-inside';
import type { MarkToWrite } from '../../reading/pdf-write';
import { personName, type Context } from '../access/context';
import { pdfOf, readingOf } from '../copies';
import { getCopy } from '../copies/repository';
import { read } from '../workers/pools';
import { keepAnnotations, type Brought } from './annotations';
import { passagesWhere } from './repository';

/** The tints as a PDF has them: red, green and blue, 0 to 255. */
export const COLORS: Record<Tint, [number, number, number]> = {
  claim: [243, 211, 107],
  evidence: [143, 207, 176],
  method: [169, 189, 240],
  term: [211, 181, 232],
  doubt: [240, 169, 160],
};

/** The tint whose colour is nearest to one of a PDF; claims where it has none. */
export function tintOf(color: PdfMark['color']): Tint {
  if (!color) return 'claim';
  const away = (tint: Tint) => COLORS[tint].reduce((sum, part, i) => sum + (part - color[i]!) ** 2, 0);
  return (Object.keys(COLORS) as Tint[]).reduce(
    (best, tint) => (away(tint) < away(best) ? tint : best),
    'claim',
  );
}

/** Takes over what other reader programs marked in the PDF of a copy, as passages of it. */
export async function bringMarks(ctx: Context, copyId: string): Promise<Brought> {
  const [copy, marks] = [
    await getCopy(ctx, copyId),
    await read({ task: 'marks', path: await pdfOf(ctx, copyId) }),
  ];
  const labels = copy.labels ?? [];
  const annotations = marks.map(({ leaf, words, note, color }, i): ReadAnnotation => ({
    nth: i + 1,
    kind: words ? (note ? 'quotation' : 'mark') : 'response',
    tint: tintOf(color),
    gist: '',
    ownWords: note,
    tags: [],
    locator: labels[leaf - 1] ? { label: 'page', value: labels[leaf - 1]! } : null,
    wording: null,
    quote: words ? { exact: words, prefix: '', suffix: '' } : null,
    position: null,
    leaf,
    further: [],
    region: null,
  }));
  return keepAnnotations(ctx, copyId, annotations);
}

/** The PDF of a copy with the person's view of its passages saved in it as annotations other programs show. */
export async function markedPdf(ctx: Context, copyId: string): Promise<{ bytes: Buffer; name: string }> {
  const path = await pdfOf(ctx, copyId);
  const { copy, html } = await readingOf(ctx, copyId);
  const author = await personName(ctx);
  const marks = (await passagesWhere(ctx, { copy_id: copyId })).flatMap((p) => {
    if (p.anchor === 'lost') return [];
    const place = p.figure?.place;
    const places: MarkToWrite['on'][] =
      place?.on === 'leaf'
        ? [place]
        : (p.selectors ? [p.selectors, ...p.further] : []).map(({ position: { start, end } }) => ({
            start: toCodeUnit(copy.text, start),
            end: toCodeUnit(copy.text, end),
          }));
    return places.map((on, i) => ({
      id: i ? `${p.id}-${i}` : p.id,
      on,
      note: (i ? [] : [p.figure && p.exact, p.gist, p.ownWords]).filter(Boolean).join('\n\n'),
      author,
      color: COLORS[p.tint].map((part) => part / 255) as [number, number, number],
      added: p.added,
    }));
  });
  const bytes = Buffer.from(await read({ task: 'mark', path, html, marks }));
  return { bytes, name: `${(copy.title || 'document').replace(/\.pdf$/i, '')}, marked.pdf` };
}
