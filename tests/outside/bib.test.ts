/**
 * Our reading and writing of .bib files against independent implementations: pandoc reads the example files of BibTeX
 * (xampl.bib) and of biblatex (biblatex-examples.bib, both Debian's) beside us; `bibtex` and `biber` accept what we write.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { SOURCES } from '../../scripts/demo/sources';
import { readFormat, writeFormat, type WriteItem } from '../../src/lib/core/formats';
import { toCsl, type CslDate, type CslName } from '../../src/lib/core/source';
import { fold, plain } from '../../src/lib/core/text';
import { outsideFile } from './files';

type Item = Record<string, unknown> & { id: string };

/**
 * A value in a form in which both sides agree when they say the same. Set aside: capitals, which pandoc lowers in titles;
 * markup; the country of a language, which babel's "german" does not name; which particle drops.
 */
function comparable(field: string, value: unknown): string {
  if (value === undefined || value === '') return '';
  if (Array.isArray(value))
    return (value as CslName[])
      .map((n) =>
        fold(
          [n['non-dropping-particle'], n['dropping-particle'], n.family, n.given, n.suffix, n.literal].join(
            ' ',
          ),
        )
          .split(' ')
          .sort()
          .join(' '),
      )
      .join('; ');
  if (typeof value === 'object') {
    const { 'date-parts': parts, season, circa, literal } = value as CslDate;
    return JSON.stringify([parts, season ?? 0, Boolean(circa), literal ?? '']);
  }
  return field === 'language' ? String(value).split('-')[0]! : fold(plain(String(value)));
}

interface Compared {
  same: number;
  all: number;
  differences: string[];
}

function compare(file: string, dialect: 'bibtex' | 'biblatex'): Compared {
  const theirs = JSON.parse(
    execFileSync('pandoc', ['-f', dialect, '-t', 'csljson', outsideFile(file)], { encoding: 'utf8' }),
  ) as Item[];
  const { entries } = readFormat(dialect, readFileSync(outsideFile(file), 'utf8'));
  const result: Compared = { same: 0, all: 0, differences: [] };
  for (const item of theirs) {
    const entry = entries.find((e) => e.key === item.id);
    if (!entry) {
      result.differences.push(`${item.id} entry`);
      continue;
    }
    const tags = entry.record.retexa.tags.join(', ');
    const ours = { ...toCsl(item.id, entry.record), ...(tags ? { keyword: tags } : {}) } as Item;
    for (const field of new Set([...Object.keys(ours), ...Object.keys(item)])) {
      if (field === 'id') continue;
      result.all++;
      if (comparable(field, ours[field]) === comparable(field, item[field])) result.same++;
      else result.differences.push(`${item.id} ${field}`);
    }
  }
  return result;
}

/** Why we differ, by what differs; each is a choice of ours or a want of pandoc's 2.17. */
const BIBLATEX_DIFFERENCES: Record<string, string> = {
  'set entry': 'a set of entries is no work of its own; we pass over it and say so',
  'stdmodel entry': 'as above',
  'baez/article title-short': 'pandoc takes the part before a colon; we invent no short title',
  'baez/online title-short': 'as above',
  'wilde title-short': 'as above',
  'yoon title-short': 'as above',
  'sarfraz title-short': 'as above',
  'knuth:ct:b title-short': 'pandoc gives the short title of a volume to the whole work',
  'knuth:ct:d title-short': 'as above',
  'kastenholz page': 'an article number (eid) prints where pages do; pandoc leaves it out',
  'reese collection-title': 'pandoc writes out “3rd series”; we keep the number as it stands',
  'coleridge volume': 'pandoc joins volume and part, “7.2”; CSL has part-number',
  'coleridge part-number': 'as above',
  'wilde URL': 'pandoc leaves “/books” out of the address of a scanned book',
  'jcg type': 'CSL 1.0.2 has a type for a periodical',
  'jcg title': 'the title of a periodical is its own, and of its issue the volume’s',
  'jcg volume-title': 'as above',
  'jcg container-title': 'as above',
  'geer genre': 'we say “Doctoral dissertation”, pandoc “PhD thesis”',
};
const BIBTEX_DIFFERENCES: [RegExp, string][] = [
  [/^(?:article-\w+|whole-journal) container-title$/, 'pandoc drops what stands in \\mbox'],
  [/^article-crossref /, 'BibTeX compares keys without regard to case; pandoc does not find the parent'],
  [/ edition$/, 'pandoc keeps “Second”; we read the ordinal word as its number'],
  [/ issued$/, 'pandoc drops months that hold a day or a range, and the macro \\switchargs'],
  [/^(?:misc-\w+|random-note-crossref) type$/, 'pandoc gives no type; CSL needs one'],
  [/proceedings-\w+ publisher$/, 'pandoc joins organization and publisher; a reference prints one'],
  [/^phdthesis-\w+ genre$/, 'we say “Doctoral dissertation”, pandoc “PhD thesis”'],
  [/ title-short$/, 'pandoc takes the part before a colon; we invent no short title'],
];

