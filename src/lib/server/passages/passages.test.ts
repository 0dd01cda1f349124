import { unzipSync } from 'fflate';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import { describe as locate } from '../../core/passages';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { binOf } from '../overview';
import { deleteForGood } from '../bin';
import { keepFile } from '../files/store';
import { addProject, makeSection } from '../projects';
import { searchEverything } from '../search';
import { undo } from '../sources';
import { insertSource } from '../sources/repository';
import { addTask, changeTask, listTasks, newTask } from '../tasks';
import { keepTestCopy, openBefore, openTestLibrary } from '../test-library';
import { migrationSource } from '../db/migrations';
import { closePools } from '../workers/pools';
import {
  annotationsOfCopy,
  bringAnnotations,
  carryPassages,
  changeMany,
  editPassage,
  keepPassage,
  linkPassages,
  linksOf,
  listPassages,
  passagesToCopy,
  peopleOfPassages,
  tagsOfPassages,
  unlinkPassages,
  writePassages,
} from './index';
import { getPassage } from './repository';

let db: Knex;
let ctx: Context;
let colleague: Context;
let sourceId: string;
let copyId: string;
const TEXT = 'A page.\nThe gates stood open for six years.\nMarsh came back within them.\n';
const HTML = '<h1>A page.</h1><p>The gates stood open for six years.</p><p>Marsh came back within them.</p>';
const look = { style: 'apa', locale: 'en-US' };

beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  await db('person').insert({ id: 'colleague', name: 'A colleague', created: 'x' });
  colleague = { ...ctx, personId: 'colleague', role: 'editor' };
  const record = sourceRecord.parse({
    type: 'book',
    title: 'Sluices',
    author: [{ family: 'Pell', given: 'A.' }],
    issued: { 'date-parts': [[2001]] },
    publisher: 'Harbour Press',
  });
  const reading = await keepFile(Buffer.from(HTML));
  await transaction(ctx, async (inner) => {
    sourceId = (await insertSource(inner, record, { checked: true, why: 'test' })).id;
    copyId = (await keepTestCopy(inner, sourceId, { text: TEXT, reading_sha256: reading })).id;
  });
});
afterEach(() => db.destroy());
afterAll(() => closePools());

const said = {
  kind: 'quotation' as const,
  tint: 'claim' as const,
  gist: '',
  ownWords: '',
  locator: null,
  visibility: 'library' as const,
};
const at = (words: string) => {
  const start = TEXT.indexOf(words);
  return locate(TEXT, start, start + words.length);
};
const keep = (words: string, more: object = {}) =>
  keepPassage(ctx, { ...said, copyId, selectors: at(words), ...more });
const ids = async (filter: Parameters<typeof listPassages>[1], who = ctx) =>
  (await listPassages(who, filter)).items.map((p) => p.id);

