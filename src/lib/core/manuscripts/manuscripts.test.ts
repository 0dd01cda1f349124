import { describe, expect, it } from 'vitest';
import type { PrintedText, Run } from '../citing';
import type { CslItem } from '../source';
import { printDocx, printOdt, printTex, UnreadableManuscript } from './index';

/** Prints keys in italics with their places; the list is the keys. */
const printer: PrintedText = {
  set: (works, citations) => ({
    citations: citations.map(({ id, cites, named }) => {
      const runs: Run[] = cites.map((c) => ({ text: `${c.prefix ? `${c.prefix.trim()} ` : ''}${c['suppress-author'] ? '-' : ''}${c.id}${c.locator ? ` ${c.locator}` : ''}${c.suffix ?? ''}`, italic: true })); // prettier-ignore
      return { id, runs, ...(named ? { author: [{ text: cites[0]!.id.toUpperCase() }] } : {}) };
    }),
    list: { entries: works.map(({ id }) => ({ id, runs: [{ text: `List ${id}.` }] })), hangingIndent: true, hasList: true } as never, // prettier-ignore
    changed: [],
  }),
};
const works = new Map(['pell', 'ng', 'a&b'].map((id) => [id, { id } as CslItem]));
const plain = (xml: string) =>
  xml
    .replace(/<w:p[ >]/g, '\n$&')
    .replace(/<[^>]+>/g, '')
    .trim();

