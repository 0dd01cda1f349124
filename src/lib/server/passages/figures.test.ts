import { createCanvas, loadImage } from '@napi-rs/canvas';
import { unzipSync } from 'fflate';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Box, Shape } from '../../core/figures';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { deleteForGood } from '../bin';
import { sweepLeaving } from '../files/leaving';
import { keepFile } from '../files/store';
import { searchEverything } from '../search';
import { undo } from '../sources';
import { insertSource } from '../sources/repository';
import { keepTestCopy, openTestLibrary } from '../test-library';
import { closePools } from '../workers/pools';
import {
  annotationsOfCopy,
  binPassage,
  bringAnnotations,
  carryPassages,
  changeMany,
  editPassage,
  figurePicture,
  keepFromPage,
  keepPassage,
  listPassages,
  newPassage,
  writePassages,
  type Passage,
} from './index';

let db: Knex;
let ctx: Context;
let sourceId: string;
let copyId: string;
let picture: string;
let reading: string;
const look = { style: 'apa', locale: 'en-US' };

/** A picture of 40 by 20 pixels: its left half red, its right half blue. */
function redAndBlue(): Buffer {
  const canvas = createCanvas(40, 20);
  const context = canvas.getContext('2d');
  context.fillStyle = '#ff0000';
  context.fillRect(0, 0, 20, 20);
  context.fillStyle = '#0000ff';
  context.fillRect(20, 0, 20, 20);
  return canvas.toBuffer('image/png');
}

/** The size of a picture, and the colour of one of its pixels. */
async function seen(png: Uint8Array, x: number, y: number) {
  const image = await loadImage(Buffer.from(png));
  const canvas = createCanvas(image.width, image.height);
  canvas.getContext('2d').drawImage(image, 0, 0);
  const [r, g, b] = canvas.getContext('2d').getImageData(x, y, 1, 1).data;
  return { width: image.width, height: image.height, color: [r, g, b] };
}

const RIGHT: Box = { x: 0.5, y: 0, width: 0.5, height: 1 };
const ARROW: Shape = { id: 'a', tint: 'doubt', shape: 'arrow', from: [0, 0.5], to: [1, 0.5] };
const said = {
  kind: 'figure' as const,
  tint: 'evidence' as const,
  gist: 'Floors rise',
  ownWords: '',
  locator: { label: 'page' as const, value: '4' },
  visibility: 'library' as const,
};

function keep(box: Box = RIGHT, more: Partial<typeof said> = {}, drawing: Shape[] = []): Promise<Passage> {
  const figure = {
    place: { on: 'picture' as const, sha256: picture, box },
    number: 'Figure 1',
    alt: 'A chart',
    drawing,
  };
  return keepPassage(ctx, {
    ...said,
    ...more,
    copyId,
    selectors: null,
    exact: 'Rise of pond floors',
    figure,
  });
}

beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  const record = sourceRecord.parse({ type: 'book', title: 'Sluices', author: [{ family: 'Pell' }] });
  picture = await keepFile(redAndBlue());
  reading = await keepFile(Buffer.from(`<p>A page.</p><img src="pictures/${picture}" alt="">`));
  const kept = {
    sha256: picture,
    mediaType: 'image/png',
    address: 'https://a.example/1.png',
    bytes: 1,
    width: 40,
    height: 20,
  };
  await transaction(ctx, async (inner) => {
    sourceId = (await insertSource(inner, record, { checked: true, why: 'test' })).id;
    copyId = (
      await keepTestCopy(inner, sourceId, { text: 'A page.\n', reading_sha256: reading, pictures: [kept] })
    ).id;
  });
});
afterEach(() => db.destroy());
afterAll(() => closePools());

