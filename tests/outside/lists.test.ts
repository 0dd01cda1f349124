/**
 * Reference lists against outside processors, in the very styles of our catalogue.
 * Outside: pandoc with its own citation processor (Debian's pandoc, written in Haskell, independent of citeproc-js);
 * citeproc-js driven directly.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import CSL from 'citeproc';
import { describe, expect, it } from 'vitest';
import { SOURCES } from '../../scripts/demo/sources';
import { createPrinter, LOCALES, runsToText, STYLES } from '../../src/lib/core/citing';
import { readFormat } from '../../src/lib/core/formats';
import { toCsl, type CslItem } from '../../src/lib/core/source';
import { locale, style, toXml } from './catalogue';

const ALL: CslItem[] = readFormat('csl-json', JSON.stringify(SOURCES)).entries.map((e) =>
  toCsl(e.key!, e.record),
);
/** One work of each of ten types. */
const TEN = [
  'haverkamp2018rates', 'brandt1997dredging', 'zee2015ledgers', 'pell1990dam', 'northsound2009register', 'gullmere2016',
  'glasswort2020', 'ponddata2021', 'gates2012paper', 'tidemill1888',
].map((id) => ALL.find((i) => i.id === id)!); // prettier-ignore

/** Ours, each entry as plain text, by id. */
function ours(items: CslItem[], styleId: string, lang: string): Map<string, string> {
  const list = createPrinter(style(styleId), locale(lang), lang).list(items);
  return new Map(
    list.entries.map((e) => [e.id, [e.label?.trim(), runsToText(e.runs)].filter(Boolean).join(' ')]),
  );
}

/** Pandoc's, each entry as plain text, by id. */
function pandoc(items: CslItem[], styleId: string, lang: string): Map<string, string> {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-pandoc-'));
  writeFileSync(join(folder, 'style.csl'), toXml(style(styleId)));
  writeFileSync(join(folder, 'items.json'), JSON.stringify(items));
  writeFileSync(join(folder, 'in.md'), `---\nnocite: "@*"\nlang: ${lang}\n---\n\n::: {#refs}\n:::\n`);
  const html = execFileSync(
    'pandoc',
    [
      '--citeproc',
      '--csl',
      'style.csl',
      '--bibliography',
      'items.json',
      'in.md',
      '-t',
      'html',
      '--wrap=none',
    ],
    { cwd: folder, encoding: 'utf8' },
  );
  const found = new Map<string, string>();
  for (const m of html.matchAll(/<div id="ref-([^"]+)"[^>]*>([\s\S]*?)<\/div>\s*(?=<div id="ref-|<\/div>)/g))
    found.set(
      m[1]!,
      decode(m[2]!.replace(/<[^>]+>/g, ' '))
        .replace(/\s+/g, ' ')
        .trim(),
    );
  return found;
}
const decode = (t: string) =>
  t
    .replace(/&amp;/g, '&')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"');

/** What is compared: letters, digits and marks in order, white space aside (markup in pandoc's HTML adds some). */
const comparable = (text: string) => text.replace(/\s+/g, '').replace(/[’‘]/g, "'");

/**
 * Differences known and explained.
 */
const EXPLAINED: Record<string, string> = {
  'apa ponddata2021':
    '“[Dataset]” is the locale term “dataset” (CSL 1.0.2), which the locales inside pandoc 2.17 do not have',
  'apa northsound2009register':
    '“No.” is the short form of the locale term “number” (CSL 1.0.2), likewise not in pandoc 2.17',
};

describe('ten types in three styles, against pandoc', () => {
  it.each(['apa', 'chicago-author-date', 'vancouver'])('%s', (id) => {
    const [mine, theirs] = [ours(TEN, id, 'en-US'), pandoc(TEN, id, 'en-US')];
    expect(theirs.size).toBe(TEN.length);
    expect(mine.size).toBe(TEN.length);
    const differences: string[] = [];
    for (const [key, text] of mine) {
      const other = theirs.get(key) ?? '';
      // Numbers depend on the order of first citation, which a bare list does not have.
      const bare = (t: string) => comparable(id === 'vancouver' ? t.replace(/^\d+\.\s*/, '') : t);
      if (bare(text) !== bare(other) && !EXPLAINED[`${id} ${key}`])
        differences.push(`${id} ${key}\n  ours:   ${text}\n  pandoc: ${other}`);
    }
    expect(differences).toEqual([]);
  });
});