describe('.docx', () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const NOTES = (inside: string) => `<w:footnotes ${W}>${inside}</w:footnotes>`;
  const docx = (body: string, more: Record<string, string> = {}) => ({
    'word/document.xml': `<w:document ${W}><w:body>${body}<w:sectPr><w:pgSz w:w="1"/></w:sectPr></w:body></w:document>`,
    'word/_rels/document.xml.rels': '<Relationships xmlns="x"/>',
    '[Content_Types].xml': '<Types xmlns="y"></Types>',
    ...more,
  });
  const p = (...runs: string[]) => `<w:p>${runs.join('')}</w:p>`;
  const r = (text: string, look = '') => `<w:r>${look && `<w:rPr>${look}</w:rPr>`}<w:t>${text}</w:t></w:r>`;
  const printed = (parts: Record<string, string>, notes = false) => {
    const { changed, ...rest } = printDocx(parts, printer, works, { notes });
    return { ...rest, parts: { ...parts, ...changed } as Record<string, string> };
  };
  const text = ({ parts }: { parts: Record<string, string> }) => plain(parts['word/document.xml']!);

  it('finds a citation that is cut over runs, and prints it in the look around it', () => {
    const out = printed(
      docx(p(r('So [see @pe', '<w:b/>'), '<w:proofErr/>', r('ll, p. 3'), '<w:bookmarkStart/>', r('; @ng] it is.'))),
    );
    expect(text(out)).toBe('So see pell 3ng it is.\nList pell.\nList ng.');
    expect(out.parts['word/document.xml']).toContain('<w:rPr><w:b/><w:i/></w:rPr><w:t xml:space="preserve">see pell 3');
    expect(out.parts['word/document.xml']).toContain('<w:proofErr/>');
    expect(out.parts['word/document.xml']).toContain('<w:bookmarkStart/>');
    expect(out.citations).toBe(1);
  }); // prettier-ignore

  it('reads references of XML, and writes them', () => {
    const out = printed(docx(p(r('A &amp; [@{a&amp;b}] &lt;'))));
    expect(out.parts['word/document.xml']).toContain('A &amp; ');
    expect(out.parts['word/document.xml']).toContain('a&amp;b</w:t>');
    expect(out.parts['customXml/retexa.xml']).toContain('says="[@{a&amp;b}]"');
    expect(out.parts['word/_rels/document.xml.rels']).toContain('Target="../customXml/retexa.xml"');
  });

  it('leaves what was taken out, codes of fields, a second drawing, and mail addresses', () => {
    const body =
      p('<w:del><w:r><w:delText>[@pell]</w:delText></w:r></w:del>', '<w:r><w:instrText>[@pell]</w:instrText></w:r>') +
      `<mc:AlternateContent><mc:Fallback>${p(r('[@pell]'))}</mc:Fallback></mc:AlternateContent>${p(r('me@pell.example'))}`;
    const out = printed(docx(body));
    expect(out.citations).toBe(0);
    expect(out.parts['word/document.xml']).toContain(body);
  }); // prettier-ignore

  it('says where a key is that is not there, and leaves its citation', () => {
    const out = printed(docx(p(r('One.')) + p(r('So it is [@nobody; @pell].'))));
    expect(out.missing).toEqual([{ key: 'nobody', place: 'paragraph 2, “So it is [@nobody; @pell].”' }]);
    expect(text(out)).toBe('One.\nSo it is [@nobody; @pell].');
  });

  it('makes notes, whose marks and blanks come back when the style cites in the text', () => {
    const given = docx(p(r('It is [@pell]. And @ng [p. 2] says, it [@pell, 4]; so.')));
    const notes = printed(given, true);
    expect(text(notes)).toBe('It is. And NG says, it; so.\nList pell.\nList ng.');
    expect(plain(notes.parts['word/footnotes.xml']!)).toBe('pell\n ng 2\n pell 4');
    expect(notes.parts['[Content_Types].xml']).toContain('/word/footnotes.xml');
    const back = printed(notes.parts);
    expect(text(back)).toBe(text(printed(given)));
    expect(text(back)).toBe('It is pell. And NG ng 2 says, it pell 4; so.\nList pell.\nList ng.');
    // Nothing of ours is left in the notes.
    expect(plain(back.parts['word/footnotes.xml']!)).toBe('');
  });

  it('cites whole within notes, and keeps what one added to a note that was printed', () => {
    const note = (id: number, inside: string) => `<w:footnote w:id="${id}">${p(inside)}</w:footnote>`;
    const given = docx(p(r('One'), '<w:r><w:footnoteReference w:id="2"/></w:r>', r(' two [@pell].')), {
      'word/footnotes.xml': NOTES(note(2, r('Here [@ng, 3].'))),
    });
    const notes = printed(given, true);
    expect(plain(notes.parts['word/footnotes.xml']!)).toBe('Here (ng 3).\n pell');
    const added = {
      ...notes.parts,
      'word/footnotes.xml': notes.parts['word/footnotes.xml']!.replace(/<\/w:sdt><\/w:p><\/w:footnote><\/w:footnotes>/, `</w:sdt>${r(' And more.')}</w:p></w:footnote></w:footnotes>`),
    }; // prettier-ignore
    expect(added['word/footnotes.xml']).toContain('And more.');
    const again = printed(added, true);
    expect(plain(again.parts['word/footnotes.xml']!)).toBe('Here (ng 3).\n  (pell) And more.');
    const inText = printed(added);
    expect(plain(inText.parts['word/footnotes.xml']!)).toBe('Here ng 3.\n  pell And more.');
    expect(text(inText)).toContain('One two.');
  });

  it('gives a citation that was copied a name of its own', () => {
    const once = printed(docx(p(r('See [@pell]'))));
    const control = /<w:sdt>(?:(?!retexa-list)[\s\S])*?<\/w:sdt>/.exec(once.parts['word/document.xml']!)![0];
    const twice = { ...once.parts, 'word/document.xml': once.parts['word/document.xml']!.replace(control, control + control) }; // prettier-ignore
    const out = printed(twice);
    expect(text(out)).toBe('See pellpell\nList pell.');
    expect(out.parts['customXml/retexa.xml']!.match(/<citation /g)).toHaveLength(2);
  });

  it('puts the list where it was asked for, and there again', () => {
    const given = docx(p(r('[@pell]')) + p(r('{#refs}')) + p(r('After.')));
    const once = printed(given);
    expect(text(once)).toBe('pell\nList pell.\nAfter.');
    expect(printed(once.parts).parts['word/document.xml']).toBe(once.parts['word/document.xml']);
  });

  it('refuses what is no document', () => {
    expect(() => printed({})).toThrow(UnreadableManuscript);
    expect(() => printed({ 'word/document.xml': '<w:document><w:body/></w:document>' })).toThrow(UnreadableManuscript); // prettier-ignore
  });
});

