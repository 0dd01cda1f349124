/** A draft as it is kept, checked and written out. */
import { createCanvas } from '@napi-rs/canvas';
import { Document, Packer, Paragraph } from 'docx';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Block, CitedWork, Inline } from '../../core/drafting';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { merge } from '../duplicates';
import { keepFile } from '../files/store';
import { getJob } from '../jobs';
import { keepPassage } from '../passages';
import { addProject, file } from '../projects';
import { insertSource } from '../sources/repository';
import { keepTestCopy, openTestLibrary } from '../test-library';
import { closePools } from '../workers/pools';
import {
  changeListed,
  changeVersions,
  checksOf,
  draftPicture,
  draftSave,
  draftSince,
  dropTemplate,
  findDraft,
  findWorks,
  keepDraftPicture,
  lastBorrowed,
  listVersions,
  lookForBorrowed,
  openDraft,
  printGiven,
  readVersion,
  saveDraft,
  usesOf,
  worksFor,
  writeDraft,
  writeInTemplate,
} from './index';

let db: Knex;
let ctx: Context;
let projectId: string;
let draftId: string;
let pell: string;
let ng: string;
const look = { style: 'apa', locale: 'en-US' };

const add = (family: string, title: string, more = {}) =>
  transaction(ctx, async (inner) => {
    const record = sourceRecord.parse({ type: 'book', title, author: [{ family, given: 'A.' }], issued: { 'date-parts': [[2001]] }, publisher: 'Harbour Press', ...more }); // prettier-ignore
    return (await insertSource(inner, record, { why: 'test' })).id;
  });

beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  projectId = (await addProject(ctx, { name: 'Tide mills', ...look })).id;
  draftId = (await openDraft(ctx, projectId)).id;
  [pell, ng] = [await add('Pell', 'Sluices'), await add('Ng', 'Gates')];
});
afterEach(() => db.destroy());
afterAll(() => closePools());

const said = (words: string, ...cites: CitedWork[]): Block => ({
  type: 'paragraph',
  content: [
    { type: 'text', text: words },
    ...cites.map((work, i) => ({ type: 'cite' as const, attrs: { id: `${words.slice(0, 40)}${i}`, works: [work], named: false } })),
  ],
}); // prettier-ignore
const save = (since: number, more: object) => saveDraft(ctx, draftId, draftSave.parse({ since, ...more }));
const put = (id: string, content: Block, base: number | null = null) => ({ id, base, content });
const texts = async () =>
  (await draftSince(ctx, draftId)).parts.map(({ content }) => {
    const [first] = (content as Extract<Block, { type: 'paragraph' }>).content ?? [];
    return first?.type === 'text' ? first.text : '';
  });