/** Words whose case depends on the language, marks that open and close, and keys a collation has to think about. */
const ODD: CslItem[] = [
  { id: 'tr', type: 'book', language: 'tr', title: 'istanbul’un ılık ırmakları: iz ve İZ', author: [{ family: 'ışık', given: 'İlhan' }] },
  { id: 'el', type: 'book', language: 'el', title: 'άλλη θάλασσα, ένα', author: [{ family: 'Ώρα', given: 'Άννα' }] },
  { id: 'lt', type: 'book', language: 'lt', title: 'i̇̀ris ir ąžuolai', author: [{ family: 'įgula', given: 'Jonas' }] },
  { id: 'bracket', type: 'article-journal', language: 'de', title: '„Mühle“ – «moulin» [sic]: "mill" & ‘pond’', author: [{ family: 'D’Arcy', given: 'J.-P.' }], 'container-title': 'l’étang' },
  { id: 'number', type: 'report', title: '(10) Dämme & 9 dams, <i>Zostera</i> in H<sub>2</sub>O', author: [{ literal: '[Amt 12]' }], issued: { 'date-parts': [[1999]] } },
  { id: 'number2', type: 'report', title: 'a 2nd,, ,,quoted', author: [{ literal: 'Amt 9' }], issued: { 'date-parts': [[1999]] } },
] as CslItem[]; // prettier-ignore

/**
 * Differences of entries, by style and language or for all, each explained; `citeproc.ts` and `differential.test.ts` hold many
 * more works and citations against it.
 */
const OTHERWISE: Record<string, string> = {
  'modern-language-association en-US bracket':
    'a hyphen between initials stays; CSL 1.0.2, “initialize-with-hyphen”',
  'american-sociological-association en-US bracket': 'the same',
  'american-sociological-association en-US daybook1771': 'quotation marks inside others are the inner ones',
  'chicago-author-date en-US mariners1911':
    'the dash for a title that repeats stands without its quotation marks',
  'modern-humanities-research-association en-US mariners1911': 'the same',
  'nature en-US daybook1771':
    'the other processor repeats the bracket before the first year before the second',
  'apa pl-PL bracket': 'a Polish quotation ends in the mark of its language, however it was typed',
  'apa hu-HU bracket': 'the same in Hungarian',
  'apa el-GR tidemill1888': 'a label of one letter takes a capital as others do',
};

