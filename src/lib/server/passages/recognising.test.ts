import { createCanvas } from '@napi-rs/canvas';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import { describe as locate } from '../../core/passages';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { getCopy } from '../copies/repository';
import { keepFile } from '../files/store';
import { getJob } from '../jobs/repository';
import { insertSource } from '../sources/repository';
import { keepTestCopy, openTestLibrary } from '../test-library';
import { closePools } from '../workers/pools';
import { keepPassage, recogniseAgain } from './index';
import { getPassage } from './repository';
import { FACE } from '../../../../tests/ink';

let db: Knex;
let ctx: Context;
beforeEach(async () => void ({ db, ctx } = await openTestLibrary()));
afterEach(() => db.destroy());
afterAll(() => closePools());

/** A picture of a page with German words on it, large enough to be recognised. */
function page(): Buffer {
  const canvas = createCanvas(1_400, 420);
  const context = canvas.getContext('2d');
  context.fillStyle = '#fff';
  context.fillRect(0, 0, 1_400, 420);
  context.fillStyle = '#000';
  context.font = `54px ${FACE}`;
  context.fillText('Die Mühle stand bei Ebbe still.', 80, 140);
  context.fillText('Größere Räder drehten sich länger.', 80, 280);
  return canvas.toBuffer('image/png');
}

async function settled(id: string) {
  for (;;) {
    const job = await getJob(ctx, id);
    if (job.state === 'done' || job.state === 'failed') return job;
    await new Promise((resolve) => setImmediate(resolve));
  }
}

describe('text recognised again', () => {
  it('in its own language replaces what was read, and passages are found in it or said to be lost', async () => {
    const text = 'Die Miihle stand bei Ebbe still.\nNothing of this stands there.\n';
    const sha256 = await keepFile(page());
    const reading_sha256 = await keepFile(Buffer.from('<p>old</p>'));
    const copyId = await transaction(ctx, async (inner) => {
      const { id } = await insertSource(inner, sourceRecord.parse({ type: 'book', title: 'T' }), {
        checked: true,
        why: 'test',
      });
      const copy = { text, sha256, reading_sha256, kind: 'image' as const, media_type: 'image/png' };
      return (await keepTestCopy(inner, id, copy)).id;
    });
    const keep = (words: string) => {
      const start = text.indexOf(words);
      return keepPassage(ctx, {
        copyId,
        selectors: locate(text, start, start + words.length),
        kind: 'quotation',
        tint: 'claim',
        gist: '',
        ownWords: '',
        locator: null,
        visibility: 'library',
      });
    };
    const [mill, gone] = [
      await keep('Die Miihle stand bei Ebbe still'),
      await keep('Nothing of this stands there'),
    ];
    const job = await settled((await recogniseAgain(ctx, copyId, ['deu', 'deu'])).id);
    expect(job.error).toBeNull();
    expect(job.result).toMatchObject({ copyId, passages: { changed: 1, lost: 1 } });
    const copy = await getCopy(ctx, copyId);
    expect(copy.text).toContain('Die Mühle stand bei Ebbe still.');
    expect(copy.note).toContain('in German');
    expect(await getPassage(ctx, mill.id)).toMatchObject({
      anchor: 'changed',
      exact: 'Die Miihle stand bei Ebbe still',
      selectors: { quote: { exact: 'Die Mühle stand bei Ebbe still' } },
    });
    expect((await getPassage(ctx, gone.id)).anchor).toBe('lost');
  });
  it('of what is no picture is refused', async () => {
    const copyId = await transaction(ctx, async (inner) => {
      const record = sourceRecord.parse({ type: 'book', title: 'T' });
      const { id } = await insertSource(inner, record, { checked: true, why: 'test' });
      return (await keepTestCopy(inner, id, { text: 'A page.' })).id;
    });
    await expect(recogniseAgain(ctx, copyId, ['eng'])).rejects.toMatchObject({ status: 422 });
  });
});