describe('what is kept', () => {
  it('may be a word on the whole of a copy, or of a work no copy of which is here', async () => {
    const whole = await keepPassage(ctx, {
      ...said,
      kind: 'response',
      gist: 'Too few sites',
      copyId,
      selectors: null,
    });
    expect(whole).toMatchObject({ copyId, exact: '', selectors: null, sourceId });
    const print = await keepPassage(ctx, {
      ...said,
      copyId: null,
      sourceId,
      selectors: null,
      exact: ' Read in the library. ',
      locator: { label: 'page', value: '12' },
    });
    expect(print).toMatchObject({ copyId: null, exact: 'Read in the library.', anchor: 'found' });
    await expect(
      keepPassage(ctx, { ...said, copyId: null, sourceId: 'elsewhere', selectors: null, exact: 'x' }),
    ).rejects.toMatchObject({ code: 'not-here' });
    const changed = await editPassage(ctx, print.id, {
      base: 1,
      said: { ...said, wording: null, tags: [] },
      exact: 'Read there.',
    });
    expect(changed.passage.exact).toBe('Read there.');
  });
  it('of two stretches keeps both places, is lost when one of them is, and refuses those that overlap', async () => {
    const place = { copyId, selectors: at('Marsh came back'), further: [at('stood open')] };
    const { id, exact, further } = await keepPassage(ctx, { ...said, ...place });
    expect(exact).toBe('stood open […] Marsh came back');
    expect(further).toMatchObject([{ quote: { exact: 'Marsh came back' } }]);
    expect((await listPassages(ctx, { state: 'changed' })).total).toBe(0);
    await expect(
      keepPassage(ctx, { ...said, ...place, further: [at('came back within')] }),
    ).rejects.toMatchObject({
      status: 422,
    });
    const half = HTML.replace('<p>Marsh came back within them.</p>', '<p>Nothing came.</p>');
    const other = await transaction(ctx, async (inner) => {
      const reading = await keepFile(Buffer.from(half));
      const text = TEXT.replace('Marsh came back within them.', 'Nothing came.');
      return keepTestCopy(inner, sourceId, { text, reading_sha256: reading });
    });
    expect((await carryPassages(ctx, copyId, other.id)).passages).toMatchObject({ lost: 1, found: 0 });
    expect((await getPassage(ctx, id)).copyId).toBe(copyId);
  });
  it('can be set to other words of its copy, and undone', async () => {
    const { id } = await keep('stood open');
    const words = { ...said, wording: 'The gates […] open', tags: ['law'] };
    const { passage, revisionId } = await editPassage(ctx, id, {
      base: 1,
      said: words,
      selectors: at('The gates stood open'),
    });
    expect(passage).toMatchObject({ exact: 'The gates stood open', wording: 'The gates […] open' });
    await undo(ctx, [revisionId!]);
    expect(await getPassage(ctx, id)).toMatchObject({ exact: 'stood open', wording: null, tags: [] });
    expect(await tagsOfPassages(ctx)).toEqual([]);
    await expect(
      editPassage(ctx, id, { base: 3, said: words, selectors: locate('other words', 0, 5) }),
    ).rejects.toMatchObject({ status: 422 });
  });
  it('is narrowed by who kept it', async () => {
    await keep('stood open');
    await keep('stood open', { visibility: 'private' });
    const { id } = await keepPassage(colleague, { ...said, copyId, selectors: at('Marsh came back') });
    expect((await listPassages(ctx, { personId: 'colleague' })).items.map((p) => p.id)).toEqual([id]);
    expect((await peopleOfPassages(ctx)).map(({ id: who, n }) => [who, n])).toEqual([
      ['colleague', 1],
      [ctx.personId, 2],
    ]);
    expect((await peopleOfPassages(colleague)).map(({ n }) => n)).toEqual([1, 1]);
  });
  it('is narrowed by what it is, what is wanting, its tags and sections', async () => {
    const project = await addProject(ctx, { name: 'A paper', ...look });
    const section = await makeSection(ctx, project.id, 'Decline');
    const page = { label: 'page' as const, value: '3' };
    const a = await keep('stood open', { tags: ['gates'], locator: page, ownWords: 'Nobody shut it.' });
    const b = await keep('Marsh came back', { kind: 'mark' });
    const whole = await keepPassage(ctx, { ...said, gist: 'Thin', copyId, selectors: null });
    expect(await ids({ tag: 'gates' })).toEqual([a.id]);
    expect(await ids({ state: 'no place' })).toEqual([b.id]);
    expect(await ids({ state: 'no own words' })).toEqual([]);
    await addTask(ctx, {
      text: 'Check it',
      due: null,
      sourceId: null,
      passageId: b.id,
      visibility: 'library',
    });
    expect(await ids({ state: 'open task' })).toEqual([b.id]);
    expect((await changeMany(ctx, [b.id, a.id], { act: 'place', sectionId: section.id })).changed).toEqual([
      b.id,
      a.id,
    ]);
    expect((await listPassages(ctx, { sectionId: section.id })).items[0]!.sections).toEqual(
      [section].map(({ id, name }) => ({ id, name })),
    );
    const order = (await listPassages(ctx, {}, 10, 'source')).items.map((p) => p.id);
    expect(order).toEqual([whole.id, a.id, b.id]);
    expect((await changeMany(ctx, [a.id], { act: 'unplace', sectionId: section.id })).changed).toEqual([
      a.id,
    ]);
  });
});

describe('several at once', () => {
  it('are tagged, and that is one thing to take back; one that is gone refuses them all', async () => {
    const [a, b] = [await keep('stood open', { tags: ['old'] }), await keep('Marsh came back')];
    const { revisions } = await changeMany(ctx, [a.id, b.id], { act: 'tag', tag: 'new' });
    expect(await tagsOfPassages(ctx)).toEqual([
      { tag: 'new', n: 2 },
      { tag: 'old', n: 1 },
    ]);
    await expect(changeMany(ctx, [a.id, 'gone'], { act: 'bin' })).rejects.toMatchObject({ status: 404 });
    expect((await listPassages(ctx, {})).total).toBe(2);
    await undo(ctx, revisions);
    expect(await tagsOfPassages(ctx)).toEqual([{ tag: 'old', n: 1 }]);
    expect((await searchEverything(ctx, 'old', look, { limit: 5 })).passages.total).toBe(1);
  });
});