describe('two windows', () => {
  it('write different parts, and each is told what the other did', async () => {
    const one = await save(0, { page: 'one', puts: [put('a', said('A')), put('b', said('B'))], order: ['a', 'b'] });
    expect(one).toMatchObject({ revision: 1, clashes: [], parts: [] });
    const two = await save(1, { page: 'two', puts: [put('c', said('C'))], order: ['a', 'c', 'b'] });
    expect(two).toMatchObject({ revision: 2, order: ['a', 'c', 'b'] });
    // The first window does not know of the third part yet, and puts the second before the first.
    const again = await save(1, { page: 'one', puts: [put('a', said('A!'), 1)], order: ['b', 'a'] });
    expect(again.clashes).toEqual([]);
    expect(again.parts.map((p) => p.id)).toEqual(['c']);
    expect(await texts()).toEqual(['B', 'A!', 'C']);
  }); // prettier-ignore

  it('never write over each other: who comes later is shown what stands there', async () => {
    await save(0, { page: 'one', puts: [put('a', said('A'))], order: ['a'] });
    await save(1, { page: 'two', puts: [put('a', said('theirs'), 1)] });
    const late = await save(1, { page: 'one', puts: [put('a', said('mine'), 1)] });
    expect(late.clashes).toEqual([{ id: 'a', revision: 2, theirs: said('theirs') }]);
    expect(await texts()).toEqual(['theirs']);
    // Decided with what one saw, it is written.
    expect((await save(2, { page: 'one', puts: [put('a', said('mine'), 2)] })).clashes).toEqual([]);
    expect(await texts()).toEqual(['mine']);
  });

  it('what one took out and the other wrote stays; what both wrote alike is no clash', async () => {
    await save(0, { page: 'one', puts: [put('a', said('A')), put('b', said('B'))], order: ['a', 'b'] });
    await save(1, { page: 'two', puts: [put('b', said('B, and more'), 1)] });
    const out = await save(1, { page: 'one', gone: [{ id: 'b', base: 1 }], order: ['a'] });
    expect(out.parts.map((p) => [p.id, p.content])).toEqual([['b', said('B, and more')]]);
    expect(await texts()).toEqual(['A', 'B, and more']);
    expect((await save(9, { page: 'one', puts: [put('b', said('B, and more'), 1)] })).clashes).toEqual([]);
    // What was taken out where the other wrote is a clash with nothing.
    await save(9, { page: 'two', gone: [{ id: 'a', base: 1 }], order: ['b'] });
    expect((await save(1, { page: 'one', puts: [put('a', said('A?'), 1)] })).clashes).toMatchObject([{ id: 'a', theirs: null }]); // prettier-ignore
  });

  it('a window does not clash with itself when an answer of the server was lost', async () => {
    await save(0, { page: 'one', puts: [put('a', said('A'))], order: ['a'] });
    expect((await save(0, { page: 'one', puts: [put('a', said('A B'))] })).clashes).toEqual([]);
    expect(await texts()).toEqual(['A B']);
  });

  it('what is not a part, or is one of another draft, is refused whole', async () => {
    await save(0, { page: 'one', puts: [put('a', said('A'))], order: ['a'] });
    const other = await openDraft(ctx, (await addProject(ctx, { name: 'Other', ...look })).id);
    await expect(saveDraft(ctx, other.id, draftSave.parse({ since: 0, puts: [put('b', said('B')), put('a', said('x'))] }))).rejects.toMatchObject({ status: 422 }); // prettier-ignore
    expect((await draftSince(ctx, other.id)).parts).toEqual([]);
    expect(draftSave.safeParse({ since: 0, puts: [{ id: 'a', base: null, content: { type: 'iframe' } }] }).success).toBe(false); // prettier-ignore
  });
});

it('has versions: by a name, by themselves before what is changed after a while, and as they were', async () => {
  await save(0, { page: 'one', puts: [put('a', said('First'))], order: ['a'] });
  const { versions } = await changeVersions(ctx, draftId, { act: 'keep', name: 'Half' });
  expect(versions).toMatchObject([{ name: 'Half', words: 1 }]);
  await save(1, { page: 'one', puts: [put('a', said('Second, longer'), 1)] });
  expect(await listVersions(ctx, draftId)).toHaveLength(1);
  await db('draft_version').update({ made: '2020-01-01T00:00:00.000Z' });
  await save(2, { page: 'one', puts: [put('a', said('Third'), 2)] });
  const all = await listVersions(ctx, draftId);
  expect(all.map((v) => [v.name, v.words])).toEqual([
    ['', 2],
    ['Half', 1],
  ]);
  expect((await readVersion(ctx, draftId, all[1]!.id))[0]!.content).toEqual(said('First'));
});

