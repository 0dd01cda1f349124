/**
 * Manuscripts in Markdown printed by us, and by pandoc with the same style: both as plain text, letter by letter. What differs
 * is named. Needs a build.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
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
    writeFileSync(at('a.pages'), 'x');
    writeFileSync(at('other.docx'), zipSync({ 'a.txt': strToU8('x') }));
    for (const [args, words] of [
      [[at('a.pages'), '--library', at('works.json'), '--style', 'apa'], '.docx'],
      [[at('a.odt'), '--library', at('works.json'), '--style', 'apa'], 'damaged'],
      [[at('other.docx'), '--library', at('works.json'), '--style', 'apa'], 'no .docx document'],
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

/** What a .docx or .odt of a manuscript says, as pandoc reads it: no lines are broken, and no list is set apart. */
const said = (...args: string[]) =>
  execFileSync('pandoc', [...args, '-t', 'plain', '--wrap=none'], { encoding: 'utf8' })
    .replace(/\u00a0/g, ' ')
    .replace(/\n{2,}/g, '\n\n')
    .trim();

describe.each(['docx', 'odt'])('a manuscript in .%s', (kind) => {
  const print = (from: string, id: string, to: string) => {
    const { status, stderr } = spawnSync('node', ['build/cli/retexa.js', 'print', at(from), '--library', at('works.json'), '--style', id, '-o', at(to)], { encoding: 'utf8' }); // prettier-ignore
    expect([status, stderr.split('\n').length]).toEqual([0, 2]);
    return said(at(to));
  };
  // What Markdown alone has: code, keys that are escaped, front matter.
  const text = MANUSCRIPT.replace(/^---[\s\S]*?---\n/, '')
    .replace(/~~~[\s\S]*~~~\n/, '')
    .replace('\\@pell is escaped.', '')
    .replace('`[@code]` or ', '');
  beforeAll(() => {
    writeFileSync(at('plain.md'), text);
    writeFileSync(at('mark.md'), text.replace('::: {#refs}\n:::', '{#refs}'));
    execFileSync('pandoc', ['-f', 'markdown-citations', at('mark.md'), '-o', at(`mark.${kind}`)]);
  }); // prettier-ignore

  it.each(STYLES)('prints as pandoc prints the same in Markdown: %s', (id) => {
    writeFileSync(at(`${id}.csl`), toXml(style(id)));
    const theirs = said('--citeproc', '--csl', at(`${id}.csl`), '--bibliography', at('works.json'), at('plain.md'));
    const meant = (MEANT[id] ?? []).reduce((all, [ours, other]) => all.replace(ours, other), print(`mark.${kind}`, id, `${id}.${kind}`)); // prettier-ignore
    expect(meant).toBe(theirs);
  }); // prettier-ignore

  it('is printed again in another style and back, and is what it was', () => {
    const first = print(`mark.${kind}`, 'apa', `apa.${kind}`);
    const notes = print(`apa.${kind}`, 'chicago-note-bibliography', `notes.${kind}`);
    expect(notes).toBe(print(`mark.${kind}`, 'chicago-note-bibliography', `at-once.${kind}`));
    expect(print(`notes.${kind}`, 'nature', `nature.${kind}`)).toBe(print(`mark.${kind}`, 'nature', `at-once.${kind}`)); // prettier-ignore
    expect(print(`nature.${kind}`, 'apa', `back.${kind}`)).toBe(first);
    // And in the same style nothing changes any more, byte by byte.
    print(`back.${kind}`, 'apa', `again.${kind}`);
    const filesOf = (name: string) => unzipSync(readFileSync(at(name)));
    expect(filesOf(`again.${kind}`)).toEqual(filesOf(`back.${kind}`));
  });

  it('keeps all else: other files byte by byte, and every paragraph that cites nothing', () => {
    print(`mark.${kind}`, 'apa', `apa.${kind}`);
    const [before, after] = [unzipSync(readFileSync(at(`mark.${kind}`))), unzipSync(readFileSync(at(`apa.${kind}`)))];
    const touched = kind === 'docx' ? ['word/document.xml', 'word/footnotes.xml', 'word/_rels/document.xml.rels', '[Content_Types].xml'] : ['content.xml'];
    expect(Object.keys(before).filter((name) => !touched.includes(name))).not.toEqual([]);
    for (const [name, bytes] of Object.entries(before)) if (!touched.includes(name)) expect(after[name], name).toEqual(bytes);
    const paragraphs = (files: Record<string, Uint8Array>) =>
      strFromU8(files[touched[0]!]!).match(/<(w:p|text:p|text:h)[ >][\s\S]*?<\/\1>/g)!;
    const kept = new Set(paragraphs(after));
    const plain = paragraphs(before).filter((p) => !/@|#refs/.test(p));
    expect(plain.length).toBeGreaterThan(3);
    for (const one of plain) expect(kept.has(one), one).toBe(true);
  }); // prettier-ignore
});

describe('a manuscript in LaTeX', () => {
  const TEX = String.raw`\documentclass{article}
\usepackage{biblatex} % \cite{nothing}
\addbibresource{x.bib}
\begin{document}
Tide mills ground grain \parencites[33-35]{pell}[see also][chap.~1]{ng2}. As \textcite[7]{pell} says, it was so.
Nobody \parencite*{pell} saw \verb|\cite{code}| it \autocites[see][]{ng1}{ng2}{smith}.

\citet{ng1} wrote twice \citep[12]{ng1}. And again \autocite[12]{ng1} or \parencite[sec.~3]{ng1}.

\begin{verbatim}
\cite{pell}
\end{verbatim}

A note\footnote{Here is \textcite{ng2} cited \parencite[3]{pell}.} and years \parencites[99]{pell}[vol.~2]{ng2}. 100\% of it.

\nocite{listed}
\printbibliography[heading=none]
\end{document}
`;
  it.each(STYLES)('prints as pandoc prints the same: %s', (id) => {
    writeFileSync(at(`${id}.csl`), toXml(style(id)));
    writeFileSync(at('in.tex'), TEX);
    const { status, stderr } = spawnSync('node', ['build/cli/retexa.js', 'print', at('in.tex'), '--library', at('works.json'), '--style', id, '-o', at('out.tex')], { encoding: 'utf8' }); // prettier-ignore
    expect([status, stderr.split('\n').length]).toEqual([0, 2]);
    const theirs = said('--citeproc', '--csl', at(`${id}.csl`), '--bibliography', at('works.json'), at('in.tex'));
    // After a note of two works a third is no mention in a row: Chicago Manual of Style, 17th edition, 14.34 (from memory).
    const ours = said(at('out.tex')).replace('[10] Pell, Sluices, 99', '[10] Pell, 99');
    expect((MEANT[id] ?? []).reduce((all, [mine, other]) => all.replace(mine, other), ours)).toBe(theirs);
  }); // prettier-ignore
});
