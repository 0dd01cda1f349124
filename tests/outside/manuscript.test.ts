/**
 * Manuscripts in Markdown printed by us, and by pandoc with the same style: both as plain text, letter by letter. What differs
 * is named. Needs a build.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { style, toXml } from './catalogue';

const folder = mkdtempSync(join(tmpdir(), 'retexa-manuscript-'));
const at = (name: string) => join(folder, name);
const book = (id: string, family: string, given: string, year: number, title: string, more = {}) => ({ id, type: 'book', title, author: [{ family, given }], issued: { 'date-parts': [[year]] }, publisher: 'Harbour Press', 'publisher-place': 'Northsound', ...more }); // prettier-ignore
const WORKS = [
  book('pell', 'Pell', 'Ada', 2001, 'Sluices'),
  book('ng1', 'Ng', 'Tsz Ho', 2020, 'Salt marsh', { type: 'article-journal', 'container-title': 'Marsh Letters', volume: '3', page: '1-7', publisher: undefined, 'publisher-place': undefined }),
  book('ng2', 'Ng', 'Tsz Ho', 2020, 'Gates'),
  { ...book('smith', 'Smith', 'Jo', 1999, 'Wheels'), author: [['Smith', 'Jo'], ['Pell', 'Ada'], ['Aust', 'Bo'], ['Moss', 'Cy']].map(([family, given]) => ({ family, given })) },
  book('uncited', 'Zed', 'Jo', 1990, 'Never said'),
  book('listed', 'Yew', 'Al', 1991, 'Only listed'),
]; // prettier-ignore
const MANUSCRIPT = `---
title: Test
nocite: |
  @listed
---

# One

Tide mills ground grain [@pell, pp. 33-35 and *passim*; see also @ng2, chap. 1]. As @pell [p. 7] says, *it* was so. Nobody
[-@pell] saw \`[@code]\` or foo@bar.com it [see @ng1; @ng2; @smith].

@ng1 wrote twice [@ng1, 12]. And again [@ng1, 12] or [@ng1 sec. 3]. \\@pell is escaped.

~~~
[@pell in code]
~~~

A note[^1] and a key at the end of a sentence @pell. Years [@pell, 99; @ng2, vol. 2].

[^1]: Here is @ng2 cited [@pell, p. 3].

# References

::: {#refs}
:::

# After

End.
`;

const STYLES = ['apa', 'ieee', 'chicago-note-bibliography', 'american-sociological-association', 'modern-language-association', 'nature', 'harvard-cite-them-right', 'chicago-author-date']; // prettier-ignore
/** Where we differ from pandoc’s citeproc, as [ours, theirs], and why. */
const MEANT: Record<string, [string, string][]> = {
  // A style that says what follows a collapsed group and nothing of what is in it: CSL 1.0.2, "Cite Collapsing", leaves the layout's delimiter.
  'chicago-author-date': [['Ng 2020b; 2020a', 'Ng 2020b, 2020a']],
};
const lines = (text: string) => text.replace(/\u00a0/g, ' ').split('\n');

beforeAll(() => {
  writeFileSync(at('works.json'), JSON.stringify(WORKS));
  writeFileSync(at('in.md'), MANUSCRIPT);
});

describe('a manuscript printed by us is what pandoc makes of it', () => {
  it.each(STYLES)('%s', (id) => {
    writeFileSync(at(`${id}.csl`), toXml(style(id)));
    const ours = spawnSync(
      'node',
      ['build/cli/retexa.js', 'print', at('in.md'), '--library', at('works.json'), '--style', id, '-o', at('out.md')],
      { encoding: 'utf8' },
    ); // prettier-ignore
    expect([ours.status, ours.stdout]).toEqual([0, '']);
    const plain = (...args: string[]) =>
      lines(execFileSync('pandoc', [...args, '-t', 'plain', '--wrap=none'], { encoding: 'utf8' }));
    const printed = plain('-f', 'markdown', at('out.md'));
    const theirs = plain(
      '--citeproc',
      '--csl',
      at(`${id}.csl`),
      '--bibliography',
      at('works.json'),
      at('in.md'),
    );
    const meant = printed.map((line) =>
      (MEANT[id] ?? []).reduce((l, [ours_, theirs_]) => l.replace(ours_, theirs_), line),
    );
    expect(meant).toEqual(theirs);
  });
});

describe('retexa print', () => {
  const run = (...args: string[]) => spawnSync('node', ['build/cli/retexa.js', 'print', ...args], { encoding: 'utf8' }); // prettier-ignore
  it('names what is not in the library with its line, and goes on', () => {
    writeFileSync(at('some.md'), 'One [@pell].\n\nTwo [@nobody, 3].\n');
    const { status, stdout, stderr } = run(at('some.md'), '--library', at('works.json'), '--style', 'apa');
    expect(status).toBe(1);
    expect(stdout).toBe('One (Pell, 2001).\n\nTwo [@nobody, 3].\n\nPell, A. (2001). *Sluices*. Harbour Press.\n');
    expect(stderr).toContain('some.md:3: @nobody is not in');
  }); // prettier-ignore
  it('refuses what it cannot read or write, and writes nothing', () => {
    writeFileSync(at('a.odt'), 'x');
    for (const [args, words] of [
      [[at('a.odt'), '--library', at('works.json'), '--style', 'apa'], 'Markdown'],
      [[at('in.md'), '--style', 'apa'], '--library'],
      [[at('in.md'), '--library', at('works.json'), '--style', 'nowhere-at-all'], 'no style'],
      [[at('in.md'), '--library', at('works.json'), '--style', 'apa', '-o', at('no/out.md')], '-o'],
    ] as const) {
      const { status, stdout, stderr } = run(...args);
      expect([status, stdout]).toEqual([2, '']);
      expect(stderr).toContain(words);
    }
    expect(readFileSync(at('in.md'), 'utf8')).toBe(MANUSCRIPT);
  });
});