describe('links', () => {
  it('are seen from both ends, and are gone with a passage in the bin', async () => {
    const [a, b] = [await keep('stood open'), await keep('Marsh came back')];
    expect(await linkPassages(ctx, b.id, a.id, 'supports')).toEqual({ before: null });
    const links = await linksOf(ctx, [a.id, b.id]);
    expect(links.get(a.id)).toMatchObject([{ kind: 'supports', way: 'from', other: { id: b.id } }]);
    expect(links.get(b.id)).toMatchObject([{ kind: 'supports', way: 'to', other: { id: a.id } }]);
    expect(await linkPassages(ctx, b.id, a.id, 'contradicts')).toEqual({ before: 'supports' });
    await expect(linkPassages(ctx, a.id, a.id, 'see also')).rejects.toMatchObject({ status: 422 });
    const { revisions } = await changeMany(ctx, [a.id], { act: 'bin' });
    expect((await linksOf(ctx, [b.id])).size).toBe(0);
    await undo(ctx, revisions);
    expect(await unlinkPassages(ctx, b.id, a.id)).toEqual({ before: 'contradicts' });
    expect((await linksOf(ctx, [b.id])).size).toBe(0);
  });
  it('to what somebody keeps private are not there for others', async () => {
    const [mine, open] = [await keep('stood open', { visibility: 'private' }), await keep('Marsh came back')];
    await linkPassages(ctx, mine.id, open.id, 'see also');
    expect((await linksOf(ctx, [open.id])).size).toBe(1);
    expect((await linksOf(colleague, [open.id])).size).toBe(0);
    await expect(linkPassages(colleague, open.id, mine.id, 'see also')).rejects.toMatchObject({
      code: 'not-here',
    });
  });
});

describe('tasks', () => {
  const task = {
    text: 'Check the table',
    due: null,
    sourceId: null,
    passageId: null,
    visibility: 'library' as const,
  };
  it('stand at a passage and its source, the soonest due first; ticking off is undone', async () => {
    const a = await keep('stood open', { gist: 'Open gates' });
    await addTask(ctx, { ...task, text: 'Sometime', sourceId });
    const soon = await addTask(ctx, { ...task, due: '2026-12-01', passageId: a.id });
    const listed = await listTasks(ctx, { sourceId });
    expect(listed.map((t) => t.text)).toEqual(['Check the table', 'Sometime']);
    expect(listed[0]).toMatchObject({ sourceLabel: 'Pell 2001', passage: { line: 'Open gates', copyId } });
    const { revisionId } = await changeTask(ctx, soon.id, { base: 1, done: true });
    expect((await listTasks(ctx, {})).map((t) => t.text)).toEqual(['Sometime']);
    expect(await listTasks(ctx, { withDone: true })).toHaveLength(2);
    await undo(ctx, [revisionId!]);
    expect(await listTasks(ctx, {})).toHaveLength(2);
  });
  it('name what they are at, or nothing', () => {
    expect(newTask.safeParse({ text: 'x', passageId: '' }).success).toBe(false);
    expect(newTask.safeParse({ text: ' ' }).success).toBe(false);
    expect(newTask.safeParse({ text: 'x' }).success).toBe(true);
  });
  it('at what is private are private', async () => {
    const mine = await keep('stood open', { visibility: 'private' });
    const { id } = await addTask(ctx, { ...task, passageId: mine.id });
    expect(await listTasks(ctx, {})).toHaveLength(1);
    expect(await listTasks(colleague, {})).toEqual([]);
    await expect(changeTask(colleague, id, { base: 1, done: true })).rejects.toMatchObject({
      code: 'not-here',
    });
    await expect(addTask(colleague, { ...task, passageId: mine.id })).rejects.toMatchObject({
      code: 'not-here',
    });
  });
  it('go to the bin, and leave with the passage they are at', async () => {
    const a = await keep('stood open');
    const b = await addTask(ctx, { ...task, passageId: a.id });
    await changeTask(ctx, b.id, { base: 1, binned: true });
    expect((await binOf(ctx)).tasks).toMatchObject([{ id: b.id, text: 'Check the table' }]);
    expect((await binOf(colleague)).tasks).toHaveLength(1);
    await changeMany(ctx, [a.id], { act: 'bin' });
    await deleteForGood(ctx, 'passages', [a.id]);
    expect(await db('task')).toEqual([]);
  });
});

