import { withoutTrailing } from '../text';

/** Digits and a final X only. */
const bare = (text: string) => text.replace(/[^0-9X]/gi, '').toUpperCase();

const SHORT_DOI_TAIL = /[.,;:'"”’>\]]+$/u;

/**
 * The first DOI in a text, bare, or `undefined`. Takes it out of an address or a sentence, decodes percent escapes
 * of an address, and drops punctuation and closing brackets that were never opened in it.
 * Syntax: DOI Handbook, section 2.2 (prefix `10.` registrant, slash, suffix of any printable characters).
 */
export function findDoi(text: string): string | undefined {
  const m = /\b10\.\d{4,9}(?:\.\d{1,20}){0,9}\/[^\s"<>{}|\\^`]{1,2000}/.exec(
    /%2f/i.test(text) ? safeDecode(text) : text,
  );
  if (!m) return undefined;
  let doi = m[0];
  for (;;) {
    const before = doi;
    doi = doi.replace(SHORT_DOI_TAIL, '');
    if (doi.endsWith(')') && count(doi, ')') > count(doi, '(')) doi = doi.slice(0, -1);
    if (doi === before) break;
  }
  return /\/.+/.test(doi) ? doi : undefined;
}

const count = (text: string, char: string) => text.split(char).length - 1;
function safeDecode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** The bare DOI of a text that is one and no more: in an address of its resolver or after `doi:`. Other text as it is. */
export function bareDoi(text: string): string {
  if (!/^\s*(?:doi:\s*|https?:\/\/(?:dx\.|www\.)?doi\.org\/)10\.\S+\s*$/i.test(text)) return text;
  return findDoi(text) ?? text;
}

/** A DOI for comparing: bare and in lower case (DOIs are case-insensitive: DOI Handbook, section 2.4). */
export function doiKey(text: string | undefined): string | undefined {
  return text === undefined ? undefined : findDoi(text)?.toLowerCase();
}

/** Whether a 13-digit ISBN's check digit holds (ISO 2108: weights 1 and 3, modulus 10). */
export function isIsbn13(digits: string): boolean {
  if (!/^97[89]\d{10}$/.test(digits)) return false;
  return [...digits].reduce((sum, d, i) => sum + Number(d) * (i % 2 ? 3 : 1), 0) % 10 === 0;
}

/** Whether a 10-character ISBN's check character holds (ISO 2108:1992: weights 10 to 1, modulus 11, X is ten). */
export function isIsbn10(chars: string): boolean {
  if (!/^\d{9}[\dX]$/.test(chars)) return false;
  return [...chars].reduce((sum, c, i) => sum + (c === 'X' ? 10 : Number(c)) * (10 - i), 0) % 11 === 0;
}

/** The 13-digit form of an ISBN whose check digit holds, or `undefined`. */
export function isbnKey(text: string | undefined): string | undefined {
  const digits = bare(text ?? '');
  if (isIsbn13(digits)) return digits;
  if (!isIsbn10(digits)) return undefined;
  const body = `978${digits.slice(0, 9)}`;
  const sum = [...body].reduce((s, d, i) => s + Number(d) * (i % 2 ? 3 : 1), 0);
  return body + String((10 - (sum % 10)) % 10);
}

/** Longest text whose ISBNs are looked for, in characters. */
const LONGEST = 600;

/** The keys of all ISBNs in a field whose check digits hold, each once. */
export function isbnKeys(text: string | undefined): string[] {
  const found = new Set<string>();
  for (const [given] of (text ?? '').slice(0, LONGEST).matchAll(/(?:97[89][\s-]?)?(?:\d[\s-]?){9}[\dXx]/g)) {
    const key = isbnKey(given);
    if (key) found.add(key);
  }
  return [...found];
}

/** The key of the first ISBN in a field, which may hold several or say of each what it is bound in. */
export const firstIsbnKey = (text: string | undefined): string | undefined =>
  isbnKey(text) ?? isbnKey(findIsbn(text ?? ''));

/** An ISBN in a text (with or without hyphens), as written, if its check digit holds. */
export function findIsbn(text: string): string | undefined {
  for (const m of text.matchAll(/(?:97[89][\s-]?)?(?:\d[\s-]?){9}[\dXx]/g))
    if (isbnKey(m[0])) return m[0].trim();
  return undefined;
}

/** Whether an ISSN's check character holds (ISO 3297: weights 8 to 2, modulus 11, X is ten). */
export function isIssn(text: string): boolean {
  const chars = bare(text);
  if (!/^\d{7}[\dX]$/.test(chars)) return false;
  return [...chars].reduce((sum, c, i) => sum + (c === 'X' ? 10 : Number(c)) * (8 - i), 0) % 11 === 0;
}

/** An ISSN as printed, `1234-5678`, if its check character holds. */
export function issnText(text: string): string | undefined {
  return isIssn(text) ? bare(text).replace(/^(....)/, '$1-') : undefined;
}

/** Whether the check character of an ORCID’s sixteen holds (ISO 7064, MOD 11-2, as ORCID describes its identifiers). */
export function isOrcid(text: string): boolean {
  const chars = bare(text);
  if (!/^\d{15}[\dX]$/.test(chars)) return false;
  const total = [...chars.slice(0, 15)].reduce((sum, digit) => ((sum + Number(digit)) * 2) % 11, 0);
  const check = (12 - total) % 11;
  return chars[15] === (check === 10 ? 'X' : String(check));
}

/** An ORCID as printed, `0000-0002-1825-0097`, from itself or its address, if its check character holds. */
export function orcidText(text: string): string | undefined {
  const given = text.trim().replace(/^(?:https?:\/\/)?(?:www\.)?orcid\.org\//i, '');
  return isOrcid(given) ? bare(given).replace(/(....)(?=.)/g, '$1-') : undefined;
}

/** An address for comparing: no scheme, `www.`, fragment, trailing slash or tracking parameters. */
export function addressKey(text: string | undefined): string | undefined {
  if (!text) return undefined;
  try {
    const url = new URL(text);
    for (const name of [...url.searchParams.keys()])
      if (/^(utm_|fbclid|gclid)/.test(name)) url.searchParams.delete(name);
    return (url.host.replace(/^www\./, '') + url.pathname.replace(/\/$/, '') + url.search).toLowerCase();
  } catch {
    return undefined;
  }
}

/**
 * An arXiv identifier in a text, without its version: new scheme `2104.01234` after `arXiv:` or in an address of the
 * archive, old scheme `hep-th/9901001` likewise. Source: arXiv identifier scheme (from memory).
 */
export function findArxiv(text: string): string | undefined {
  const m =
    /(?:\barxiv:\s*|\barxiv\.(?:org|example)\/(?:abs|pdf|html)\/)((?:\d{4}\.\d{4,5})|(?:[a-z-]+(?:\.[A-Z]{2})?\/\d{7}))/i.exec(
      text,
    );
  return m?.[1];
}

/** The DOI that an arXiv identifier is registered under (practice of its registration agency since 2022; from memory). */
export const arxivDoi = (id: string): string => `10.48550/arXiv.${id}`;

/** A PubMed identifier in a text, after `PMID` or in an address of PubMed. */
export function findPmid(text: string): string | undefined {
  return /(?:\bPMID:?\s*|\bpubmed(?:\.[\w.]{1,60})?\/)(\d{1,8})\b/i.exec(text)?.[1];
}

/** A Handle in a text, after `hdl:` or in an address of the resolver. DOIs are Handles too but are told before. */
export function findHandle(text: string): string | undefined {
  const found =
    /(?:\bhdl:\s{0,9}|\bhdl\.handle\.(?:net|example)\/)([\w.]{1,200}\/[^\s"<>]{1,2000})(?=\s|$)/i.exec(
      text,
    )?.[1];
  const handle = found && withoutTrailing(found, '.,;)');
  return handle && !handle.endsWith('/') ? handle : undefined;
}

/** An ISSN in a text, as printed, if its check character holds. */
export function findIssn(text: string): string | undefined {
  for (const m of text.matchAll(/(?<![\d-])\d{4}-\d{3}[\dXx](?![\d-])/g))
    if (isIssn(m[0])) return issnText(m[0]);
  return undefined;
}

/** What a person put into the capture field. */
export type Given =
  | { kind: 'address'; address: string }
  | { kind: 'doi'; doi: string }
  | { kind: 'isbn'; isbn: string }
  | { kind: 'arxiv'; id: string; doi: string }
  | { kind: 'pmid'; pmid: string }
  | { kind: 'handle'; handle: string }
  | { kind: 'issn'; issn: string; details: string }
  | { kind: 'text'; text: string };

const addressIn = (text: string): string | undefined => {
  if (/\s/.test(text)) return undefined;
  const candidate = /^[a-z][a-z0-9+.-]*:\/\//i.test(text)
    ? text
    : /^(?:[\p{L}\p{N}-]+\.)+\p{L}{2,}(?::\d+)?(?:[/?#].*)?$/u.test(text)
      ? `https://${text}`
      : '';
  return candidate && URL.canParse(candidate) && /^https?:/i.test(candidate)
    ? new URL(candidate).href
    : undefined;
};

/** Longest text that may be an address, in characters. */
const LONGEST_ADDRESS = 4_000;
/** Longest sentence in which an identifier is taken for what is meant; a longer text is a text. */
const SENTENCE = 600;

/**
 * Tells what a text is: an address; a DOI, ISBN, arXiv id, PMID or Handle, alone, in an address of its resolver or in
 * a sentence; an ISSN with details (volume, pages, title words); else text. In an address of another site an
 * identifier is only a part of that address. A host without a scheme (`example.org/a`) is an address.
 */
export function recognise(input: string): Given {
  const text = input.trim();
  if (text.length > LONGEST_ADDRESS) return { kind: 'text', text };
  const address = addressIn(text.includes('(') ? text : withoutTrailing(text, '.,;'));
  const doi = findDoi(text);
  const alone = /^(?:doi:\s*|(?:https?:\/\/)?(?:dx\.)?doi\.(?:org|example)\/)?10\./i.test(text);
  const arxiv = findArxiv(text);
  const pmid = findPmid(text);
  const handle = findHandle(text);
  if (address && !alone) {
    if (arxiv) return { kind: 'arxiv', id: arxiv, doi: arxivDoi(arxiv) };
    if (pmid && /pubmed/.test(new URL(address).host + new URL(address).pathname))
      return { kind: 'pmid', pmid };
    if (handle) return { kind: 'handle', handle };
    return { kind: 'address', address };
  }
  if (text.length > SENTENCE || /\n\s*\S/.test(text)) return { kind: 'text', text };
  if (doi) return { kind: 'doi', doi };
  if (arxiv) return { kind: 'arxiv', id: arxiv, doi: arxivDoi(arxiv) };
  if (pmid) return { kind: 'pmid', pmid };
  if (handle) return { kind: 'handle', handle };
  const labelled = /\bISBN(?:-1[03])?:?\s*([\dXx\s-]{10,20})/i.exec(text)?.[1];
  const isbn = labelled ? findIsbn(labelled) : /^[\dXx\s-]{10,20}$/i.test(text) ? findIsbn(text) : undefined;
  if (isbn) return { kind: 'isbn', isbn };
  const issn = findIssn(text);
  if (issn && (/\bISSN\b/i.test(text) || text.startsWith(issn)))
    return {
      kind: 'issn',
      issn,
      details: text
        .replace(/\bISSN:?/i, '')
        .replace(issn, '')
        .replace(/^[\s,;]+|[\s,;]+$/g, ''),
    };
  const found = /https?:\/\/[^\s<>"]+/.exec(text)?.[0];
  const inside = found && withoutTrailing(found, ').,;');
  if (inside && text.split(/\s+/).length <= 12 && URL.canParse(inside))
    return { kind: 'address', address: new URL(inside).href };
  return { kind: 'text', text };
}

/**
 * Identifiers and addresses written one a line: each line's meaning, or `undefined` when there is only one line or
 * some line is plain text.
 */
export function recogniseLines(input: string): Given[] | undefined {
  const lines = input
    .split(/\r?\n/)
    .map((l) => l.replace(/^\s*(?:[-*•]|\d+[.)])\s+/, '').trim())
    .filter(Boolean);
  if (lines.length < 2) return undefined;
  const given = lines.map(recognise);
  return given.every((g) => g.kind !== 'text') ? given : undefined;
}

/** An address without the user name and password it may carry (RFC 3986, 3.2.1); other text as it is. */
export const withoutPassword = (address: string): string =>
  address.includes('@') ? address.replace(/^(\s*(?:https?|ftp):\/\/)[^/?#\s]*@/i, '$1') : address;
