import { v7 } from 'uuid';
import { blockWords, placed, type Block, type Material } from '$lib/core/drafting';
import type { OutlineItem, OutlineSection } from '$lib/server/projects';
import { call } from '../frame/client';
import { attempt } from '../frame/toasts.svelte';
import { blankBefore, putBlocks, putInline } from './text';
import type { Writing } from './writing.svelte';

/** Puts what stands in an outline into a text, at a place or where the caret is; `style` is what the text prints in. */
export async function putItems(
  { editor, quotes }: Writing,
  given: OutlineItem[],
  style: string,
  at?: number,
): Promise<void> {
  if (!editor) return;
  const passages = given.filter((i) => i.kind === 'passage').map((i) => i.ref);
  const answer = passages.length
    ? await attempt(() => call<{ material: Material[] }>('POST', '/api/drafts/material', { passages }))
    : { material: [] };
  if (!answer) return;
  if (at !== undefined) editor.commands.setTextSelection(at);
  for (const item of given) {
    if (item.kind === 'passage') {
      const material = answer.material.find((m) => m.id === item.ref);
      if (!material) continue;
      const as = placed(material, { quotes, words: blockWords(style), newId: v7 });
      if ('blocks' in as) putBlocks(editor, as.blocks);
      else putInline(editor, [...blankBefore(editor), ...as.inline]);
    } else if (item.kind === 'source')
      putInline(editor, [
        ...blankBefore(editor),
        { type: 'cite', attrs: { id: v7(), works: [{ id: item.ref }], named: false } },
      ]);
    else putInline(editor, [...blankBefore(editor), { type: 'text', text: `${item.words ?? ''} ` }]);
  }
}

/** The sections of an outline as headings, and its sentences under them where those are wanted. */
export const outlineBlocks = (
  sections: readonly OutlineSection[],
  items: readonly OutlineItem[],
  sentences: boolean,
): Block[] =>
  sections.flatMap((section): Block[] => [
    {
      type: 'heading',
      attrs: { level: Math.min(section.depth + 1, 6), section: section.id },
      content: section.name ? [{ type: 'text', text: section.name }] : [],
    },
    ...(sentences ? items : [])
      .filter((i) => i.sectionId === section.id && i.kind === 'sentence' && i.words)
      .map((i): Block => ({ type: 'paragraph', content: [{ type: 'text', text: i.words! }] })),
  ]);

/** The pictures among files that are pasted or dropped. */
export const picturesAmong = (files: FileList | undefined): File[] =>
  [...(files ?? [])].filter((file) => file.type.startsWith('image/'));

/**
 * Puts pictures of one’s own into a text as figures. Gives the id of the citation of the last, by which it is found; nothing
 * where none could be kept, which is said.
 */
export async function putPictures(
  { editor }: Writing,
  draftId: string,
  files: readonly File[],
  at?: number,
): Promise<string | undefined> {
  let last: string | undefined;
  for (const file of files) {
    const kept = await attempt(() =>
      call<{ sha256: string }>('POST', `/api/drafts/${draftId}/pictures`, file),
    );
    if (!kept || !editor) continue;
    if (at !== undefined && !last) editor.commands.setTextSelection(at);
    last = v7();
    const attrs = { picture: kept.sha256, caption: [], alt: '', works: [], cite: last };
    putBlocks(editor, [{ type: 'figure', attrs }]);
  }
  return last;
}
