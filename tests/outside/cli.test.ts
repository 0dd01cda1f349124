/** The built command line, run as a person runs it. Outside: pandoc reads the CSL-JSON it writes. Needs a build. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import Module from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { Script } from 'node:vm';
import { beforeAll, describe, expect, it } from 'vitest';
import { DOCUMENTS } from '../../stand-ins/documents';
import { SITES } from '../../stand-ins/sites';

const folder = mkdtempSync(join(tmpdir(), 'retexa-cli-'));
const at = (name: string) => join(folder, name);
const run = (...args: string[]) => spawnSync('node', ['build/cli/retexa.js', ...args], { encoding: 'utf8' });
interface Read {
  source: Record<string, unknown>;
  origins: Record<string, { kind: string }>;
  alternatives: Record<string, unknown[]>;
  list?: Read[];
}
const read = (...args: string[]): Read => {
  const { status, stdout, stderr } = run('read', ...args);
  expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
  return JSON.parse(stdout) as Read;
};

beforeAll(async () => {
  writeFileSync(at('article.html'), SITES['estuaryshore.example/articles/12-2-117']!.body());
  writeFileSync(at('contents.html'), SITES['estuaryshore.example/issues/12/2']!.body());
  for (const [name, key] of [
    ['thesis.pdf', 'repository.northsound.example/bitstream/1/7000/thesis.pdf'],
    ['article.pdf', 'estuaryshore.example/pdf/12-2-101.pdf'],
    ['lease.png', 'skerryarchive.example/photos/lease.png'],
  ] as const)
    writeFileSync(at(name), await DOCUMENTS[key]!.bytes());
  writeFileSync(at('empty.html'), '');
  writeFileSync(at('archive.zip'), Buffer.from('504b0304', 'hex'));
  writeFileSync(at('cut.pdf'), '%PDF-1.7\n1 0 obj');
});

describe('retexa anchor', () => {
  const given = (passages: unknown) => {
    writeFileSync(at('passages.json'), JSON.stringify(passages));
    return at('passages.json');
  };
  beforeAll(() =>
    writeFileSync(
      at('mill.txt'),
      'Preface 𓇽. The mill ground by night. Nobody kept the books — of it for long. In the north it was other-\nwise. So say the rolls.',
    ),
  );
  it('says of each passage whether it stands where it was, elsewhere, changed or not at all, in code points', () => {
    const { status, stdout, stderr } = run(
      'anchor',
      at('mill.txt'),
      '--passages',
      given([
        {
          id: 'a',
          exact: 'The mill ground by night.',
          prefix: '',
          suffix: ' The keepers',
          start: 0,
          end: 25,
        },
        { id: 'b', exact: 'books - of it', prefix: 'kept the ', suffix: ' for long', start: 70, end: 83 },
        { id: 3, exact: 'it was otherwise.', prefix: 'In the north ', suffix: ' So say' },
        {
          id: 'd',
          exact: 'The keepers were paid in flour.',
          prefix: 'by night. ',
          suffix: ' Nobody kept',
          start: 26,
          end: 57,
        },
        { id: 'e', exact: 'So say the rolls.', start: 110, end: 127 },
      ]),
    );
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    expect(JSON.parse(stdout)).toEqual([
      { id: 'a', state: 'moved', start: 11, end: 36, exact: 'The mill ground by night.' },
      { id: 'b', state: 'changed', start: 53, end: 66, exact: 'books — of it' },
      { id: 3, state: 'changed', start: 90, end: 109, exact: 'it was other-\nwise.' },
      { id: 'd', state: 'lost', start: null, end: null, exact: null },
      { id: 'e', state: 'found', start: 110, end: 127, exact: 'So say the rolls.' },
    ]);
  });
  it('reads the text of a page as it is kept', () => {
    const exact = 'median of 31 cm';
    writeFileSync(
      at('page.html'),
      `<!doctype html><title>x</title><nav>Menu</nav><main><p>It rose by a <b>median</b> of 31 cm.</p></main>`,
    );
    const { stdout } = run('anchor', at('page.html'), '--passages', given([{ id: 'a', exact }]));
    expect(JSON.parse(stdout)).toMatchObject([{ id: 'a', state: 'found', exact }]);
  });
  it.each<[string, unknown, RegExp]>([
    ['no array', {}, /passages\.json: an array of passages is wanted/],
    ['no words', [{ id: 'a' }], /passages\.json: passage 1, exact: /],
    ['no id', [{ exact: 'x' }], /passages\.json: passage 1, id: /],
    [
      'an end before its start',
      [{ id: 1, exact: 'x', start: 5, end: 2 }],
      /passage 1, end: a passage ends after it starts/,
    ],
  ])('says what is wrong with passages: %s', (_what, passages, words) => {
    const { status, stderr } = run('anchor', at('mill.txt'), '--passages', given(passages));
    expect(status).toBe(2);
    expect(stderr).toMatch(words);
  });
  it('says what is missing', () => {
    expect(run('anchor', at('mill.txt')).stderr).toMatch(/anchor needs --passages FILE/);
    expect(run('anchor', at('nowhere.txt'), '--passages', given([])).stderr).toMatch(/there is no such file/);
    writeFileSync(at('bad.json'), '[');
    expect(run('anchor', at('mill.txt'), '--passages', at('bad.json')).stderr).toMatch(
      /bad\.json is no JSON/,
    );
  });
});

describe('retexa convert, cite, styles, check', () => {
  const bib = () => at('two.bib');
  beforeAll(() =>
    writeFileSync(
      bib(),
      '@article{sato2020, author={Sato, Yuki}, title={Turbines in old wheelhouses}, journal={Small Hydropower Review}, volume=9, year=2020}\n@book{broken, title={No end\n@book{osei, author={Osei, Kofi}, title={Gates}, year=2018, publisher={Strand}}\n',
    ),
  );
  it('converts, lists what was skipped by file and line, and ends with 1 then', () => {
    const { status, stdout, stderr } = run('convert', bib(), '--to', 'ris');
    expect(status).toBe(1);
    expect(stderr).toContain('two.bib:2: skipped: a brace is opened and never closed');
    expect(stdout).toContain('TY  - JOUR\r\nID  - sato2020');
    expect(stdout.match(/^ER {2}- /gm)).toHaveLength(2);
  });
  it('converts without loss and ends with 0, into a file too; reads standard input', () => {
    const whole = spawnSync(
      'node',
      ['build/cli/retexa.js', 'convert', '-', '--to', 'csl-json', '-o', at('out.json')],
      { input: '@book{a, title={A}, year=2001}', encoding: 'utf8' },
    );
    expect([whole.status, whole.stdout]).toEqual([0, '']);
    expect(whole.stderr).toContain('1 written to');
    expect(run('convert', at('out.json'), '--to', 'bibtex').stdout).toContain('@book{a,');
  });
  it('says what the target cannot hold, by record and field', () => {
    writeFileSync(
      at('lossy.json'),
      JSON.stringify([{ id: 'x', type: 'book', title: 'T', 'original-date': { 'date-parts': [[1880]] } }]),
    );
    const { status, stderr } = run('convert', at('lossy.json'), '--to', 'ris');
    expect(status).toBe(1);
    expect(stderr).toContain('x: original-date: RIS has no tag for this date');
  });
  it('takes the code that was kept for it, and does without under an engine with other flags', () => {
    const plain = spawnSync('node', ['--no-opt', 'build/cli/retexa.js', 'cite', bib(), '--style', 'apa'], { encoding: 'utf8' }); // prettier-ignore
    expect(plain.stdout).toBe(run('cite', bib(), '--style', 'apa').stdout);
    const file = 'build/cli/commands.cjs';
    setFlagsFromString('--interrupt-budget=1000000');
    const script = new Script(Module.wrap(readFileSync(file, 'utf8')), { cachedData: readFileSync(`${file}.code`) }); // prettier-ignore
    expect(script.cachedDataRejected).toBe(false);
  });
  it('cites as text, HTML, RTF, Markdown and LaTeX', () => {
    const printed = (as: string) => run('cite', bib(), '--style', 'apa', '--as', as).stdout;
    expect(printed('text')).toContain('Sato, Y. (2020). Turbines in old wheelhouses.');
    expect(printed('markdown')).toContain('*Small Hydropower Review*, *9*.');
    expect(printed('latex')).toContain('\\emph{Small Hydropower Review}, \\emph{9}.');
    expect(printed('html')).toContain('<i>Small Hydropower Review</i>');
    expect(printed('rtf')).toContain('{\\i Small Hydropower Review}');
    expect(run('cite', bib(), '--style', 'apa', '--locale', 'de-DE').stdout).toContain('Sato, Y. (2020)');
  });
  it('cites in the language a style is written for, where none is named', () => {
    const style = 'harvard-cite-them-right';
    expect(run('cite', bib(), '--style', style).stdout).toContain('‘Turbines in old wheelhouses’');
    expect(run('cite', bib(), '--style', style, '--locale', 'en-US').stdout).toContain(
      '“Turbines in old wheelhouses',
    );
    const own = at('own.csl');
    const of = (locale: string) => `<style xmlns="http://purl.org/net/xbiblio/csl" class="in-text" version="1.0" default-locale="${locale}"><info><title>Own</title><id>own</id><updated>2020-01-01T00:00:00+00:00</updated></info><citation><layout><text variable="title"/></layout></citation><bibliography><layout><text variable="title" quotes="true"/></layout></bibliography></style>`; // prettier-ignore
    for (const [locale, quoted] of [
      ['de', '„Turbines'],
      ['xx-XX', '“Turbines'],
    ] as const) {
      writeFileSync(own, of(locale));
      expect(run('cite', bib(), '--style', own).stdout).toContain(quoted);
    }
    expect(run('cite', bib(), '--style', own, '--locale', 'xx-XX').stderr).toContain(
      'there is no language “xx-XX”',
    );
  });
  it('lists styles by words', () => {
    const { status, stdout } = run('styles', 'american', 'psychological');
    expect(status).toBe(0);
    expect(stdout).toMatch(/^apa\tauthor-date\t/m);
    expect(run('styles').stdout.split('\n').length).toBeGreaterThan(2_600);
  });
  it('checks what a style asks and a record lacks', () => {
    const checked = JSON.parse(run('check', bib(), '--style', 'apa').stdout) as {
      key: string;
      missing: string[];
    }[];
    expect(checked.find((c) => c.key === 'sato2020')!.missing).toEqual(['issue', 'page']);
    expect(checked.find((c) => c.key === 'osei')!.missing).toEqual([]);
  });
  it('ends with 2 when nothing of a file can be read, says why, and leaves the file to write to as it is', () => {
    writeFileSync(at('none.json'), '{');
    writeFileSync(at('before.ris'), 'as it was');
    const { status, stderr } = run('convert', at('none.json'), '--to', 'ris', '-o', at('before.ris'));
    expect(status).toBe(2);
    expect(stderr).toMatch(/none\.json:1: skipped: not valid JSON[^]*holds no references that can be read/);
    expect(readFileSync(at('before.ris'), 'utf8')).toBe('as it was');
  });
  it.each([
    [['convert', '/no/such', '--to', 'ris'], 'no such file'],
    [['convert', 'package.json', '--to', 'word'], 'no format'],
    [['convert', 'package.json'], '--to FORMAT'],
    [['cite', 'package.json'], '--style ID is needed'],
    [['cite', 'package.json', '--style', 'nonsense'], 'no style “nonsense”'],
    [['styles', 'qqqqq'], 'No style has'],
  ])('%j ends with 2', (args, words) => {
    const { status, stderr } = run(...args);
    expect(status).toBe(2);
    expect(stderr).toContain(words);
  });
});

describe('retexa read', () => {
  it('reads a page: CSL-JSON that pandoc reads too, the origin of every field', () => {
    const { source, origins } = read(
      at('article.html'),
      '--address',
      'https://estuaryshore.example/articles/12-2-117',
    );
    expect(source).toMatchObject({ type: 'article-journal', volume: '12', DOI: '10.5555/es.12.117' });
    expect(origins.title).toMatchObject({ kind: 'json-ld' });
    const printed = execFileSync('pandoc', ['-f', 'csljson', '-t', 'plain', '--citeproc', '--wrap=none'], {
      input: JSON.stringify([source]),
      encoding: 'utf8',
    });
    expect(printed).toContain('Eel Grass and the Shape of Sluices');
    expect(printed).toContain('Åsen, Ingrid');
  });
  it('without an address claims none', () => {
    const { source } = read(at('article.html'));
    expect([source.URL, source.accessed]).toEqual([undefined, undefined]);
  });
  it('reads a list of works', () => {
    const { list } = read(at('contents.html'), '--address', 'https://estuaryshore.example/issues/12/2');
    expect(list!.map((w) => w.source.title)).toHaveLength(4);
  });
  it('reads PDFs and a picture of a page, offline', () => {
    expect(read(at('thesis.pdf')).source).toMatchObject({
      type: 'thesis',
      title: 'Mud and memory',
      publisher: 'University of Northsound',
    });
    expect(read(at('article.pdf')).source).toMatchObject({
      type: 'article-journal',
      'container-title': 'Estuary and Shore',
      DOI: '10.5555/es.12.101',
    });
    expect(read(at('lease.png')).source).toMatchObject({ title: 'A lease of the tide mill' });
  });
  it.each([
    [['read'], 'takes one file'],
    [['read', '/no/such/file'], 'no such file'],
    [['read', at('')], 'a folder'],
    [['read', at('empty.html')], 'is empty'],
    [['read', at('archive.zip')], 'neither a page, a PDF nor a picture'],
    [['read', at('cut.pdf')], 'damaged'],
    [['read', at('article.html'), '--address', 'ftp://x'], 'no http or https address'],
    [['read', at('article.html'), '--nonsense'], 'nonsense'],
    [['frobnicate'], 'no command “frobnicate”'],
  ])('ends with 2 and words on standard error: %j', (args, words) => {
    const { status, stdout, stderr } = run(...args);
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr).toContain(words);
  });
});

describe('retexa duplicates', () => {
  const bib = () => at('twice.bib');
  beforeAll(() =>
    writeFileSync(
      bib(),
      `@article{one, title={Tide mills and their leases}, author={Pell, Margaret}, year={1990}, journal={Shore and Sea}, volume={12}, pages={7-24}, doi={10.5555/x.1}}
@article{two, title={TIDE MILLS AND THEIR LEASES}, author={Pell, M.}, year={1990}, journal={Shore Sea}, volume={12}, pages={7}, doi={https://doi.org/10.5555/X.1}}
@book{three, title={Ponds}, author={Pell, M.}, year={1990}, publisher={Quill}}
@book{four, title={PONDS}, author={Pell, Margaret}, year={1990}, publisher={Quill}}
@book{five, title={Ponds}, author={Pell, Margaret}, year={1996}, edition={2}, publisher={Quill}}`,
    ),
  );
  interface Group {
    ids: string[];
    verdict: string;
    score: number;
    reasons: string[];
  }
  const groups = (...args: string[]) => {
    const { status, stdout } = run('duplicates', bib(), ...args);
    expect(status).toBe(0);
    return JSON.parse(stdout) as Group[];
  };
  it('gives groups by the keys of the entries, surest first, with reasons', () => {
    const found = groups();
    expect(found.map(({ ids, verdict }) => [ids.join(), verdict])).toEqual([
      ['one,two', 'sure'],
      ['four,three', 'decide'],
    ]);
    expect(found[0]!.reasons).toEqual(expect.arrayContaining(['same DOI', 'same container, abbreviated']));
    for (const { score } of found) expect(score > 0.5 && score <= 1).toBe(true);
  });
  it('gives the sure ones alone when asked, in any format that is read', () => {
    expect(groups('--sure', '--from', 'bibtex').map((g) => g.ids)).toEqual([['one', 'two']]);
    run('convert', bib(), '--to', 'csl-json', '-o', at('twice.json'));
    const { stdout } = run('duplicates', at('twice.json'));
    expect((JSON.parse(stdout) as Group[]).map((g) => g.ids.join())).toEqual(['one,two', 'four,three']);
  });
  it('says what it cannot read', () => {
    const { status, stderr } = run('duplicates', at('nothing.bib'));
    expect([status, stderr]).toEqual([2, expect.stringContaining('there is no such file')]);
  });
});
