/**
 * Our files read by independent readers. Outside: pandoc (`-f bibtex`), bibutils (`bib2xml`, `ris2xml`), both Debian's.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { SOURCES } from '../../scripts/demo/sources';
import { latexDocument, markdownDocument, type PrintedList } from '../../src/lib/core/citing';
import { readFormat, writeFormat, type WriteItem } from '../../src/lib/core/formats';
import { docxDocument } from '../../src/lib/server/lists/docx';
import { fold, plain } from '../../src/lib/core/text';
import type { CslName, SourceRecord } from '../../src/lib/core/source';

const ITEMS: WriteItem[] = readFormat('csl-json', JSON.stringify(SOURCES)).entries.map((e) => ({
  key: e.key!,
  record: e.record,
}));
type Item = Omit<SourceRecord, 'retexa'> & { id: string };

describe('our BibTeX', () => {
  const { text } = writeFormat('bibtex', ITEMS);

  it('is read by pandoc with the same titles, creators, years, volumes, pages and DOIs', () => {
    const read = JSON.parse(
      execFileSync('pandoc', ['-f', 'bibtex', '-t', 'csljson'], { input: text, encoding: 'utf8' }),
    ) as Item[];
    expect(read).toHaveLength(ITEMS.length);
    const differences: string[] = [];
    const people = (names: CslName[] | undefined) =>
      fold(
        (names ?? [])
          .map((n) =>
            [n['non-dropping-particle'], n['dropping-particle'], n.family, n.given, n.suffix, n.literal].join(
              ' ',
            ),
          )
          .join(' '),
      )
        .split(' ')
        .sort()
        .join(' ');
    for (const { key, record } of ITEMS) {
      const other = read.find((i) => i.id === key)!;
      const check = (what: string, a: unknown, b: unknown) => {
        if (a !== b) differences.push(`${key} ${what}: ours ${String(a)}, pandoc ${String(b)}`);
      };
      check('title', fold(plain(record.title ?? '')), fold(plain(other.title ?? '')));
      check('author', people(record.author), people(other.author));
      check('editor', people(record.editor), people(other.editor));
      const year = record.issued?.['date-parts']?.[0]?.[0];
      check('year', String(year ?? ''), String(other.issued?.['date-parts']?.[0]?.[0] ?? ''));
      if (record.type !== 'broadcast') check('volume', record.volume ?? '', other.volume ?? '');
      check('pages', (record.page ?? '').replace(/\W/g, ''), (other.page ?? '').replace(/\W/g, ''));
      if (record.DOI && !record.DOI.startsWith('http')) check('DOI', record.DOI, other.DOI);
    }
    expect(differences).toEqual([]);
  });

  it('is read by bibutils, every entry, without a complaint', () => {
    const result = spawnSync('bib2xml', ['-i', 'utf8'], { input: text, encoding: 'utf8' });
    expect(result.stdout.match(/<mods /g)).toHaveLength(ITEMS.length);
    expect(result.stderr).not.toMatch(/error|cannot|unexpected/i);
  });
});

describe('our RIS', () => {
  it('is read by bibutils, every record, with titles, names, pages, DOIs and keywords', () => {
    const { text } = writeFormat('ris', ITEMS);
    const result = spawnSync('ris2xml', ['-i', 'utf8', '-nt'], { input: text, encoding: 'utf8' });
    const records = result.stdout.split('<mods ').slice(1);
    expect(records).toHaveLength(ITEMS.length);
    const missing: string[] = [];
    ITEMS.forEach(({ key, record }, i) => {
      const xml = fold(records[i]!.replace(/<[^>]+>/g, ' ').replace(/&amp;/g, '&'));
      const parts = [
        ...fold(plain(record.title ?? '')).split(' '),
        ...(record.author ?? []).map((n) => fold(n.family ?? '')),
        record.DOI ? fold(record.DOI.replace(/^https?:\/\/doi\.org\//, '')) : '',
        record.page ? fold(record.page).split(' ')[0]! : '',
        fold(record.volume ?? ''),
      ];
      for (const part of parts) if (part && !` ${xml} `.includes(part)) missing.push(`${key}: ${part}`);
    });
    expect(missing).toEqual([]);
  });
});

describe('our documents', () => {
  const printed: PrintedList = {
    hangingIndent: true,
    hasList: true,
    entries: [
      {
        id: 'a',
        label: '[1]',
        runs: [
          { text: 'Sato, Y. (2020). *Stars*, 50% & <more>. ' },
          { text: 'Small Hydropower Review', italic: true },
          { text: ', 9. x' },
          { text: '2', raised: true },
          { text: ' https://doi.org/10.5555/shr_9.33' },
        ],
      },
    ],
  };
  const plainText = (from: string, input: string | Buffer) =>
    execFileSync('pandoc', ['-f', from, '-t', 'plain', '--wrap=none'], { input, encoding: 'utf8' }).trim();
  const wanted =
    '[1] Sato, Y. (2020). *Stars*, 50% & <more>. Small Hydropower Review, 9. x2 https://doi.org/10.5555/shr_9.33';
  const bare = (text: string) =>
    text
      .replace(/_(Small Hydropower Review)_/, '$1')
      .replace(/x(?:\^\(?2\)?|²)/, 'x2')
      .replace(/^(?:References\s+)+/, '')
      .trim();
  it('.docx is read by pandoc: text, italics, the link, its own page', async () => {
    const bytes = await docxDocument(printed, 'References', 'en-US');
    expect(bare(plainText('docx', bytes))).toBe(wanted);
    const html = execFileSync('pandoc', ['-f', 'docx', '-t', 'html', '--wrap=none'], {
      input: bytes,
      encoding: 'utf8',
    });
    expect(html).toContain('<em>Small Hydropower Review</em>');
    expect(html).toContain('href="https://doi.org/10.5555/shr_9.33"');
  });
  it('Markdown and LaTeX are read by pandoc as what they say', () => {
    expect(bare(plainText('commonmark_x', markdownDocument(printed, 'References')))).toBe(wanted);
    expect(bare(plainText('latex', latexDocument(printed, 'References')))).toBe(wanted);
  });
});
