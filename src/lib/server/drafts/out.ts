import { zipSync } from 'fflate';
import { z } from 'zod';
import { citationsOf, namesOf, readPart, worksCited } from '../../core/drafting';
import {
  draftDocument,
  draftOdt,
  draftToLatex,
  draftToMarkdown,
  type DraftOut,
  type OdtFiles,
} from '../../core/drafting-out';
import { formulaAsXml, formulaToMathml } from '../../reading/formulas';
import { MANUSCRIPTS } from '../../reading/manuscripts';
import { may } from '../../core/members';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { keepFile, readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import { citesInNotes, printText, type Look } from '../lists/printing';
import { findProject } from '../projects';
import type { Source } from '../sources/repository';
import { manuscript, write } from '../workers/pools';
import { printedManuscript } from './manuscript';
import { picturesFor } from './pictures';
import { getDraft, partsOf, setTemplate } from './repository';
import { sourcesFor } from './works';

/** Ways a draft is written out. */
export const DRAFT_OUTPUTS = ['docx', 'odt', 'html', 'markdown', 'latex'] as const;

/** How a draft is written out: as which kind of file, with citekeys or with citations as they print. */
export const draftOutRequest = z.strictObject({
  as: z.enum(DRAFT_OUTPUTS),
  citing: z.enum(['keys', 'printed']).default('printed'),
  /** A .docx in the styles of the template that is kept with the draft. */
  template: z.boolean().optional(),
});

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['projects'] } as const;

/** A draft with all that prints in it, and the sources it cites. */
async function gathered(
  ctx: Context,
  draftId: string,
  look: Look,
): Promise<{ out: DraftOut; sources: Source[] }> {
  const draft = await getDraft(ctx, draftId);
  const [parts, project, inNotes] = await Promise.all([
    partsOf(ctx, draftId),
    findProject(ctx, draft.projectId),
    citesInNotes(ctx, look),
  ]);
  const reads = parts.map(readPart);
  const found = await sourcesFor(ctx, [...worksCited(reads), ...draft.listed]);
  const sources = [...new Map([...found.values()].map((s) => [s.id, s])).values()];
  const { citations, notes } = citationsOf(reads, { notes: inNotes });
  const at = (id: string) => found.get(id)?.id ?? id;
  const printed = await printText(
    ctx,
    sources,
    citations.map((c) => ({ ...c, cites: c.cites.map((cite) => ({ ...cite, id: at(cite.id) })) })),
    look,
  );
  const pictures = await picturesFor(ctx, draftId, parts);
  return {
    sources,
    out: {
      title: project?.name ?? 'Draft',
      lang: look.locale,
      parts,
      names: namesOf(reads, look.locale),
      printed: new Map(printed.citations.map((c) => [c.id, c])),
      notes,
      keys: new Map([...found].map(([id, s]) => [id, s.citekey])),
      list: printed.list.hasList ? printed.list : undefined,
      pictures,
    },
  };
}

const utf8 = (text: string) => new TextEncoder().encode(text);

/** An OpenDocument text packed: what it is stands first, and as it is (OpenDocument 1.3, part 2, 3.3). */
const zippedOdt = ({ texts: { mimetype, ...texts }, pictures }: OdtFiles): Uint8Array =>
  zipSync({
    mimetype: [utf8(mimetype!), { level: 0 }],
    ...Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, utf8(text)])),
    ...Object.fromEntries(
      Object.entries(pictures).map(([name, png]) => [name, new Uint8Array(Buffer.from(png, 'base64'))]),
    ),
  });

/**
 * A draft as a .docx in the styles of a template; where who asks may change the draft, the template is kept with it for the next time.
 * Refuses what is no template, and keeps it not.
 */
export async function writeInTemplate(
  ctx: Context,
  draftId: string,
  { name, bytes }: { name: string; bytes: Uint8Array },
  look: Look,
) {
  const made = await writeDraft(ctx, draftId, { as: 'docx', citing: 'keys' }, look, bytes);
  if (may(ctx.role, 'edit')) {
    const sha256 = await keepFile(bytes);
    await change(ctx, { ...CHANGE, names: { draft: draftId } }, (inner) =>
      setTemplate(inner, draftId, { name, sha256 }),
    );
  }
  return made;
}

/** Keeps no template with a draft any more. */
export const dropTemplate = (ctx: Context, draftId: string): Promise<void> =>
  change(ctx, { ...CHANGE, names: { draft: draftId } }, (inner) => setTemplate(inner, draftId, undefined));

/** A draft as a file, in a style, a .docx in the styles of a template if one is given; what needs its references or pictures beside it comes in an archive with them. */
export async function writeDraft(
  ctx: Context,
  draftId: string,
  { as, citing, template: inKept }: z.infer<typeof draftOutRequest>,
  look: Look,
  given?: Uint8Array,
): Promise<{ name: string; mediaType: string; body: string; binary: boolean }> {
  const { out, sources } = await gathered(ctx, draftId, look);
  const pictures = [...out.pictures].map(
    ([id, { png }]) => [`pictures/${id}.png`, Buffer.from(png, 'base64')] as const,
  );
  const records = sources.map((s) => ({ key: s.citekey, record: s.record }));
  const archive = (files: Record<string, string>) => ({
    name: 'draft.zip',
    mediaType: 'application/zip',
    body: Buffer.from(
      zipSync({
        ...Object.fromEntries(Object.entries(files).map(([name, text]) => [name, utf8(text)])),
        ...Object.fromEntries(pictures),
      }),
    ).toString('base64'),
    binary: true,
  });
  switch (as) {
    case 'docx':
    case 'odt': {
      const written = as === 'docx' ? await (await import('./docx')).draftDocx(out, citing, formulaAsXml) : zippedOdt(draftOdt(out, citing, formulaAsXml)); // prettier-ignore
      // With citekeys, the citations in it are printed as those of any manuscript, and can be printed again.
      const { bytes } =
        citing === 'keys'
          ? await printedManuscript(ctx, { kind: as, bytes: written }, records, look)
          : { bytes: written };
      const kept = inKept && as === 'docx' ? (await getDraft(ctx, draftId)).template : undefined;
      if (inKept && !kept)
        throw new Refusal(409, 'No template is kept with this text any more. Give it again.');
      const template = given ?? (kept && (await readKept(kept.sha256)));
      const styled = template ? await manuscript({ what: 'template', bytes, template }) : bytes;
      return {
        name: `draft.${as}`,
        mediaType: MANUSCRIPTS[as].mediaType,
        body: Buffer.from(styled).toString('base64'),
        binary: true,
      };
    }
    case 'html':
      return {
        name: 'draft.html',
        mediaType: 'text/html; charset=utf-8',
        body: draftDocument(out, formulaToMathml),
        binary: false,
      };
    case 'markdown': {
      const text = draftToMarkdown(out, citing);
      if (citing === 'keys')
        return archive({ 'draft.md': text, 'references.json': (await write('csl-json', records)).text });
      return pictures.length
        ? archive({ 'draft.md': text })
        : { name: 'draft.md', mediaType: 'text/markdown; charset=utf-8', body: text, binary: false };
    }
    case 'latex': {
      const text = draftToLatex(out, citing);
      if (citing === 'keys')
        return archive({ 'draft.tex': text, 'references.bib': (await write('biblatex', records)).text });
      return pictures.length
        ? archive({ 'draft.tex': text })
        : { name: 'draft.tex', mediaType: 'application/x-tex; charset=utf-8', body: text, binary: false };
    }
  }
}