it('knows what is used in it, as long as it stands there', async () => {
  const { id: quote } = await keepPassage(ctx, { copyId: null, sourceId: pell, kind: 'quotation', tint: 'claim', exact: 'The gates stood open.', gist: '', ownWords: '', locator: null, visibility: 'library', selectors: null }); // prettier-ignore
  const content: Block = {
    type: 'blockquote',
    attrs: { passage: quote },
    content: [said('Open', { id: pell })],
  };
  await save(0, { page: 'one', puts: [put('a', content)], order: ['a'] });
  expect(Object.keys(await usesOf(ctx, 'passage', [quote]))).toEqual([quote]);
  await save(1, { page: 'one', gone: [{ id: 'a', base: 1 }], order: [] });
  expect(await usesOf(ctx, 'passage', [quote])).toEqual({});
});

it('cites the survivor of a merge by the id of what went into it', async () => {
  const twice = await add('Pell', 'Sluices');
  await merge(ctx, { ids: [pell, twice], bases: [1, 1] });
  const { works, at } = await worksFor(ctx, [twice, pell, 'nothing']);
  expect(works.map((w) => w.item.id)).toEqual([pell]);
  expect(at).toEqual({ [twice]: pell, [pell]: pell });
});

it('finds works by words, by a citekey, and passages with their place', async () => {
  await keepPassage(ctx, { copyId: null, sourceId: ng, kind: 'quotation', tint: 'claim', exact: 'Sluiced at every spring tide.', gist: '', ownWords: '', locator: { label: 'page', value: '7' }, visibility: 'library', selectors: null }); // prettier-ignore
  const find = async (words: string) => (await findWorks(ctx, { words }, look)).found;
  expect((await find('sluices')).map((f) => f.id)).toEqual([pell]);
  const { citekey } = (await find('ng gates'))[0]!;
  expect((await find(`@${citekey}`)).map((f) => f.id)).toEqual([ng]);
  expect((await find('spring tide')).map((f) => [f.id, f.passage?.locator?.value])).toEqual([[ng, '7']]);
  expect(await find('nobody wrote this')).toEqual([]);
});

it('is checked with the records and passages there are', async () => {
  const bare = await add('Fitch', 'Ponds', { publisher: undefined });
  await save(0, { page: 'one', puts: [put('a', said('A', { id: bare })), put('b', said('B', { id: 'gone' }))], order: ['a', 'b'] }); // prettier-ignore
  await changeListed(ctx, draftId, { add: [ng], drop: [] });
  const { findings } = await checksOf(ctx, draftId, look);
  expect(findings.map((f) => [f.check, f.part])).toEqual([
    ['fields-missing', 'a'],
    ['work-gone', 'b'],
    ['listed-uncited', ''],
  ]);
  expect(findings[0]!.words).toContain('publisher');
});

