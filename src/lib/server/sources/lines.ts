import { bareDoi, headline, shortLabel, type SourceRecord } from '../../core/source';
import type { Context } from '../access/context';
import { listNotes } from '../notes';
import { inTurn } from '../turns';
import { getSources } from './repository';

/** A source as a line to copy or to open, in the order asked for. */
export interface SourceLine {
  id: string;
  label: string;
  /** Its address on the web, or of its DOI; nothing where it has none. */
  address: string | undefined;
  text: string;
}

/** Where a source is on the web: its own address, where that is one of the web and of nothing that runs, or that of its DOI. */
function addressOf({ URL: own, DOI }: SourceRecord): string | undefined {
  if (own && /^https?:\/\//i.test(own)) return own;
  const doi = DOI && bareDoi(DOI);
  return doi ? `https://doi.org/${doi}` : undefined;
}

/** The addresses of some sources, or their titles with the notes on them, in the order of the ids. */
export async function linesOf(
  ctx: Context,
  ids: string[],
  what: 'addresses' | 'titles with notes',
): Promise<SourceLine[]> {
  const sources = new Map((await getSources(ctx, ids)).map((source) => [source.id, source]));
  const lines: SourceLine[] = [];
  for await (const id of inTurn(ids)) {
    const source = sources.get(id);
    if (!source) continue;
    const { record } = source;
    const address = addressOf(record);
    const notes = what === 'titles with notes' ? await listNotes(ctx, { sourceId: id }) : [];
    const text =
      what === 'addresses'
        ? (address ?? '')
        : [headline(record), ...notes.map((note) => note.body)].join('\n');
    lines.push({ id, label: shortLabel(record), address, text });
  }
  return lines;
}