describe('going out', () => {
  it('is cited in the style, in the order asked for, in every format', async () => {
    const a = await keep('stood open', {
      wording: '[The gates] stood open',
      locator: { label: 'page', value: '3' },
      ownWords: 'Nobody shut it.',
    });
    const b = await keep('Marsh came back', { kind: 'paraphrase', ownWords: 'It grew again.' });
    const given = { ids: [b.id, a.id], layout: 'below' as const, title: 'For the meeting' };
    const text = (await writePassages(ctx, { ...given, as: 'text' }, look)).body;
    expect(text).toContain('“[The gates] stood open” (Pell, 2001, p. 3)');
    expect(text).toContain('It grew again. (Pell, 2001)');
    expect(text.indexOf('It grew')).toBeLessThan(text.indexOf('stood open'));
    expect(text).toContain('Pell, A. (2001). Sluices. Harbour Press.');
    const csv = (await writePassages(ctx, { ...given, as: 'csv' }, look)).body;
    expect(csv.split('\r\n')).toHaveLength(4);
    const docx = await writePassages(ctx, { ...given, as: 'docx', layout: 'beside' }, look);
    const xml = Buffer.from(unzipSync(Buffer.from(docx.body, 'base64'))['word/document.xml']!).toString(
      'utf8',
    );
    expect(xml.match(/<w:tr[ >]/g)).toHaveLength(2);
    expect(xml).toContain('[The gates] stood open');
    const { plain, rich } = await passagesToCopy(ctx, [a.id], look, 'below');
    expect(plain).toContain('Nobody shut it.');
    expect(rich).toContain('<blockquote');
    await expect(writePassages(ctx, { ...given, ids: ['gone'], as: 'csv' }, look)).rejects.toMatchObject({
      status: 404,
    });
  });
  it('numbers works as the list does, in a style that numbers', async () => {
    const other = await transaction(ctx, (inner) =>
      insertSource(inner, sourceRecord.parse({ type: 'book', title: 'Tides' }), { why: 'test' }),
    );
    const a = await keep('stood open');
    const b = await keepPassage(ctx, {
      ...said,
      copyId: null,
      sourceId: other.id,
      selectors: null,
      exact: 'x',
    });
    const numbered = { style: 'ieee', locale: 'en-US' };
    const { plain } = await passagesToCopy(ctx, [b.id, a.id], numbered, 'below');
    expect(plain).toContain('“x” [1]');
    expect(plain).toContain('“stood open” [2]');
    expect(plain.indexOf('[1]Tides') === -1 ? plain.indexOf('[1] Tides') : 0).toBeGreaterThan(-1);
  });
});

describe('annotations of the W3C model', () => {
  const bytes = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
  it('go out and come in again as they were', async () => {
    await keep('stood open', {
      tags: ['gates'],
      ownWords: 'Nobody shut it.',
      locator: { label: 'page', value: '3' },
    });
    await keepPassage(ctx, { ...said, kind: 'response', gist: 'Thin', copyId, selectors: null });
    const { body } = await annotationsOfCopy(ctx, copyId);
    expect(await bringAnnotations(ctx, copyId, new TextEncoder().encode(body))).toMatchObject({
      kept: [],
      already: 2,
    });
    const all = (await listPassages(ctx, {})).items;
    await changeMany(
      ctx,
      all.map((p) => p.id),
      { act: 'bin' },
    );
    const brought = await bringAnnotations(ctx, copyId, new TextEncoder().encode(body));
    expect(brought.kept).toHaveLength(2);
    const words = (p: (typeof all)[number]) => [
      p.kind,
      p.exact,
      p.gist,
      p.ownWords,
      p.tags,
      p.locator,
      p.selectors,
    ];
    expect((await listPassages(ctx, {})).items.map(words).sort()).toEqual(all.map(words).sort());
  });
  it('say what is not in the text, and what cannot be read, and keep the others with their place', async () => {
    const on = (selector: object) => ({ type: 'Annotation', body: [], target: { source: 'x', selector } });
    const brought = await bringAnnotations(
      ctx,
      copyId,
      bytes([
        on({ type: 'TextQuoteSelector', exact: 'Marsh came back', prefix: '', suffix: '' }),
        on({ type: 'TextQuoteSelector', exact: 'Nothing of this is said anywhere' }),
        on({ type: 'TextPositionSelector', start: 8, end: 17 }),
        { type: 'Note' },
      ]),
    );
    expect(brought).toMatchObject({
      lost: [{ nth: 2, words: 'Nothing of this is said anywhere' }],
      problems: [{ nth: 4, reason: 'its type is not Annotation' }],
    });
    const kept = (await listPassages(ctx, {}, 10, 'source')).items;
    expect(kept.map((p) => [p.exact, p.locator?.value])).toEqual([
      ['The gates', '1'],
      ['Marsh came back', '2'],
    ]);
    await expect(bringAnnotations(ctx, copyId, bytes('x').slice(1))).rejects.toMatchObject({ status: 422 });
  });
});