describe('.odt', () => {
  const odt = (inside: string) => ({
    'content.xml': `<office:document-content><office:automatic-styles/><office:body><office:text>${inside}</office:text></office:body></office:document-content>`,
  });
  const printed = (parts: { 'content.xml': string }, notes = false): { 'content.xml': string } => ({ ...parts, ...printOdt(parts, printer, works, { notes }).changed }); // prettier-ignore
  const text = (parts: { 'content.xml': string }) =>
    parts['content.xml'].replace(/<text:note-citation>.*?<\/text:note-citation>/g, '').replace(/<text:p/g, '\n$&').replace(/<[^>]+>/g, '').trim(); // prettier-ignore
  it('is printed over spans and blanks, makes notes, and comes back', () => {
    const given = odt('<text:p>It <text:span>is [@pe</text:span>ll,<text:s/>p. 3].<text:note text:id="n1"><text:note-citation>1</text:note-citation><text:note-body><text:p>In [@ng].</text:p></text:note-body></text:note> So.</text:p>'); // prettier-ignore
    const once = printed(given);
    expect(text(once)).toBe('It is pell 3.\nIn ng. So.\nList pell.\nList ng.');
    expect(once['content.xml']).toContain('<style:style style:name="RetexaI" style:family="text">');
    const notes = printed(once, true);
    expect(text(notes)).toBe('It is.\npell 3\nIn (ng). So.\nList pell.\nList ng.');
    expect(text(printed(notes))).toBe(text(once));
    expect(printed(notes, true)).toEqual(notes);
  });
  it('comes back though its marks stand in different spans', () => {
    const once = printed(odt('<text:p>See [@pell] here.</text:p>'));
    const torn = {
      'content.xml': once['content.xml'].replace(/(<text:reference-mark-start[^>]*>)/, '<text:span>$1').replace(/(<text:span text:style-name="RetexaI">)/, '</text:span>$1'),
    }; // prettier-ignore
    expect(text(printed(torn))).toBe(text(once));
    expect(printed(torn)['content.xml'].match(/<text:span/g)!.length).toBe(
      printed(torn)['content.xml'].match(/<\/text:span/g)!.length,
    );
  });
  it('keeps what one added to a note, however often it is printed, until it is taken away', () => {
    const notes = printed(odt('<text:p>As @pell [p. 3] says.</text:p>'), true);
    const added = { 'content.xml': notes['content.xml'].replace('</text:p></text:note-body>', ' And more.</text:p></text:note-body>') }; // prettier-ignore
    let out = added;
    for (const style of [true, false, true, false]) {
      out = printed(out, style);
      expect(text(out)).toContain('And more.');
    }
    // Taken away again, the note is the citation’s own, and goes where the style cites in the text.
    const bare = { 'content.xml': out['content.xml'].replace(' And more.', '') };
    expect(text(printed(bare))).toBe('As PELL pell 3 says.\nList pell.');
  });
  it('refuses what is no text', () => {
    expect(() => printed({ 'content.xml': '<office:spreadsheet/>' })).toThrow(UnreadableManuscript);
  });
});

describe('LaTeX', () => {
  const printed = (tex: string, notes = false) => printTex(tex, printer, works, { notes });
  it('knows its commands, and leaves comments, verbatim text and what is no citation', () => {
    const tex = String.raw`A \cite[see][p.~3]{pell}, \textcites[1]{ng}[2]{pell} % \cite{pell}
\verb|\cite{pell}| \newcommand{\citeme}{x} \begin{comment}\cite{pell}\end{comment} \citeyear{pell} \cite{unclosed`;
    const { text, left, missing, citations } = printed(tex);
    expect(text).toContain(String.raw`A \emph{see pell 3}, NG \emph{ng 1}\emph{pell 2} % \cite{pell}`);
    expect(text).toContain(String.raw`\verb|\cite{pell}| \newcommand{\citeme}{x} \begin{comment}\cite{pell}\end{comment} \citeyear{pell} \cite{unclosed`); // prettier-ignore
    expect(left).toEqual([{ command: '\\citeyear', line: 2 }]);
    expect([missing, citations]).toEqual([[], 2]);
  });
  it('makes footnotes behind the mark, and none within one', () => {
    expect(printed('So~\\cite{pell}. A\\footnote{As \\cite{ng}.} B\\footnote{\\cite{ng}.}\n\\printbibliography', true).text).toBe(
      'So.\\footnote{\\emph{pell}.} A\\footnote{As (\\emph{ng}).} B\\footnote{\\emph{ng}.}\n\\section*{References}\n{\\setlength{\\parindent}{-2em}\\setlength{\\leftskip}{2em}\n\nList pell.\n\nList ng.\\par}',
    );
  }); // prettier-ignore
  it('takes no command for one that cites because of what every object has', () => {
    const tex = '\\constructor{pell} \\tostring{pell}';
    expect(printed(tex)).toMatchObject({ text: tex, citations: 0, missing: [] });
  });
  it('makes a footnote of a footcite in every style, and lists what is not cited', () => {
    const out = printed('So \\footcite[3]{pell}.\n\\nocite{ng,nobody}\\printbibliography[heading=none]');
    expect(out.text.startsWith('So.\\footnote{\\emph{pell 3}.}\n{\\setlength')).toBe(true);
    expect(out.text).toContain('List ng.');
    expect(out.missing).toEqual([{ key: 'nobody', place: 'line 2' }]);
  });
});
