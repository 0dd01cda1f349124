import { v7 } from 'uuid';
import { blockWords, placed, type Block, type Inline } from '../../src/lib/core/drafting';
import type { Context } from '../../src/lib/server/access/context';
import { materialOf, openDraft, saveDraft } from '../../src/lib/server/drafts';
import { itemsOfOutline, listSections, type OutlineItem } from '../../src/lib/server/projects';

const text = (words: string): Inline => ({ type: 'text', text: words });
const cite = (...works: { id: string; locator?: string; prefix?: string }[]): Inline => ({
  type: 'cite',
  attrs: {
    id: v7(),
    works: works.map((w) => ({ ...w, ...(w.locator ? { label: 'page' } : {}) })),
    named: false,
  },
});

/** Begins the text of a project with what stands in its outline: two sections written, the others to come. */
export async function writeFrom(ctx: Context, projectId: string): Promise<void> {
  const draft = await openDraft(ctx, projectId);
  const sections = (await listSections(ctx)).filter((s) => s.projectId === projectId && !s.parentId);
  const items = await itemsOfOutline(ctx, projectId);
  const of = (name: string, fits: (item: OutlineItem) => boolean) =>
    items.filter((i) => i.sectionId === sections.find((s) => s.name === name)?.id && fits(i));
  /** What a passage becomes in the text. */
  const said = async ({ ref }: OutlineItem): Promise<{ inline: Inline[] } | { blocks: Block[] }> => {
    const [material] = (await materialOf(ctx, { passages: [ref] })).material;
    return material
      ? placed(material, { quotes: ['“', '”'], words: blockWords('apa'), newId: v7 })
      : { inline: [] };
  };
  const blocks: Block[] = [];
  const paragraph = (...content: Inline[]) => blocks.push({ type: 'paragraph', content });
  const heading = (name: string, goal: number) =>
    blocks.push({
      type: 'heading',
      attrs: { level: 1, section: sections.find((s) => s.name === name)?.id ?? null, goal },
      content: [text(name)],
    });

  heading('How a tide mill works', 400);
  const works = of('How a tide mill works', (i) => i.kind === 'source');
  paragraph(
    text(
      'A tide mill keeps the hours of the moon, not of the miller. The flood fills a pond behind a gate that closes by itself; the ebb, let out through the wheel, grinds for five hours and then stops ',
    ),
    ...(works[0] && works[1]
      ? [cite({ id: works[0].ref, locator: '41-43', prefix: 'see' }, { id: works[1].ref })]
      : []),
    text('. Wages followed the water, and a week had two shifts that nobody chose '),
    ...(works[1] ? [cite({ id: works[1].ref, locator: '12' })] : []),
    {
      type: 'footnote',
      attrs: {
        id: v7(),
        content: [
          text('The accounts count tides, not days'),
          ...(works[2] ? [text('; compare '), cite({ id: works[2].ref })] : []),
          text('.'),
        ],
      },
    },
    text('.'),
  );
  const [quoted] = of('How a tide mill works', (i) => i.passage?.kind === 'quotation');
  if (quoted) {
    const as = await said(quoted);
    if ('inline' in as) paragraph(text('What the pond was depended on the gate. '), ...as.inline, text('.'));
    else blocks.push(...as.blocks);
  }
  paragraph(
    text('What a wheel can take from a pond is its fall times what runs out of it, '),
    { type: 'formula', attrs: { tex: 'P = \\rho g Q h' } },
    text(', and both shrink while it works.'),
  );
  heading('Why the mills closed', 600);
  paragraph(
    text(
      'They closed one by one as silt, wages and the law told against them. A mill whose pond was kept clear of mud by the miller, who sluiced it at every spring tide, could go on longer.',
    ),
  );
  heading('What grew back', 500);
  const [figure] = of('What grew back', (i) => i.passage?.kind === 'figure');
  if (figure) {
    const as = await said(figure);
    if ('blocks' in as) blocks.push(...as.blocks);
  }
  const parts = blocks.map((content) => ({ id: v7(), base: null, content }));
  await saveDraft(ctx, draft.id, {
    since: 0,
    page: '',
    puts: parts,
    gone: [],
    order: parts.map(({ id }) => id),
  });
}
