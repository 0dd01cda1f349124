import { basename } from 'node:path';
import { z } from 'zod';
import { anchorAll, type AnchorState } from '../lib/core/passages';
import { codePointLength, toCodePoint } from '../lib/core/text';
import { readers } from '../lib/reading/apart';
import { sniffBytes } from '../lib/reading/sniff';
import { textOfBytes } from '../lib/reading/text';
import { bytesOf } from './files';
import { Unusable } from './unusable';

/** W3C Web Annotation Data Model 4.2.4 and 4.2.5 in one: a quotation, what stands beside it, and its position if it is known. */
const sought = z
  .object({
    id: z.union([z.string(), z.number()]),
    exact: z.string().min(1),
    prefix: z.string().default(''),
    suffix: z.string().default(''),
    start: z.int().min(0).nullish(),
    end: z.int().min(0).nullish(),
  })
  .refine(({ start, end }) => start == null || end == null || end > start, {
    path: ['end'],
    message: 'a passage ends after it starts',
  });

/** Where a passage stands: code points of the text, end exclusive, and the words that stand there; nothing of a lost one. */
export interface Anchored {
  id: string | number;
  state: AnchorState;
  start: number | null;
  end: number | null;
  exact: string | null;
}

function passagesOf(file: string): z.infer<typeof sought>[] {
  let given: unknown;
  try {
    given = JSON.parse(textOfBytes(bytesOf(file)));
  } catch (error) {
    if (error instanceof Unusable) throw error;
    throw new Unusable(`${basename(file)} is no JSON: ${(error as Error).message}`);
  }
  if (!Array.isArray(given)) throw new Unusable(`${basename(file)}: an array of passages is wanted.`);
  const problems: string[] = [];
  const passages = given.flatMap((one, i) => {
    const read = sought.safeParse(one);
    if (read.success) return [read.data];
    for (const { path, message } of read.error.issues)
      problems.push(
        `${basename(file)}: passage ${i + 1}${path.length ? `, ${path.join('.')}` : ''}: ${message}`,
      );
    return [];
  });
  if (problems.length > 0) throw new Unusable(problems.join('\n'));
  return passages;
}

/** The text of a page, as it is kept with a copy of it, or of a file of text. */
async function textOf(file: string, entry: string): Promise<string> {
  const bytes = bytesOf(file);
  if (!/\.x?html?$/i.test(file) && sniffBytes(bytes) !== 'html') return textOfBytes(bytes);
  const apart = readers(entry);
  try {
    return (
      await apart.read({ task: 'page', bytes, contentType: 'text/html', address: 'https://page.invalid/' })
    ).text;
  } catch (error) {
    throw new Unusable(`${basename(file)}: ${(error as Error).message}`);
  } finally {
    await apart.close();
  }
}

/**
 * `retexa anchor`: where passages stand in a text, in the order they are given. `entry` is what the processes that read pages
 * run. Throws `Unusable` with words for the person.
 */
export async function anchorPassages(
  file: string,
  passages: string | undefined,
  entry: string,
): Promise<Anchored[]> {
  if (passages === undefined) throw new Unusable('anchor needs --passages FILE.');
  const all = passagesOf(passages);
  const text = await textOf(file, entry);
  const found = anchorAll(
    text,
    all.map(({ exact, prefix, suffix, start, end }) => ({
      quote: { exact, prefix, suffix },
      position: start == null ? undefined : { start, end: end ?? start + codePointLength(exact) },
    })),
  );
  return all.map(({ id }, i) => {
    const { state, ...at } = found[i]!;
    if (state === 'lost') return { id, state, start: null, end: null, exact: null };
    return {
      id,
      state,
      start: toCodePoint(text, at.start),
      end: toCodePoint(text, at.end),
      exact: text.slice(at.start, at.end),
    };
  });
}
