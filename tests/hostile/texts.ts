/** Texts on which patterns that look ahead and come back take the longest: one thing repeated, and never ended. */

const repeated = (unit: string, size: number) => unit.repeat(Math.ceil(size / unit.length)).slice(0, size);

/** What is repeated. */
const UNITS = [
  ' ', '\n', '\t \n', '\u00a0', '.', ',', ';', ':', '-', '–', '(', ')', '[', ']', '{', '}', '"', "'", '“', '`', '\\', '/', '&', '<', '>', '=', '%', '$', '#', '@', '^', '~', '_', '*', '|', '+', '?',
  'a', 'A', 'é', 'ß', '字', '1', '0', 'a ', 'A. ', 'A.', 'Ab', 'Ab ', 'Ab, ', 'Ab, C., ', 'Ab C, ', 'and ', ' and ', 'a and b ', 'van der ', 'Jr. ', 'et al. ', '1 ', '1,', '1-', '1–', '12 (3), ', '1999 ', '(1999) ', '2004-06/', '1;', '1:', '10.', '10.1234/', '10.1234/a.', 'doi:', 'https://', 'https://a.example/', 'a@', 'a.', '@a', '@a{', '@a:', '[@a; ', '\\cite{', '\\cite[', '\\cite[a]{b}', '\\a', '\\"{', '{\\', '$\\', '\\frac{', '^{', '\\url{', '&amp;', '&#', '&#x', '<i>', '</i>', '<span class="nocase">', '<a ', '<p', '<!--', '<![CDATA[', '<w:t>', 'TY  - ', 'ER  - \n', 'AU  - A\n', 'PMID- 1\n', '@book{a,\n', 'title = {', '= "', '\n\n', '[1] ', '1. a\n', '- a\n', 'In: ', 'pp. 1-', 'vol. 1 ', 'ed. ', 'ISBN 978', '978-', 'ISSN 1', 'Ph.D. ', 'thesis ', 'Universit', '“a', 'rft.au=a&', 'ctx_ver=', '%2', '{"a":', '[[', '\u0301', '\ud83d\ude00', 'ı', 'ﬁ',
]; // prettier-ignore

/** Adversarial texts of about a size, each with a name. */
export function* textsOf(size: number): Generator<{ name: string; text: string }> {
  for (const unit of UNITS) {
    const name = JSON.stringify(unit);
    yield { name, text: repeated(unit, size) };
    // Something before it lets a pattern begin, something behind it lets none end.
    yield { name: `a${name}b`, text: `a${repeated(unit, size)}b!` };
  }
  for (const [name, before, unit, after] of [
    ['a reference', 'Ng, T. H. (2021). Salt marsh. ', 'Marsh Letters ', '3(1), 7.'],
    ['a title without end', 'Ng, T. H. (2021). ', 'Salt ', ''],
    ['a list of names', 'Ng, T. H., ', 'Ó Súilleabháin, C., ', '& Pell, A. (2001). Sluices.'],
    ['an editor', 'Pell, A. (2001). Weirs. In ', 'A. Ng, ', '(Eds.), Mills (pp. 1-2). Press.'],
    ['an author field', '@book{a, author = {', 'Pell ', '}}'],
    ['blanks in an author field', '@book{a, author = {a', ' ', 'b}}'],
    ['many authors', '@book{a, author = {', 'A and ', 'B}}'],
    ['a field without end', '@book{a, title = {', '{', ''],
    ['many fields', '@book{a, ', 'x = {y}, ', '}'],
    ['many entries', '', '@book{a, title = {b}}\n', ''],
    ['pasted text', '@book{a, title = ', '"a" # ', '"b"}'],
    ['a RIS entry', 'TY  - BOOK\n', 'AU  - Pell, A.\n', 'ER  - \n'],
    ['a MEDLINE entry', 'PMID- 1\n', 'FAU - Pell, A\n', ''],
    ['CSL-JSON', '[', '{"type":"book","title":"a"},', '{}]'],
    ['deep JSON', '', '[', ''],
    ['COinS', '<span class="Z3988" title="ctx_ver=Z39.88-2004&', 'rft.au=A&', '"></span>'],
    ['a mail address', 'a', '.a', '@b'],
    ['addresses', '', 'https://a.example/x ', ''],
  ] as const)
    yield { name, text: before + repeated(unit, size) + after };
}