describe('written out', () => {
  beforeEach(async () => {
    const blocks: Block[] = [
      { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: 'Gates & ponds' }] },
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'They stood ', marks: [{ type: 'remark', attrs: { words: 'check this' } }] },
          { type: 'text', text: 'open', marks: [{ type: 'italic' }] },
          { type: 'text', text: ' ' },
          { type: 'cite', attrs: { id: 'c1', works: [{ id: pell, locator: '7', label: 'page', prefix: 'see' }, { id: ng }], named: false } },
          { type: 'footnote', attrs: { id: 'f1', content: [{ type: 'text', text: 'More in ' }, { type: 'cite', attrs: { id: 'c2', works: [{ id: ng }], named: true } }] } },
          { type: 'text', text: '. See ' },
          { type: 'crossref', attrs: { to: 't' } },
          { type: 'text', text: ' and ' },
          { type: 'formula', attrs: { tex: 'h = \\frac{Q}{v}' } },
        ],
      },
      { type: 'table', attrs: { caption: 'Tides' }, content: [{ type: 'tableRow', content: [{ type: 'tableHeader', content: [said('Day')] }, { type: 'tableHeader', content: [said('Height')] }] }, { type: 'tableRow', content: [{ type: 'tableCell', content: [said('1')] }, { type: 'tableCell', content: [said('4 | 5')] }] }] },
      { type: 'orderedList', content: [{ type: 'listItem', content: [said('One')] }, { type: 'listItem', content: [said('Two')] }] },
    ]; // prettier-ignore
    const ids = ['h', 'p', 't', 'l'];
    await save(0, { page: 'one', puts: blocks.map((content, i) => put(ids[i]!, content)), order: ids });
  });
  const out = async (as: 'docx' | 'odt' | 'html' | 'markdown' | 'latex', citing: 'keys' | 'printed' = 'printed', style = 'apa') =>
    writeDraft(ctx, draftId, { as, citing }, { ...look, style }); // prettier-ignore
  const unzipped = (body: string) =>
    Object.fromEntries(
      Object.entries(unzipSync(Buffer.from(body, 'base64'))).map(([name, bytes]) => [
        name,
        new TextDecoder().decode(bytes),
      ]),
    );

  it('as Markdown, with its list, without words to oneself', async () => {
    const { body } = await out('markdown');
    expect(body).toContain('## Gates \\& ponds\n\nThey stood *open* (Ng, 2001; see Pell, 2001, p. 7)[^1]. See Table 1 and $h = \\frac{Q}{v}$');
    expect(body).toContain('[^1]: More in Ng (2001)');
    expect(body).toContain('| Day | Height |\n| --- | --- |\n| 1 | 4 \\| 5 |\n\n: Table 1. Tides');
    expect(body).toContain('1. One\n2. Two');
    expect(body).toContain('## References\n\nNg, A. (2001). *Gates*. Harbour Press.\n\nPell, A. (2001). *Sluices*. Harbour Press.');
    expect(body).not.toContain('check this');
  }); // prettier-ignore

  it('with citekeys, and the references beside it', async () => {
    const { body } = await out('markdown', 'keys');
    const files = unzipped(body);
    expect(Object.keys(files).sort()).toEqual(['draft.md', 'references.json']);
    expect(files['draft.md']).toMatch(/\[see @pell2001\w*, p\. 7; @ng2001\w*\]\[\^1\]/);
    expect(files['draft.md']).toMatch(/\[\^1\]: More in @ng2001/);
    expect((JSON.parse(files['references.json']!) as unknown[]).length).toBe(2);
    const latex = unzipped((await out('latex', 'keys')).body);
    expect(latex['draft.tex']).toMatch(/\\parencites\[see\]\[7\]\{pell2001\w*\}\{ng2001\w*\}\\footnote\{More in \\textcite\{ng2001/);
    expect(latex['draft.tex']).toContain('\\section{Gates \\& ponds}\\label{h}');
    expect(latex['references.bib']).toContain('Sluices');
  }); // prettier-ignore

  it('as .docx with true headings, footnotes, captions that are pointed at, and a table', async () => {
    const files = unzipped((await out('docx')).body);
    const xml = files['word/document.xml']!;
    expect(xml).toMatch(/<w:pStyle w:val="Heading1"\/>[\s\S]*?Gates &amp; ponds/);
    expect(xml).toContain('<w:footnoteReference w:id="1"/>');
    expect(files['word/footnotes.xml']).toContain('More in ');
    expect(xml).toMatch(/w:pStyle w:val="Caption"[\s\S]*?w:bookmarkStart w:name="pt"/);
    expect(xml).toContain('w:anchor="pt"');
    expect(xml).not.toContain('check this');
  });

  it('as .docx whose citations can be printed again, in the text and in notes', async () => {
    for (const style of ['apa', 'chicago-fullnote-bibliography']) {
      const files = unzipped((await out('docx', 'keys', style)).body);
      const plain = unzipped((await out('docx', 'printed', style)).body);
      const text = (xml = '') => xml.replace(/<\/w:p>/g, '\n').replace(/<[^>]+>/g, '').replace(/ +/g, ' ').trim();
      expect(text(files['word/document.xml'])).toBe(text(plain['word/document.xml']));
      const notes = (xml?: string) => text(xml).split('\n').map((note) => note.trim()).sort();
      expect(notes(files['word/footnotes.xml'])).toEqual(notes(plain['word/footnotes.xml']));
      expect(files['customXml/retexa.xml']).toMatch(/says="\[see @pell2001\w*, p\. 7; @ng2001\w*\]"/);
    }
  }); // prettier-ignore

  it('as .docx in the styles of a template, found by what they are called', async () => {
    const template = await Packer.toBuffer(
      new Document({
        styles: {
          default: { heading1: { run: { font: 'Garamond', size: 40 } } },
          paragraphStyles: [{ id: 'Zitat', name: 'Quote', run: { italics: true } }],
        },
        sections: [{ properties: { page: { margin: { left: 2_222 } } }, children: [new Paragraph('Names')] }],
      }),
    );
    // As a program in another language calls it.
    const german = unzipSync(new Uint8Array(template));
    german['word/styles.xml'] = strToU8(strFromU8(german['word/styles.xml']!).replaceAll('"Heading1"', '"berschrift1"'));
    const made = await writeDraft(ctx, draftId, { as: 'docx', citing: 'keys' }, look, zipSync(german));
    const files = unzipped(made.body);
    const xml = files['word/document.xml']!;
    expect(files['word/styles.xml']).toContain('Garamond');
    expect(xml).toMatch(/<w:pStyle w:val="berschrift1"\/>/);
    expect(xml).not.toContain('"Heading1"');
    expect(xml).toContain('w:left="2222"');
    expect(xml.replace(/<[^>]+>/g, '')).toContain('(Ng, 2001; see Pell, 2001, p. 7)');
    // What the template has no style for keeps its own.
    expect(files['word/styles.xml']).toMatch(/w:styleId="Caption"/);
    await expect(writeDraft(ctx, draftId, { as: 'docx', citing: 'keys' }, look, new Uint8Array(9))).rejects.toMatchObject({ status: 422 });
  }); // prettier-ignore

  it('in a template that is kept with it for the next time, by who may change it, until it is taken off', async () => {
    const look = { style: 'apa', locale: 'en-US' };
    const bytes = new Uint8Array(await Packer.toBuffer(new Document({ styles: { default: { heading1: { run: { font: 'Garamond' } } } }, sections: [{ children: [new Paragraph('Names')] }] }))); // prettier-ignore
    const kept = async () => (await findDraft(ctx, projectId))?.template;
    const again = { as: 'docx', citing: 'keys', template: true } as const;
    await expect(writeDraft(ctx, draftId, again, look)).rejects.toMatchObject({ status: 409 });
    const given = { name: 'thesis.docx', bytes };
    // Who may only read gets the document, and what is no template is not kept.
    await writeInTemplate({ ...ctx, role: 'reader' }, draftId, given, look);
    await expect(writeInTemplate(ctx, draftId, { ...given, bytes: new Uint8Array(9) }, look)).rejects.toMatchObject({ status: 422 }); // prettier-ignore
    expect(await kept()).toBeUndefined();
    const made = await writeInTemplate(ctx, draftId, given, look);
    expect(await kept()).toMatchObject({ name: 'thesis.docx' });
    const styles = (body: string) => unzipped(body)['word/styles.xml'];
    expect(styles((await writeDraft(ctx, draftId, again, look)).body)).toBe(styles(made.body));
    await expect(dropTemplate({ ...ctx, role: 'annotator' }, draftId)).rejects.toMatchObject({ status: 403 });
    const { sha256 } = (await kept())!;
    await dropTemplate(ctx, draftId);
    expect(await kept()).toBeUndefined();
    expect(await db('leaving_file').pluck('sha256')).toEqual([sha256]);
  });

  it('with pictures of one’s own, whose captions cite, as long as the draft is there', async () => {
    const png = createCanvas(40, 30).toBuffer('image/png');
    await expect(keepDraftPicture(ctx, draftId, new Uint8Array(20))).rejects.toMatchObject({ status: 422 });
    await expect(keepDraftPicture({ ...ctx, role: 'annotator' }, draftId, png)).rejects.toMatchObject({ status: 403 }); // prettier-ignore
    const { sha256, width } = await keepDraftPicture(ctx, draftId, png);
    expect(width).toBe(40);
    expect((await draftPicture(ctx, draftId, sha256)).mediaType).toBe('image/png');
    const cite: Inline = { type: 'cite', attrs: { id: 'in', works: [{ id: ng }], named: false } };
    const figure: Block = { type: 'figure', attrs: { picture: sha256, caption: [{ type: 'text', text: 'Drawn after ' }, cite], alt: 'A gate', works: [], cite: 'f' } }; // prettier-ignore
    const { revision } = await draftSince(ctx, draftId);
    await save(revision, { page: 'p', puts: [put('fig', figure)], order: ['fig'] });
    const files = unzipped((await out('docx')).body);
    expect(Object.keys(files).some((name) => /^word\/media\/.*\.png$/.test(name))).toBe(true);
    expect(files['word/document.xml']!.replace(/<[^>]+>/g, '')).toContain('Figure 1. Drawn after (Ng, 2001)');
    expect(files['word/document.xml']).toContain('descr="A gate"');
    const archive = unzipSync(Buffer.from((await out('markdown', 'keys')).body, 'base64'));
    expect(archive[`pictures/${sha256}.png`]!.length).toBeGreaterThan(50);
    expect(strFromU8(archive['draft.md']!)).toContain(`![A gate](pictures/${sha256}.png)`);
    // Pasted into the draft of another project of the library it is a picture of that as well; of none it was never in.
    const other = (await openDraft(ctx, (await addProject(ctx, { name: 'Other', ...look })).id)).id;
    await expect(draftPicture(ctx, other, sha256)).rejects.toMatchObject({ status: 404 });
    await saveDraft(ctx, other, draftSave.parse({ since: 0, page: 'p', puts: [put('there', figure)], order: ['there'] })); // prettier-ignore
    expect((await draftPicture(ctx, other, sha256)).bytes.equals(png)).toBe(true);
    // What is taken out can be brought back.
    const gone = {
      since: revision + 1,
      page: 'p',
      puts: [],
      gone: [{ id: 'fig', base: revision + 1 }],
      order: [],
    };
    await saveDraft(ctx, draftId, draftSave.parse(gone));
    expect((await draftPicture(ctx, draftId, sha256)).bytes.equals(png)).toBe(true);
  });

  it('as .odt, its citations printed in it, with formulas, captions and a table', async () => {
    const files = unzipped((await out('odt', 'keys')).body);
    expect(Object.keys(files)[0]).toBe('mimetype');
    const xml = files['content.xml']!;
    const text = xml.replace(/<[^>]+>/g, '');
    expect(text).toContain('(Ng, 2001; see Pell, 2001, p. 7)');
    expect(text).toContain('Pell, A. (2001). Sluices. Harbour Press.');
    expect(xml).toMatch(/retexa \{&quot;id&quot;:&quot;c\d&quot;,&quot;says&quot;:&quot;\[see @pell2001/);
    expect(xml).toContain('text:ref-name="pt"');
    expect(files['Formula-1/content.xml']).toContain('xmlns="http://www.w3.org/1998/Math/MathML"');
    expect(files['META-INF/manifest.xml']).toContain('Formula-1/content.xml');
    expect(text).not.toContain('check this');
  });

  it('in a style of notes each citation is a footnote, numbered with those that are there', async () => {
    const { body } = await out('html', 'printed', 'chicago-fullnote-bibliography');
    expect(body).toContain('<math');
    const notes = [...body.matchAll(/<li id="n(\d)" value="\d">([\s\S]*?) <a/g)].map((m) => `${m[1]} ${m[2]!.replace(/<[^>]+>/g, '')}`); // prettier-ignore
    expect(notes).toEqual([
      '1 See A. Pell, Sluices (Harbour Press, 2001), 7; A. Ng, Gates (Harbour Press, 2001).',
      '2 More in Ng, Gates.',
    ]);
  });
});

describe('words of kept documents', () => {
  const RUN = 'the pond was let every year to the miller who kept the gates';
  /** A kept page of a source, with the printed page its words stand on. */
  const kept = (sourceId: string, text: string) =>
    transaction(ctx, async (inner) => {
      const html = `<section class="leaf" data-leaf="1" data-page="xiv"><p>${text}</p></section>`;
      const sha256 = await keepFile(Buffer.from(html));
      return keepTestCopy(inner, sourceId, {
        kind: 'pdf',
        sha256,
        reading_sha256: sha256,
        text,
        labels: ['xiv'],
      });
    });
  const ended = async () => {
    const { id } = await lookForBorrowed(ctx, draftId);
    for (;;) {
      const { state } = await getJob(ctx, id);
      if (state !== 'running' && state !== 'waiting') break;
      await new Promise((resolve) => setImmediate(resolve));
    }
    return (await lastBorrowed(ctx, draftId))!;
  };

  it('are told with their places in both, cited ones apart, until they are quoted', async () => {
    const copy = await kept(pell, `In the winter ${RUN}, they say.`);
    await kept(ng, `Nothing of it. And ${RUN}.`);
    await save(0, {
      puts: [put('a', said(`Once ${RUN}.`)), put('b', said(`And ${RUN}.`, { id: pell } as CitedWork))],
      order: ['a', 'b'],
    });
    const { result } = await ended();
    expect(result).toMatchObject({ documents: 2, total: 2 });
    const [one, other] = result!.borrowings;
    expect(one).toMatchObject({ part: 'a', text: RUN, words: 13, cited: false, copyId: copy.id, sourceId: pell, theirs: RUN, locator: { label: 'page', value: 'xiv' }, others: [{ sourceId: ng }] }); // prettier-ignore
    // The other document has the word before it, too.
    expect(other).toMatchObject({
      part: 'b',
      text: `And ${RUN}`,
      sourceId: ng,
      others: [{ sourceId: pell }],
      cited: true,
    });
    await save(1, { puts: [put('a', said(`Once “${RUN}”.`), 1), put('b', said('My own words.'), 1)], order: ['a', 'b'] }); // prettier-ignore
    expect((await ended()).result).toMatchObject({ total: 0, borrowings: [] });
  }, 120_000);
});

it('lists all of the project, or of the library, where a manuscript that was written elsewhere asks for that', async () => {
  await file(ctx, projectId, [ng], true);
  const listed = async (project?: string) => {
    const text = '---\nnocite: |\n  @*\n---\n\nNobody is cited.\n';
    const { body, missing } = await printGiven(ctx, Buffer.from(text), 'a.md', look, project);
    return {
      missing,
      names: Buffer.from(body, 'base64')
        .toString()
        .match(/Pell|Ng(?=,)/g),
    };
  };
  expect(await listed(projectId)).toEqual({ missing: [], names: ['Ng'] });
  expect(await listed()).toEqual({ missing: [], names: ['Ng', 'Pell'] });
  // A project that has nothing lists nothing, which is told.
  const { id } = await addProject(ctx, { name: 'Empty', ...look });
  expect(await listed(id)).toMatchObject({ missing: [{ key: '*' }], names: null });
});

it('is of the library of who asks', async () => {
  await expect(draftSince(ctx, 'nowhere')).rejects.toMatchObject({ status: 404 });
  await expect(openDraft(ctx, 'nowhere')).rejects.toMatchObject({ status: 404 });
  await expect(saveDraft({ ...ctx, role: 'reader' }, draftId, draftSave.parse({ since: 0 }))).rejects.toMatchObject({ status: 403 }); // prettier-ignore
});