describe('the example files', () => {
  it('biblatex-examples.bib: field by field as pandoc reads it, in 98 of 100', () => {
    const { same, all, differences } = compare('biblatex-examples.bib', 'biblatex');
    expect(differences.filter((d) => !(d in BIBLATEX_DIFFERENCES))).toEqual([]);
    expect(all).toBeGreaterThan(900);
    expect(same / all).toBeGreaterThanOrEqual(0.98);
  });
  it('xampl.bib: as pandoc reads it, but for what pandoc leaves out', () => {
    const { same, all, differences } = compare('xampl.bib', 'bibtex');
    expect(differences.filter((d) => !BIBTEX_DIFFERENCES.some(([of]) => of.test(d)))).toEqual([]);
    expect(all).toBeGreaterThan(240);
    expect(same / all).toBeGreaterThanOrEqual(0.88);
  });
});

const read = (format: 'biblatex' | 'bibtex' | 'csl-json', text: string): WriteItem[] =>
  readFormat(format, text).entries.map((e) => ({ key: e.key!, record: e.record }));
const ITEMS = read('csl-json', JSON.stringify(SOURCES));
const EXAMPLES = () => read('biblatex', readFileSync(outsideFile('biblatex-examples.bib'), 'utf8'));
const XAMPL = () => read('bibtex', readFileSync(outsideFile('xampl.bib'), 'utf8'));

describe('what we write is accepted', () => {
  it.each([
    ['the demo library', () => ITEMS],
    ['xampl.bib, written again', XAMPL],
    ['biblatex-examples.bib, written as BibTeX', EXAMPLES],
  ])('by bibtex with its plain style, without an error: %s', (_what, items) => {
    const folder = mkdtempSync(join(tmpdir(), 'retexa-bibtex-'));
    copyFileSync(outsideFile('plain.bst'), join(folder, 'plain.bst'));
    writeFileSync(join(folder, 'refs.bib'), writeFormat('bibtex', items()).text);
    writeFileSync(join(folder, 'x.aux'), '\\relax\n\\citation{*}\n\\bibstyle{plain}\n\\bibdata{refs}\n');
    const made = spawnSync('bibtex', ['x'], {
      cwd: folder,
      encoding: 'utf8',
      env: { ...process.env, BIBINPUTS: folder, BSTINPUTS: folder, TEXMFOUTPUT: folder, openout_any: 'a' },
    });
    const said = made.stdout
      .split('\n')
      .filter((line) => !/^(?:Warning|This is|The |Database|--line|\(There)/.test(line));
    expect(said.filter((line) => line.trim())).toEqual([]);
    expect(made.status).toBe(0);
    const bbl = readFileSync(join(folder, 'x.bbl'), 'utf8');
    expect(bbl.match(/\\bibitem\{/g)?.length).toBe(items().length);
  });
  it.each([
    ['the demo library', () => ITEMS],
    ['biblatex-examples.bib, written again', EXAMPLES],
    ['xampl.bib, written as BibLaTeX', XAMPL],
  ])('by biber, which validates it by biblatex’s data model, without an error: %s', (_what, items) => {
    const folder = mkdtempSync(join(tmpdir(), 'retexa-biber-'));
    writeFileSync(join(folder, 'refs.bib'), writeFormat('biblatex', items()).text);
    const made = spawnSync(
      'biber',
      ['--tool', '--validate-datamodel', '--output-file', 'out.bib', 'refs.bib'],
      {
        cwd: folder,
        encoding: 'utf8',
      },
    );
    const said = `${made.stdout}\n${made.stderr}`.split('\n');
    expect(said.filter((line) => line.startsWith('ERROR'))).toEqual([]);
    // What it warns of is the records' own: a field their type has not, or should have.
    const about = /Datamodel: Entry|Overwriting locale|Missing mandatory|Invalid (?:field|value)/;
    expect(said.filter((line) => line.startsWith('WARN') && !about.test(line))).toEqual([]);
    expect(made.status).toBe(0);
    expect(readFileSync(join(folder, 'out.bib'), 'utf8').match(/^@/gm)?.length).toBe(items().length);
  });
});
