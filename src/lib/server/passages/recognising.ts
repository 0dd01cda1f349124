import { z } from 'zod';
import { recognised, type Recognised } from '../../core/documents';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { pdfDocument, pictureDocument } from '../capture/documents';
import { getCopy, rereadCopy } from '../copies/repository';
import { readKept } from '../files/store';
import { beginJob, carriesOut } from '../jobs/runner';
import type { Job } from '../jobs/repository';
import { inTurn } from '../turns';
import { isLocated, none, placesIn, type Counts } from './carrying';
import { passagesWhere, updatePassage } from './repository';

/** Languages to recognise the text of a copy's scanned pages in. */
export const recogniseRequest = z.strictObject({ languages: z.array(recognised).min(1).max(5) });

interface Input {
  copyId: string;
  languages: Recognised[];
}

/** What came of recognising a copy's text again: how its passages stand in it now. */
export interface RecognisedAgain {
  copyId: string;
  sourceId: string;
  passages: Counts;
}

/** Most scanned pages that are recognised when it is asked for: all of a document that is read. */
const ALL = 2_000;

/** Reads the scanned pages of a copy again, page by page; its passages are then looked for in the new text. */
carriesOut<Input, RecognisedAgain>('recognise', {
  atOnce: 1,
  words: {
    stopped: 'Stopped. The text of the copy is as it was.',
    broken:
      'Something went wrong inside Retexa while recognising the text. The copy is as it was; try it again.',
  },
  async run(ctx, { input }, { signal, step }) {
    const { copyId, languages } = input;
    const copy = await getCopy(ctx, copyId);
    const bytes = await readKept(copy.sha256);
    const given = { address: copy.address, name: copy.title, mediaType: copy.media_type };
    const how = { languages, most: ALL };
    const document =
      copy.kind === 'pdf'
        ? await pdfDocument(bytes, given, signal, step, how)
        : await pictureDocument(bytes, given, signal, step, how);
    const { reading_sha256, text, labels, note } = document.copy;
    return async (inner) => {
      await rereadCopy(inner, copyId, { reading_sha256, text, labels, note });
      const passages = none();
      const located = (await passagesWhere(inner, { copy_id: copyId })).filter(isLocated);
      const places = placesIn({ text }, located);
      for await (const [i, { id, revision }] of inTurn(located.entries())) {
        const { anchor, now } = places[i]!;
        passages[anchor]++;
        await updatePassage(inner, id, revision, { anchor, ...now }, 'text recognised again');
      }
      return { copyId, sourceId: copy.source_id, passages };
    };
  },
});

/** Begins to recognise the text of a scanned copy in the languages it is in. Refuses what holds no pages or is no picture. */
export async function recogniseAgain(ctx: Context, copyId: string, languages: Recognised[]): Promise<Job> {
  const { kind } = await getCopy(ctx, copyId);
  if (kind !== 'pdf' && kind !== 'image')
    throw new Refusal(422, 'Only the text of PDFs and pictures is recognised.');
  return beginJob(ctx, 'recognise', { copyId, languages: [...new Set(languages)] } satisfies Input);
}
