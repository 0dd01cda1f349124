import { z } from 'zod';
import { readMarkdownOutline, readNestedOutline, type Nested, type ReadOutline } from '../../core/outline';
import { parseXml } from '../../reading/xml';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { addOutline, binSections } from '../projects';

/** How many sections and sentences one file brings at most. */
const MOST = 5_000;

/** The text of a file an outline is in and what the file is called; or the sections to take away again. */
export const outlineInRequest = z.union([
  z.strictObject({ name: z.string().max(300), text: z.string().max(2_000_000) }),
  z.strictObject({ away: z.array(z.string().max(60)).min(1).max(MOST) }),
]);

/** The lines of OPML 2.0 (http://opml.org/spec2.opml) with those under them. */
function linesOf(parent: Element): Nested[] {
  return [...parent.children]
    .filter((child) => child.localName === 'outline')
    .map((child) => ({ text: child.getAttribute('text') ?? '', under: linesOf(child) }));
}

function read(name: string, text: string): ReadOutline {
  if (!/\.opml$/i.test(name)) return readMarkdownOutline(text);
  try {
    const document = parseXml(text);
    const body = document.querySelector('opml > body');
    if (!body) throw new Error('it has no body of an OPML file');
    return readNestedOutline(linesOf(body), document.querySelector('head > title')?.textContent ?? undefined);
  } catch (e) {
    throw new Refusal(422, `${name} could not be read as OPML: ${(e as Error).message}. Nothing was added.`);
  }
}

/**
 * Adds the outline of a file at the end of a project’s, its sentences and questions under its sections; or takes sections
 * away again. Gives what takes that back.
 */
export async function readOutlineInto(
  ctx: Context,
  projectId: string,
  said: z.infer<typeof outlineInRequest>,
): Promise<{ sections: number; said: number; back?: z.infer<typeof outlineInRequest> }> {
  const about = { right: 'edit' as const, of: ['projects' as const], names: { project: projectId } };
  if ('away' in said) {
    await change(ctx, about, (inner) => binSections(inner, projectId, said.away));
    return { sections: said.away.length, said: 0 };
  }
  const { sections } = read(said.name, said.text);
  const count = sections.reduce((n, section) => n + section.said.length, 0);
  if (sections.length === 0)
    throw new Refusal(
      422,
      `${said.name} has no headings that could be sections: Markdown (.md) with lines that begin with #, a .docx whose headings have their styles, or OPML. Nothing was added.`,
    );
  if (sections.length + count > MOST)
    throw new Refusal(
      422,
      `${said.name} has ${(sections.length + count).toLocaleString('en')} lines; an outline of at most ${MOST.toLocaleString('en')} is read at once. Nothing was added.`,
    );
  const top = await change(ctx, about, (inner) => addOutline(inner, projectId, sections));
  return { sections: sections.length, said: count, back: { away: top } };
}
