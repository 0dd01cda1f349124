/** Documents that are neither pages nor PDFs: a book in EPUB, a recording, a file that cannot be shown. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { createCanvas } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';
import { FACE } from '../ink';

let app: App;
let me: Person;
let folder: string;
let source: string;

/** A tone that swells and falls, `seconds` long: sound in 16 bits, 8,000 samples to the second (RIFF WAVE). */
function tone(seconds: number): Buffer {
  const samples = 8_000 * seconds;
  const bytes = Buffer.alloc(44 + samples * 2);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + samples * 2, 4);
  bytes.write('WAVEfmt ', 8);
  for (const [at, value] of [[16, 16], [24, 8_000], [28, 16_000], [40, samples * 2]] as const) bytes.writeUInt32LE(value, at); // prettier-ignore
  for (const [at, value] of [[20, 1], [22, 1], [32, 2], [34, 16]] as const) bytes.writeUInt16LE(value, at); // prettier-ignore
  bytes.write('data', 36);
  for (let i = 0; i < samples; i++)
    bytes.writeInt16LE(Math.round(9_000 * Math.sin(i / 9) * Math.abs(Math.sin(i / 9_000))), 44 + i * 2);
  return bytes;
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'retexa-documents-'));
  writeFileSync(
    join(folder, 'a.md'),
    `---\ntitle: The tide clock\nauthor: Ida Quay\n---\n\n# Neaps\n\nThe pond was shut at neaps. It was opened again at springs, and nobody asked why.\n\nThe millers kept the clock.\n\n## Of the pond\n\n${'It filled and it fell. '.repeat(300)}\n\n# Springs\n\n${'The gates stood open. '.repeat(300)}\n`,
  );
  execFileSync('pandoc', ['a.md', '-o', 'plain.epub'], { cwd: folder });
  const files = unzipSync(new Uint8Array(readFileSync(join(folder, 'plain.epub'))));
  const name = Object.keys(files).find((n) => n.endsWith('ch001.xhtml'))!;
  const marked = new TextDecoder()
    .decode(files[name])
    .replace('<p>The pond', '<p><span role="doc-pagebreak" aria-label="41"/>The pond')
    .replace('<p>The millers', '<p><span role="doc-pagebreak" aria-label="42"/>The millers');
  writeFileSync(join(folder, 'book.epub'), zipSync({ ...files, [name]: strToU8(marked) }));
  writeFileSync(join(folder, 'talk.wav'), tone(40));
  writeFileSync(join(folder, 'survey.bin'), Buffer.from([0, 1, 2, 3, 250, 0, 9]));
  app = await startApp();
  me = await visit(app);
  await me.open('/');
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const copies = () =>
  app.rows<{ id: string; kind: string; media_type: string; source_id: string }>(
    'SELECT * FROM copy ORDER BY captured',
  );
const passages = () =>
  app.rows<{ exact: string; locator: string; copy_id: string }>(
    'SELECT * FROM passage WHERE binned IS NULL ORDER BY added',
  );
const sendTo = (path: string, file: string) =>
  me.page.evaluate(
    async (to, bytes) =>
      (
        await fetch(to, {
          method: 'POST',
          headers: { 'content-type': 'application/octet-stream' },
          body: new Uint8Array(bytes),
        })
      ).status,
    path,
    [...readFileSync(join(folder, file))],
  );
async function attach(file: string): Promise<void> {
  const before = copies().length;
  expect(await sendTo(`/api/sources/${source}/copies?name=${file}`, file)).toBe(200);
  await until('the copy', async () => copies().length > before);
}