describe('from the page itself', () => {
  it('words selected on a page that is here are kept at once, and not twice; others are told', async () => {
    const address = 'https://a.example';
    const first = await keepFromPage(ctx, { address: `${address}#part`, selection: ' A\n page. ' });
    expect(first).toMatchObject({ already: false, passage: { exact: 'A page.' }, here: { copyId } });
    expect(first!.here.pictures).toMatchObject([{ sha256: picture }]);
    const again = await keepFromPage(ctx, { address, selection: 'A page.' });
    expect(again).toMatchObject({ already: true, passage: { id: first!.passage!.id } });
    expect(await keepFromPage(ctx, { address, selection: 'not there' })).toMatchObject({
      passage: undefined,
    });
    expect(await keepFromPage(ctx, { address: 'https://b.example', selection: 'A page.' })).toBeUndefined();
    expect((await listPassages(ctx, {})).total).toBe(1);
  });
});

describe('a figure', () => {
  it('is cut out of its picture, each pixel as it is, and listed, found and counted as without place when it has none', async () => {
    const made = await keep();
    expect(made.figure?.image).toMatchObject({ width: 20, height: 20, mediaType: 'image/png' });
    const { bytes } = await figurePicture(ctx, made.id);
    expect(await seen(bytes, 10, 10)).toEqual({ width: 20, height: 20, color: [0, 0, 255] });
    expect((await listPassages(ctx, { kind: 'figure' })).items[0]).toMatchObject({
      exact: 'Rise of pond floors',
    });
    expect((await searchEverything(ctx, 'chart', look, { limit: 5 })).passages.total).toBe(1);
    await keep(RIGHT, { locator: null as never });
    expect((await listPassages(ctx, { state: 'no place' })).total).toBe(1);
  });
  it('keeps its drawing beside the picture: only what is written out has it in it', async () => {
    const made = await keep(RIGHT, {}, [ARROW]);
    const [plain, drawn] = [await figurePicture(ctx, made.id), await figurePicture(ctx, made.id, true)];
    expect((await seen(plain.bytes, 4, 10)).color).toEqual([0, 0, 255]);
    const { color } = await seen(drawn.bytes, 4, 10);
    expect(color).not.toEqual([0, 0, 255]);
  });
  it('is cut out anew in another box, as one step to take back', async () => {
    const made = await keep();
    const left = { ...RIGHT, x: 0, width: 0.25 };
    const figure = {
      number: 'Figure 1',
      alt: 'A chart',
      drawing: [ARROW],
      place: { on: 'picture' as const, sha256: picture, box: left },
    };
    const { wording, tags } = made;
    const { passage, revisionId } = await editPassage(ctx, made.id, {
      base: 1,
      said: { ...said, wording, tags },
      exact: 'Another caption',
      figure,
    });
    expect(passage).toMatchObject({
      exact: 'Another caption',
      figure: { image: { width: 10 }, drawing: [ARROW] },
    });
    expect((await seen((await figurePicture(ctx, made.id)).bytes, 5, 10)).color).toEqual([255, 0, 0]);
    await undo(ctx, [revisionId!]);
    expect((await seen((await figurePicture(ctx, made.id)).bytes, 5, 10)).color).toEqual([0, 0, 255]);
  });
  it('never becomes words, nor words a figure; a picture that is not of the copy and a page it does not have are refused', async () => {
    const made = await keep();
    const words = { ...said, kind: 'quotation' as const, wording: null, tags: [] };
    await expect(editPassage(ctx, made.id, { base: 1, said: words })).rejects.toMatchObject({ status: 422 });
    const place = { on: 'picture' as const, sha256: 'b'.repeat(64), box: RIGHT };
    const figure = { place, number: '', alt: '', drawing: [] };
    const given = { ...said, copyId, selectors: null };
    await expect(keepPassage(ctx, { ...given, figure })).rejects.toMatchObject({ code: 'not-here' });
    const leaf = { on: 'leaf' as const, leaf: 1, box: RIGHT };
    await expect(keepPassage(ctx, { ...given, figure: { ...figure, place: leaf } })).rejects.toMatchObject({
      status: 422,
    });
    expect(newPassage.safeParse({ ...given, figure: null }).success).toBe(false);
    expect(newPassage.safeParse({ ...given, kind: 'mark', figure }).success).toBe(false);
    expect((await listPassages(ctx, {})).total).toBe(1);
  });
  it('of somebody else that is private is not shown', async () => {
    const made = await keep(RIGHT, { visibility: 'private' as never });
    const colleague = { ...ctx, personId: 'colleague' };
    await expect(figurePicture(colleague, made.id)).rejects.toMatchObject({ code: 'not-here' });
  });
  it('deleted for good leaves with the files it had, and not before', async () => {
    const made = await keep();
    const { wording, tags } = made;
    const place = { on: 'picture' as const, sha256: picture, box: { ...RIGHT, x: 0 } };
    const figure = { number: '', alt: '', drawing: [], place };
    await editPassage(ctx, made.id, { base: 1, said: { ...said, wording, tags }, figure });
    await binPassage(ctx, made.id, true);
    expect(await sweepLeaving(db)).toBe(0);
    await deleteForGood(ctx, 'passages', [made.id]);
    // Both that were cut out; the picture they were cut out of is the copy’s and stays.
    expect(await sweepLeaving(db)).toBe(2);
  });
  it('goes over to a copy that has its very picture, and stays where none has', async () => {
    const made = await keep();
    const bare = (await keepTestCopy(ctx, sourceId, { text: 'A page.\n', reading_sha256: reading })).id;
    expect((await carryPassages(ctx, copyId, bare)).passages).toMatchObject({ found: 0, lost: 1 });
    await db('copy_picture').insert({
      library_id: ctx.libraryId,
      copy_id: bare,
      sha256: picture,
      media_type: 'image/png',
      address: '',
    });
    expect((await carryPassages(ctx, copyId, bare)).passages).toMatchObject({ found: 1, lost: 0 });
    expect((await listPassages(ctx, {})).items[0]).toMatchObject({ id: made.id, copyId: bare });
  });
  it('is a picture with its caption and citation in what is written out', async () => {
    const made = await keep(RIGHT, {}, [ARROW]);
    const ids = [made.id];
    const html = await writePassages(ctx, { ids, as: 'html', layout: 'beside', title: 'T' }, look);
    expect(html.body).toMatch(
      /<img src="data:image\/png;base64,[^"]+" alt="A chart \(drawn over it: 1 arrow\)"/,
    );
    expect(html.body).toContain('Figure 1. Rise of pond floors (Pell, n.d., p. 4)');
    const docx = await writePassages(ctx, { ids, as: 'docx', layout: 'below', title: 'T' }, look);
    const files = unzipSync(Buffer.from(docx.body, 'base64'));
    expect(Object.keys(files).filter((name) => /^word\/media\/./.test(name))).toHaveLength(1);
    const document = new TextDecoder().decode(files['word/document.xml']);
    expect(document).toContain('A chart (drawn over it: 1 arrow)');
    const csv = await writePassages(ctx, { ids, as: 'csv', layout: 'below', title: 'T' }, look);
    expect(csv.body).toContain('"Figure 1","A chart (drawn over it: 1 arrow)"');
    await changeMany(ctx, ids, { act: 'bin' });
  });
  it('goes out as a W3C annotation of its picture and comes back once', async () => {
    await keep(RIGHT, {}, [ARROW]);
    const { body } = await annotationsOfCopy(ctx, copyId);
    expect(body).toContain('"source": "https://a.example/1.png"');
    const again = await bringAnnotations(ctx, copyId, Buffer.from(body));
    expect(again).toMatchObject({ kept: [], already: 1, lost: [] });
    const [one] = (await listPassages(ctx, {})).items;
    await changeMany(ctx, [one!.id], { act: 'bin' });
    const back = await bringAnnotations(ctx, copyId, Buffer.from(body));
    expect(back.kept).toHaveLength(1);
    expect((await listPassages(ctx, {})).items[0]).toMatchObject({
      kind: 'figure',
      exact: 'Rise of pond floors',
      figure: { number: 'Figure 1', alt: 'A chart', drawing: [ARROW], image: { width: 20 } },
    });
  });
});
