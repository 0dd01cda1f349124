import { z } from 'zod';
import { outlineDocument, outlineToMarkdown, outlineToOpml, type OutlineOut } from '../../core/outline-out';
import { inOrder } from '../../core/outline';
import type { Context } from '../access/context';
import { notHere } from '../access/refusal';
import type { Look } from '../lists/printing';
import { citedFor, citedInOrder, passagesGiven, passagesOut } from '../passages/out';
import { findProject, itemsOfOutline, listSections, type OutlineItem } from '../projects';

export { outlineInRequest, readOutlineInto } from './in';

/** Ways an outline is written out. */
export const OUTLINE_OUTPUTS = ['docx', 'html', 'markdown', 'opml'] as const;
export type OutlineOutput = (typeof OUTLINE_OUTPUTS)[number];

/** How an outline is written out: as which kind of file, with or without the words of the works. */
export const outlineOutRequest = z.strictObject({
  as: z.enum(OUTLINE_OUTPUTS),
  quotations: z.boolean().default(true),
});

/** The outline of a project as it is read, each source and passage with its citation in a style. */
async function gathered(ctx: Context, projectId: string, look: Look, pictures: boolean): Promise<OutlineOut> {
  const project = await findProject(ctx, projectId);
  if (!project) throw notHere('project');
  const sections = (await listSections(ctx)).filter((s) => s.projectId === projectId);
  const items = new Map<string, OutlineItem[]>();
  for (const item of await itemsOfOutline(ctx, projectId)) {
    const there = items.get(item.sectionId);
    if (there) there.push(item);
    else items.set(item.sectionId, [item]);
  }
  const order = inOrder(sections);
  const read = order.flatMap((section) => items.get(section.id) ?? []);
  const passages = await passagesGiven(
    ctx,
    read.filter((i) => i.kind === 'passage').map((i) => i.ref),
  );
  const known = new Map(passages.map((p) => [p.id, p]));
  const citing = read.filter((i) => i.source);
  const { keys, citations, references } = await citedInOrder(
    ctx,
    citing.map((i) => (i.kind === 'passage' ? citedFor(known.get(i.ref)!) : { id: i.ref })),
    look,
  );
  const citationOf = new Map(citing.map((item, i) => [item.ref, citations[i]!]));
  const outs = await passagesOut(
    ctx,
    passages,
    passages.map((p) => citationOf.get(p.id)!),
    keys,
    pictures,
  );
  const outOf = new Map(passages.map((p, i) => [p.id, outs[i]!]));
  return {
    title: project.name,
    lang: look.locale,
    references,
    lines: order.flatMap(({ id, name, depth }): OutlineOut['lines'] => [
      { kind: 'section', depth, name },
      ...(items.get(id) ?? []).map((item): OutlineOut['lines'][number] => {
        if (item.kind === 'passage') return { kind: 'passage', depth, passage: outOf.get(item.ref)! };
        if (item.kind === 'source')
          return { kind: 'source', depth, title: item.source!.title, citation: citationOf.get(item.ref)! };
        return { kind: item.kind, depth, words: item.words ?? '' };
      }),
    ]),
  };
}

/** The outline of a project as a file, cited in a style. */
export async function writeOutline(
  ctx: Context,
  projectId: string,
  { as, quotations }: z.infer<typeof outlineOutRequest>,
  look: Look,
): Promise<{ name: string; mediaType: string; body: string; binary: boolean }> {
  const out = await gathered(ctx, projectId, look, quotations && as !== 'opml');
  const options = { quotations };
  const file = (extension: string, mediaType: string, body: string) => ({
    name: `outline.${extension}`,
    mediaType,
    body,
    binary: false,
  });
  switch (as) {
    case 'docx':
      return {
        name: 'outline.docx',
        mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
        body: (await (await import('./docx')).outlineDocx(out, options)).toString('base64'),
        binary: true,
      };
    case 'html':
      return file('html', 'text/html; charset=utf-8', outlineDocument(out, options));
    case 'markdown':
      return file('md', 'text/markdown; charset=utf-8', outlineToMarkdown(out, options));
    case 'opml':
      return file('opml', 'text/x-opml; charset=utf-8', outlineToOpml(out, options));
  }
}