describe('a book in EPUB', () => {
  it('dropped becomes a source with what it says of itself, and is read with its printed pages', async () => {
    expect(await sendTo('/api/captures/file?name=book.epub', 'book.epub')).toBe(200);
    await me.see('Quay', '.tray .got');
    await until('the copy', async () => copies().length === 1);
    source = copies()[0]!.source_id;
    expect(copies()[0]).toMatchObject({ kind: 'page', media_type: 'application/epub+zip' });
    await me.open(`/copies/${copies()[0]!.id}`);
    await me.see('EPUB, captured', 'header.head');
    await me.selectInPage('It was opened again at springs');
    await me.see('New passage, p. 41', '.margin');
    await me.type('Gist', 'Nobody asked');
    await me.page.keyboard.press('Enter');
    await me.see('Nobody asked', '.card');
    expect(passages().at(-1)).toMatchObject({ locator: '{"label":"page","value":"41"}' });
  });

  it('is gone about in by its headings, and tells where one is', async () => {
    await me.press('Contents');
    await me.see('Of the pond', '[aria-label="Contents"]');
    const here = () =>
      me.page.$eval('[aria-label="Contents"]', (e) => e.querySelector('[aria-current]')?.textContent?.trim());
    await me.press('Springs', '[aria-label="Contents"]');
    await until('the last chapter', async () => (await here()) === 'Springs');
    const seen = () =>
      me.page.$eval('.reader', (view) => {
        const heading = [...document.querySelector('iframe')!.contentDocument!.querySelectorAll('h1, h2, h3')].find((h) => h.textContent!.includes('Springs'))!;
        return Math.round(heading.getBoundingClientRect().top - view.scrollTop);
      }); // prettier-ignore
    expect(await seen()).toBeLessThan(60);
    await me.press('Of the pond', '[aria-label="Contents"]');
    await until('the one before', async () => (await here()) === 'Of the pond');
    await me.press('Contents');
    await until('nothing beside it', async () => !(await me.page.$('[aria-label="Contents"]')));
  });
});

describe('a recording', () => {
  it('has a time line; a moment of it is kept with its time and heard again', async () => {
    await attach('talk.wav');
    const { id } = copies().find((c) => c.kind === 'audio')!;
    await me.open(`/copies/${id}`);
    await me.page.waitForFunction(() => {
      const audio = document.querySelector('audio');
      return audio && audio.duration > 39 && document.querySelectorAll('.time rect').length > 100;
    });
    await me.page.evaluate(() => void (document.querySelector('audio')!.currentTime = 12));
    await me.see('0:12', '.marks');
    await me.press('It begins here');
    await me.page.evaluate(() => void (document.querySelector('audio')!.currentTime = 19));
    await me.see('0:19', '.marks');
    await me.press('Keep this moment');
    await me.type('What is said', 'We never shut it on a Sunday');
    await me.type('Gist', 'Sundays');
    await me.page.keyboard.press('Enter');
    await me.see('Sundays', 'aside');
    expect(passages().at(-1)).toMatchObject({
      exact: 'We never shut it on a Sunday',
      locator: '{"label":"timestamp","value":"0:12–0:19"}',
      copy_id: id,
    });
    await me.open('/passages');
    await me.press('Hear it');
    await me.page.waitForFunction(() => {
      const audio = document.querySelector('audio');
      return audio && Math.abs(audio.currentTime - 12) < 3;
    });
    await me.press('Edit', 'aside');
    await me.type('What is said', 'We never shut it on Sundays');
    await me.press('Save', '.sheet');
    await me.see('on Sundays', 'aside');
  });
});

describe('a photo of a printed page', () => {
  it('gives its lines to pick from, and the picked ones are the words of a passage from print', async () => {
    const canvas = createCanvas(1_500, 500);
    const context = canvas.getContext('2d');
    context.fillStyle = '#fff';
    context.fillRect(0, 0, 1_500, 500);
    context.fillStyle = '#000';
    context.font = `56px ${FACE}`;
    [
      'Not this line of the page.',
      'The miller kept the keys of the sluice',
      'gate and gave them to nobody.',
    ].forEach((line, i) => context.fillText(line, 80, 120 + i * 130));
    writeFileSync(join(folder, 'photo.png'), canvas.toBuffer('image/png'));
    await me.open(`/sources/${source}`);
    await me.press('Write one from print');
    const input = await me.page.waitForSelector('dialog input[type="file"]');
    await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(
      join(folder, 'photo.png'),
    );
    await me.see('The miller kept the keys of the sluice', 'dialog li');
    await me.type('Gist', 'Keys');
    for (const nth of [2, 3]) await me.page.click(`dialog li:nth-child(${nth}) input`);
    await me.type('Locator', '88');
    await me.press('Keep passage', 'dialog');
    await me.see('The passage is kept.');
    expect(passages().at(-1)).toMatchObject({
      exact: 'The miller kept the keys of the sluice gate and gave them to nobody.',
      locator: '{"label":"page","value":"88"}',
    });
  });
});

describe('a file that cannot be shown', () => {
  it('is kept beside its source as it is and can be saved', async () => {
    await attach('survey.bin');
    const { id } = copies().at(-1)!;
    await me.open(`/copies/${id}`);
    await me.see('This kind of file is not shown here');
    const bytes = await me.page.evaluate(
      async (path) => [...new Uint8Array(await (await fetch(path)).arrayBuffer())],
      `/copies/${id}/file`,
    );
    expect(bytes).toEqual([0, 1, 2, 3, 250, 0, 9]);
  });
});