describe('carried to another copy', () => {
  it('passages found there go over with its printed page, the others stay; it is one thing to take back', async () => {
    const html =
      '<section class="leaf" data-leaf="1" data-page="41"><p><span class="line">The gates stood open for six years.</span></p></section>';
    const reading = await keepFile(Buffer.from(html));
    const pdf = await transaction(ctx, (inner) =>
      keepTestCopy(inner, sourceId, {
        kind: 'pdf',
        text: 'The gates stood open for six years.\n',
        reading_sha256: reading,
        labels: ['41'],
      }),
    );
    const open = await keep('stood open', { locator: { label: 'paragraph', value: '1' } });
    const marsh = await keep('Marsh came back within them');
    const whole = await keepPassage(ctx, { ...said, gist: 'Thin', copyId, selectors: null });
    const carried = await carryPassages(ctx, copyId, pdf.id);
    expect(carried.passages).toMatchObject({ lost: 1 });
    expect(await getPassage(ctx, open.id)).toMatchObject({
      copyId: pdf.id,
      locator: { label: 'page', value: '41' },
      exact: 'stood open',
    });
    expect(await getPassage(ctx, marsh.id)).toMatchObject({ copyId, anchor: 'found', revision: 1 });
    expect(await getPassage(ctx, whole.id)).toMatchObject({ copyId: pdf.id });
    await undo(ctx, carried.revisions);
    expect(await getPassage(ctx, open.id)).toMatchObject({
      copyId,
      locator: { label: 'paragraph', value: '1' },
    });
    const other = await transaction(ctx, (inner) =>
      insertSource(inner, sourceRecord.parse({ type: 'book', title: 'Tides' }), { why: 'test' }),
    );
    const elsewhere = await transaction(ctx, (inner) => keepTestCopy(inner, other.id, { text: TEXT }));
    await expect(carryPassages(ctx, copyId, elsewhere.id)).rejects.toMatchObject({ status: 422 });
  });
});

describe('the schema of passages', () => {
  it('calls what was a comment a response, in the history too', async () => {
    const before = await openBefore('0016-passages');
    const row = {
      library_id: 'l',
      owner_id: 'p',
      source_id: 's',
      gist: 'comment',
      own_words: '',
      tint: 'claim',
    };
    await before('passage').insert({
      ...row,
      id: 'a',
      kind: 'comment',
      exact: 'comment',
      visibility: 'library',
      anchor: 'found',
      revision: 1,
      added: 'x',
    });
    await before('revision').insert({
      ...{
        id: 'r',
        library_id: 'l',
        subject: 'passage',
        subject_id: 'a',
        number: 1,
        person_id: 'p',
        at: 'x',
      },
      why: 'kept',
      forward:
        '[{"op":"add","path":"/kind","value":"comment"},{"op":"add","path":"/gist","value":"comment"}]',
      backward: '[{"op":"remove","path":"/kind"}]',
    });
    await before.migrate.latest({ migrationSource });
    expect(await before('passage').first()).toMatchObject({ kind: 'response', gist: 'comment', tags: '[]' });
    expect(((await before('revision').first()) as { forward: string }).forward).toBe(
      '[{"op":"add","path":"/kind","value":"response"},{"op":"add","path":"/gist","value":"comment"}]',
    );
    await before.destroy();
  });
});
