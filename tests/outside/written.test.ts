/**
 * Documents in running text. Outside: pandoc (Debian) makes an EPUB, a .docx and a Markdown text of one source, and says in
 * plain text what is in them; printed pages of an EPUB are set as EPUB Accessibility 1.1 and DPUB-ARIA 1.1 have them.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { createCanvas } from '@napi-rs/canvas';
import { beforeAll, describe, expect, it } from 'vitest';
import { reconcile } from '../../src/lib/core/capture';
import { locatorIn } from '../../src/lib/core/passages';
import { squash } from '../../src/lib/core/text';
import { Unreadable } from '../../src/lib/reading/failure';
import { packedKind } from '../../src/lib/reading/packed';
import { readWritten } from '../../src/lib/reading/written';

const SOURCE = `---
title: Sluices of the sound
author:
  - Anna Pell
  - Jan van der Berg
date: 2001-05-02
lang: en-GB
---

# The gates

The pond was shut at neaps,[^1] and *opened* at springs. See [the millers](#millers).

![A gate at low water](gate.png)

| Mill | Pond |
|------|------|
| Skerry | 4 ha |

[^1]: The ledger says “three in five”.

# The millers {#millers}

- They kept the clock.
- They paid no rent.

$$x^2 + y$$
`;
let folder: string;
const pandoc = (...more: string[]) =>
  execFileSync('pandoc', ['a.md', '--resource-path', folder, ...more], { cwd: folder, encoding: 'utf8' });
const made = (name: string) => new Uint8Array(readFileSync(join(folder, name)));

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'retexa-written-'));
  writeFileSync(join(folder, 'gate.png'), createCanvas(30, 20).toBuffer('image/png'));
  writeFileSync(join(folder, 'a.md'), SOURCE);
  pandoc('-o', 'a.epub', '--mathml', '--to', 'epub3');
  pandoc('-o', 'a.docx');
});

/** The words of a text, without white space and marks between them. */
const words = (text: string) => squash(text.replace(/[^\p{L}\p{N}]+/gu, ' ')).split(' ');

describe('an EPUB', () => {
  it('is read in its order, with all words that are in it, its links within it, its picture, its notes', async () => {
    const read = await readWritten(made('a.epub'), 'epub');
    const said = words(execFileSync('pandoc', ['-t', 'plain', 'a.epub'], { cwd: folder, encoding: 'utf8' }));
    const ours = words(read.text);
    for (const word of said.filter((w) => w.length > 3)) expect(ours).toContain(word);
    expect(read.pictures).toHaveLength(1);
    expect(read.html).toContain('data-picture="A gate at low water" data-picture-n="0"');
    const [, target] = /href="#([^"]+)"[^>]*>the millers/.exec(read.html)!;
    expect(read.html).toContain(`id="${target}"`);
    expect(read.html).toMatch(/<math[^>]*>/);
    expect(read.html).toMatch(/<sup><a [^>]*>1<\/a><\/sup>/);
    expect(read.html).toContain('<td');
    expect(read.html).not.toMatch(/<(?:script|link|style|iframe|svg)/);
  });
  it('says what it is: title, authors, date, language', async () => {
    const { candidates } = await readWritten(made('a.epub'), 'epub');
    expect(reconcile(candidates, undefined, '2026-01-01T00:00:00.000Z')).toMatchObject({
      type: 'book',
      title: 'Sluices of the sound',
      author: [
        { family: 'Pell', given: 'Anna' },
        { family: 'Berg', 'non-dropping-particle': 'van der' },
      ],
      issued: { 'date-parts': [[2001, 5, 2]] },
      language: 'en-GB',
    });
  });
  it('has the printed pages it says', async () => {
    const files = unzipSync(made('a.epub'));
    const [name] = Object.keys(files).filter((n) => n.endsWith('ch001.xhtml'));
    const chapter = new TextDecoder().decode(files[name!]);
    files[name!] = strToU8(
      chapter
        .replace(
          'The pond was',
          '<span epub:type="pagebreak" role="doc-pagebreak" id="p12" aria-label="12"/>The pond was',
        )
        .replace('opened', '<span role="doc-pagebreak" id="p13" title="page 13">[13]</span>opened'),
    );
    const { html, text } = await readWritten(zipSync(files), 'epub');
    expect(html).toContain('data-begins="12"');
    expect(text).not.toContain('[13]');
    expect(locatorIn(html, 'The pond was shut')).toEqual({ label: 'page', value: '12' });
    expect(locatorIn(html, 'opened at springs')).toEqual({ label: 'page', value: '13' });
  });
  it('that is damaged, locked or empty is refused with words', async () => {
    const files = unzipSync(made('a.epub'));
    const without = (gone: string) =>
      zipSync(Object.fromEntries(Object.entries(files).filter(([n]) => n !== gone)));
    await expect(readWritten(without('EPUB/content.opf'), 'epub')).rejects.toThrow('package file');
    await expect(readWritten(without('META-INF/container.xml'), 'epub')).rejects.toThrow('container');
    await expect(readWritten(made('a.epub').slice(0, 900), 'epub')).rejects.toBeInstanceOf(Unreadable);
    const locked = zipSync({
      ...files,
      'META-INF/encryption.xml': strToU8('<a/>'),
      'META-INF/rights.xml': strToU8('<a/>'),
    });
    await expect(readWritten(locked, 'epub')).rejects.toThrow('locked');
  });
});

describe('a .docx', () => {
  it('is read with headings, notes, tables, its picture, and what it says of itself', async () => {
    const { html, text, pictures, candidates } = await readWritten(made('a.docx'), 'docx');
    expect(html).toMatch(/<h1[^>]*>(?:<[^>]*>)*The gates/);
    expect(text).toContain('The ledger says “three in five”.');
    expect(html).toContain('Skerry');
    expect(html).toContain('data-picture-n="0"');
    expect(pictures).toHaveLength(1);
    expect(candidates.find((c) => c.field === 'title')?.value).toBe('Sluices of the sound');
    // A note leads to its place and back.
    const [, note] = /href="#(footnote-[^"]+)"/.exec(html)!;
    expect(html).toContain(`id="${note}"`);
  });
});

describe('Markdown and text', () => {
  it('are read as they are meant', async () => {
    const read = await readWritten(strToU8(SOURCE), 'markdown');
    expect(read.title).toBe('Sluices of the sound');
    expect(read.html).toContain('<em>opened</em>');
    expect(read.html).toContain('<td>4 ha</td>');
    expect(read.text).toContain('The ledger says');
    expect(read.text).not.toContain('lang:');
    const hostile = await readWritten(
      strToU8('<img src=x onerror=alert(1)>\n\n[a](javascript:alert(1))\n\n<script>1</script>'),
      'markdown',
    );
    expect(hostile.html).not.toMatch(/onerror|href|<script/);
    const text = await readWritten(
      strToU8(
        'Shut at neaps and opened at springs, whatever the weather\nwas, and never on a Sunday.\n\nO mill,\nO clock.\n',
      ),
      'text',
    );
    expect(text.html).toBe(
      '<main><p>Shut at neaps and opened at springs, whatever the weather was, and never on a Sunday.</p><p>O mill,<br>O clock.</p></main>',
    );
  });
});

it('a packed file is told by what is in it', () => {
  expect(packedKind(made('a.epub'))).toBe('epub');
  expect(packedKind(made('a.docx'))).toBe('docx');
  expect(packedKind(zipSync({ 'a.txt': strToU8('a') }))).toBeUndefined();
  expect(packedKind(strToU8('PK\u0003\u0004 nothing'))).toBeUndefined();
});
