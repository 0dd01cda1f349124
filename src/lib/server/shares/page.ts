import { escapeHtml } from '../../core/text';

/** A reference of a shared list with what is shown under it. `html` is safe: it is made by the printer. */
export interface SharedEntry {
  heading: string | undefined;
  html: string;
  passages: { kind: string; words: string; gist: string; ownWords: string; locator: string }[];
  documents: { address: string; name: string; kind: string }[];
}

const STYLE = `
:root { color-scheme: light dark; --ink: #16222b; --soft: #52626c; --rule: #d7dee2; --page: #fdfdfb; --line: #b7791f; }
@media (prefers-color-scheme: dark) { :root { --ink: #e6edf0; --soft: #a4b3bb; --rule: #33444d; --page: #14202a; --line: #d6a24c; } }
body { max-width: 44rem; margin: 0 auto; padding: 3rem 1.25rem 5rem; background: var(--page); color: var(--ink); font: 1.06rem/1.55 Georgia, 'Times New Roman', serif; overflow-wrap: anywhere; }
h1 { margin: 0 0 .4rem; color: var(--ink); font-size: 1.6rem; line-height: 1.25; }
h2 { margin: 2.2rem 0 .8rem; font-size: 1.15rem; }
header, footer, .under { font-family: system-ui, sans-serif; font-size: .88rem; color: var(--soft); }
header { margin-bottom: 1.6rem; padding-bottom: 1rem; border-bottom: 1px solid var(--rule); }
a { color: inherit; text-underline-offset: .2em; }
.entry { margin: 0 0 1rem; }
.hang > p { padding-left: 2em; text-indent: -2em; }
.entry > p { margin: 0; }
.entry > p.under { margin: .3rem 0 .8rem 2em; padding: 0; text-indent: 0; }
.passage { margin: .7rem 0 .7rem 2em; padding-left: .9rem; border-left: 3px double var(--line); font-size: .98rem; }
.passage p { margin: 0 0 .25rem; }
.passage .own { font-family: system-ui, sans-serif; font-size: .9rem; }
@media print { body { padding: 0; max-width: none; font-size: 11pt; } header nav, footer { display: none; } .entry { break-inside: avoid-page; } }
`;

const many = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;

const KINDS: Record<string, string> = { pdf: 'PDF', page: 'Saved page', image: 'Picture' };

function passage(p: SharedEntry['passages'][number]): string {
  const words = p.words
    ? `<p>${p.kind === 'quotation' ? `“${escapeHtml(p.words)}”` : escapeHtml(p.words)}${p.locator ? ` (${escapeHtml(p.locator)})` : ''}</p>`
    : '';
  const own = [p.gist, p.ownWords].filter(Boolean).map((text) => `<p class="own">${escapeHtml(text)}</p>`);
  return `<div class="passage">${words}${own.join('')}</div>`;
}

/**
 * A shared list as a page that needs nothing but itself: no script, no font, no cookie; to be read, printed and saved. It asks to
 * be in no index (Robots Exclusion: the `noindex` rule).
 */
export function sharedPage(given: {
  title: string;
  lang: string;
  /** The address of the page itself. */
  at: string;
  hanging: boolean;
  entries: readonly SharedEntry[];
}): string {
  const { title, lang, at, hanging, entries } = given;
  const saves = [
    ['bibtex', 'BibTeX'],
    ['ris', 'RIS'],
    ['csl-json', 'CSL-JSON'],
  ].map(([as, name]) => `<a href="${escapeHtml(at)}?as=${as}">${name}</a>`);
  const list = entries.map(
    ({ heading, html, passages, documents }) =>
      `${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}<div class="entry${hanging ? ' hang' : ''}"><p>${html}</p>` +
      (documents.length
        ? `<p class="under">${documents
            .map(
              ({ address, name, kind }) =>
                `<a href="${escapeHtml(address)}">${KINDS[kind] ?? 'Document'}${name && !name.startsWith('http') ? `: ${escapeHtml(name)}` : ''}</a>`,
            )
            .join('<br>')}</p>`
        : '') +
      `${passages.map(passage).join('')}</div>`,
  );
  return `<!doctype html>
<html lang="${escapeHtml(lang)}">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><title>${escapeHtml(title)}</title><style>${STYLE}</style></head>
<body>
<header><h1>${escapeHtml(title)}</h1>
<div>${many(entries.length, 'reference')}, shared to read.</div>
${entries.length ? `<nav>Save as ${saves.join(', ')}</nav>` : ''}</header>
<main>
${list.join('\n') || '<p>Nothing stands in it yet.</p>'}
</main>
</body>
</html>
`;
}

/** What is said where a link opens nothing: the same whether there never was one, it was withdrawn or is over. */
export const closedPage = (): string => `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><title>This link opens nothing</title><style>${STYLE}</style></head>
<body><main><h1>This link opens nothing</h1><p>It may have been withdrawn, be over, or be incomplete. Ask whoever sent it for another.</p></main></body>
</html>
`;