describe('our processor against citeproc-js driven directly', () => {
  it('prints every demo source in every style offered, in every language offered and four more, to the letter', () => {
    const differences: string[] = [];
    const seen = new Set<string>();
    const all = [...ALL, ...ODD];
    // The name of an event has two names among styles; ours knows both.
    const items = new Map(all.map((i) => [i.id, 'event-title' in i ? { ...i, event: i['event-title'] } : i]));
    const languages = [...LOCALES.map((l) => l.id), 'tr-TR', 'el-GR', 'lt-LT', 'hu-HU'];
    for (const { id } of STYLES)
      for (const lang of id === 'apa' ? languages : ['en-US']) {
        const sys = {
          retrieveLocale: () => locale(lang),
          retrieveItem: (key: string) => structuredClone(items.get(key)),
        };
        const engine = new CSL.Engine(sys, style(id), lang, true);
        engine.opt.development_extensions.wrap_url_and_doi = false;
        engine.updateItems(all.map((i) => i.id));
        const [meta, entries] = engine.makeBibliography();
        const mine = ours(all, id, lang);
        expect([...mine.keys()], `${id}: the order of the style`).toEqual(meta.entry_ids.map((e) => e[0]));
        entries.forEach((html, i) => {
          const direct = decode(html.replace(/<[^>]+>/g, ' '))
            .replace(/&#38;/g, '&')
            .replace(/&#60;/g, '<')
            .replace(/&#62;/g, '>');
          const own = mine.get(meta.entry_ids[i]![0]!)!;
          if (/CSL STYLE ERROR/.test(direct) && own === '') return;
          if (comparable(direct) === comparable(own)) return;
          const where = `${id} ${lang} ${meta.entry_ids[i]![0]}`;
          if (OTHERWISE[where]) seen.add(where);
          else differences.push(`${where}\n  direct: ${direct}\n  ours:   ${own}`);
        });
      }
    expect(differences).toEqual([]);
    expect([...seen].sort()).toEqual(Object.keys(OTHERWISE).sort());
  });
});

describe('a note', () => {
  it('with lines that look like fields is a remark, and fills in none of the record', () => {
    const [bare] = ALL.filter((i) => i.id === 'haverkamp2018rates');
    const { DOI: _doi, volume: _volume, ...without } = bare!;
    const noted = { ...without, note: 'type: book\nvolume: 99\nDOI: 10.5555/from.a.note\nissued: 1850' };
    for (const id of ['apa', 'vancouver', 'ieee'])
      expect(ours([noted as CslItem], id, 'en-US')).toEqual(ours([without as CslItem], id, 'en-US'));
  });
});

describe('a list printed again after edits', () => {
  /** Numbers that look random and are the same every time (a linear congruential generator). */
  const dice = (seed: number) => () => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) / 2 ** 31;
  const print = (printer: ReturnType<typeof createPrinter>, items: CslItem[]) =>
    printer.list(items).entries.map((e) => [e.id, e.label?.trim(), runsToText(e.runs)].join(' | '));
  it.each([
    'apa',
    'chicago-author-date',
    'vancouver',
    'ieee',
    'modern-language-association',
    'harvard-cite-them-right',
  ])('is what a printer that never saw the list before prints: %s', (styleId) => {
    const kept = createPrinter(style(styleId), locale('en-US'), 'en-US');
    const roll = dice(styleId.length);
    const pick = <T>(list: T[]) => list[Math.floor(roll() * list.length)]!;
    let items = ALL.slice(0, 40);
    for (let round = 0; round < 14; round++) {
      const at = Math.floor(roll() * items.length);
      const act = pick(['author', 'year', 'title', 'out', 'in', 'twin']);
      const item = items[at]!;
      const other = pick(ALL);
      if (act === 'author')
        items = items.with(at, { ...item, author: other.author ?? [{ family: 'Nobody' }] });
      if (act === 'year') items = items.with(at, { ...item, issued: { 'date-parts': [[1900 + round]] } });
      if (act === 'title') items = items.with(at, { ...item, title: `Edited ${round}` });
      if (act === 'out') items = items.toSpliced(at, 1);
      if (act === 'in' && !items.some((i) => i.id === other.id)) items = [...items, other];
      if (act === 'twin')
        items = [...items, { ...item, id: `${item.id}-twin-${round}`, title: `Twin ${round}` }];
      const fresh = createPrinter(style(styleId), locale('en-US'), 'en-US');
      expect(print(kept, items), `round ${round}: ${act}`).toEqual(print(fresh, items));
    }
  });
  it('by single references in between it is not disturbed, nor are they by it', () => {
    const printer = createPrinter(style('apa'), locale('en-US'), 'en-US');
    const items = ALL.slice(0, 20);
    const before = print(printer, items);
    const changed = { ...items[3]!, title: 'Changed while the list stood' };
    expect(runsToText(printer.each([changed])[0]!.runs)).toContain('Changed while the list stood');
    expect(runsToText(printer.each([items[3]!])[0]!.runs)).not.toContain('Changed while');
    expect(
      runsToText(printer.citation([changed], [{ id: changed.id, locator: '7', label: 'page' }])),
    ).toContain('p. 7');
    expect(print(printer, items)).toEqual(before);
  });
});

describe('a range of dates whose ends are told unequally far', () => {
  it('prints, and keeps no list from being printed', () => {
    const { entries } = readFormat(
      'biblatex',
      '@book{a, author={Pell, A.}, title={Sluices}, date={2004-06/2006}}\n@book{b, author={Ng, T.}, title={Weirs}, date={2001}}',
    );
    const items = entries.map((e) => toCsl(e.key!, e.record));
    const list = ours(items, 'apa', 'en-US');
    expect([...list.keys()].sort()).toEqual(['a', 'b']);
    expect(list.get('a')).toMatch(/2004–2006/);
  });
});

describe('a record the processor cannot print', () => {
  it('does not stop the list: the rest is printed, and it is named', () => {
    // A family name that is no text; citeproc-js throws at it.
    const broken = { ...TEN[0]!, id: 'broken', author: [{ family: 5 }] } as unknown as CslItem;
    const printer = createPrinter(style('apa'), locale('en-US'), 'en-US');
    const alone = createPrinter(style('apa'), locale('en-US'), 'en-US').list(TEN);
    const list = printer.list([...TEN, broken]);
    expect(list.entries.filter((e) => e.failed !== undefined).map((e) => e.id)).toEqual(['broken']);
    expect(list.entries.filter((e) => e.failed === undefined)).toEqual(alone.entries);
    expect(printer.each([broken, TEN[1]!]).map((r) => r.failed === undefined)).toEqual([false, true]);
    // And the printer goes on as if nothing had been.
    expect(printer.list(TEN)).toEqual(alone);
  });
});
