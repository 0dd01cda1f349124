import { KIND_LABELS, locatorText } from '../../core/passages';
import { entryRuns } from '../../core/citing';
import { toCodeUnit } from '../../core/text';
import type { ReadingMark } from '../../reading/reading-copy';
import type { Context } from '../access/context';
import { picturesOf, readingOf } from '../copies';
import { placeOf } from '../files/store';
import { printList, type Look } from '../lists/printing';
import { getSource } from '../sources/repository';
import { read } from '../workers/pools';
import { COLORS } from './pdf-marks';
import { passagesWhere, type Passage } from './repository';

/** A passage as it stands in a reading copy of its document. */
function markOf(passage: Passage, text: string): ReadingMark {
  const { selectors, further, figure } = passage;
  const place = figure?.place;
  return {
    stretches: selectors
      ? [selectors, ...further].map(({ position }) => ({
          start: toCodeUnit(text, position.start),
          end: toCodeUnit(text, position.end),
        }))
      : [],
    ...(place?.on === 'leaf' ? { leaf: { n: place.leaf, at: place.box.y } } : {}),
    ...(place?.on === 'picture' ? { picture: place.sha256 } : {}),
    head: [KIND_LABELS[passage.kind], locatorText(passage.locator), passage.tint].filter(Boolean).join(' · '),
    note: [passage.gist, passage.ownWords].filter(Boolean).join('\n'),
    color: COLORS[passage.tint].map((part) => part / 255) as [number, number, number],
  };
}

/**
 * A copy with the person's view of its passages as a PDF to read on paper: what is marked, what was noted beside it, the reference
 * in a style on top, page numbers.
 */
export async function readingCopy(
  ctx: Context,
  copyId: string,
  look: Look,
): Promise<{ bytes: Buffer; name: string }> {
  const { copy, html } = await readingOf(ctx, copyId);
  const source = await getSource(ctx, copy.source_id);
  const list = await printList(ctx, [source], look, 'one source');
  const entry = list.entries.find((e) => e.failed === undefined);
  const passages = (await passagesWhere(ctx, { copy_id: copyId })).filter((p) => p.anchor !== 'lost');
  const pictures = [...(await picturesOf(ctx, copyId)).keys()];
  const title = copy.title || source.record.title || 'Document';
  const given = {
    html,
    reference: entry ? entryRuns(entry) : [{ text: title }],
    title,
    marks: passages.map((p) => markOf(p, copy.text)),
    pictures: Object.fromEntries(pictures.map((sha256) => [sha256, placeOf(sha256)])),
  };
  const made = await read({
    task: 'reading copy',
    ...(copy.kind === 'pdf' ? { path: placeOf(copy.sha256) } : {}),
    copy: given,
  });
  const name = title.replace(/\.pdf$/i, '').slice(0, 120);
  return { bytes: Buffer.from(made), name: `${name}, with notes.pdf` };
}
