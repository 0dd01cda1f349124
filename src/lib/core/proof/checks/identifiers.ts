import { addressKey, bareDoi, findDoi, isbnKeys, isIssn, issnText } from '../../source';
import type { Check, Finding } from '../types';

/** A DOI whose syntax is wrong, or that has more than the DOI in it (DOI Handbook 2.2). */
const doi: Check = ({ DOI }) => {
  if (DOI === undefined) return [];
  const found = findDoi(DOI);
  if (!found) return [{ check: 'doi-invalid', pencil: 'red', field: 'DOI', message: 'Not a DOI' }];
  // Some publishers' DOIs have angle brackets in them, which end a DOI in running text (SICI, ANSI/NISO Z39.56).
  return found === DOI || /^10\.\d{4,9}\/\S*<\S*>\S*$/.test(DOI)
    ? []
    : [
        {
          check: 'doi-form',
          pencil: 'red',
          field: 'DOI',
          message: 'DOI with more than the DOI in it',
          fix: { label: 'Keep the bare DOI', edit: { DOI: found } },
        },
      ];
};

/** An address that is a DOI: as one, it goes on leading there, and styles print it as they want it. */
const doiInAddress: Check = ({ DOI, URL }) => {
  if (!URL || DOI) return [];
  const bare = bareDoi(URL);
  return bare === URL
    ? []
    : [
        {
          check: 'doi-address',
          pencil: 'blue',
          field: 'URL',
          message: 'The address is a DOI',
          fix: { label: 'Keep it as DOI', edit: { DOI: bare, URL: null } },
        },
      ];
};

/** A DOI given through a resolver of an earlier form (DOI Handbook 3.8: `https://doi.org/` since 2017; from memory). */
const doiResolver: Check = ({ DOI, URL }) =>
  DOI && URL && /^https?:\/\/dx\.doi\.org\//i.test(URL)
    ? [
        {
          check: 'doi-resolver',
          pencil: 'blue',
          field: 'URL',
          message: 'An address of the DOI in its earlier form',
          fix: { label: 'Leave it to the DOI', edit: { URL: null } },
        },
      ]
    : [];

/** ISBNs (ISO 2108) and ISSNs (ISO 3297) whose check digit is wrong. */
const digits: Check = ({ ISBN, ISSN }) => {
  const found: Finding[] = [];
  if (ISBN !== undefined && isbnKeys(ISBN).length === 0)
    found.push({
      check: 'isbn-invalid',
      pencil: 'red',
      field: 'ISBN',
      message: 'ISBN fails its check digit',
    });
  if (ISSN !== undefined) {
    const given = ISSN.split(/[,;\s]+/).filter(Boolean);
    if (!given.some(isIssn))
      found.push({
        check: 'issn-invalid',
        pencil: 'red',
        field: 'ISSN',
        message: 'ISSN fails its check digit',
      });
    else if (given.length === 1 && issnText(ISSN) !== ISSN)
      found.push({
        check: 'issn-form',
        pencil: 'blue',
        field: 'ISSN',
        message: 'ISSN without its hyphen',
        fix: { label: `Make it ${issnText(ISSN)!}`, edit: { ISSN: issnText(ISSN)! } },
      });
  }
  return found;
};

/** Identifiers of PubMed and PubMed Central: digits, and digits behind `PMC` (from memory). */
const pubmed: Check = ({ PMID, PMCID }) => [
  ...(PMID !== undefined && !/^\d{1,8}$/.test(PMID.trim())
    ? [
        {
          check: 'pmid-form',
          pencil: 'red' as const,
          field: 'PMID' as const,
          message: 'Not a PubMed ID',
          ...(/\b\d{4,8}\b/.test(PMID)
            ? { fix: { label: 'Keep the number', edit: { PMID: /\b\d{4,8}\b/.exec(PMID)![0] } } }
            : {}),
        },
      ]
    : []),
  ...(PMCID !== undefined && !/^PMC\d{1,9}$/i.test(PMCID.trim())
    ? [
        {
          check: 'pmcid-form',
          pencil: 'red' as const,
          field: 'PMCID' as const,
          message: 'Not a PubMed Central ID',
          ...(/\d{4,9}/.test(PMCID)
            ? {
                fix: {
                  label: `Make it PMC${/\d{4,9}/.exec(PMCID)![0]}`,
                  edit: { PMCID: `PMC${/\d{4,9}/.exec(PMCID)![0]}` },
                },
              }
            : {}),
        },
      ]
    : []),
];

const PASSING =
  /^(?:utm_\w+|fbclid|gclid|dclid|msclkid|mc_[ce]id|igshid|yclid|_ga|_gl|s?sessionid|session_?id|phpsessid|jsessionid|sid|token|auth|ref_?src|referrer|source_?id)$/i;

/** An address without the parts that belong to one visit: what counts visitors, and sessions. */
export function lastingAddress(address: string): string {
  if (!URL.canParse(address)) return address;
  const url = new URL(address);
  const before = url.href;
  for (const name of [...url.searchParams.keys()]) if (PASSING.test(name)) url.searchParams.delete(name);
  url.pathname = url.pathname.replace(/;(?:jsessionid|phpsessid|sid)=[^/;]*/gi, '');
  if (/^#:~:text=/.test(url.hash)) url.hash = '';
  return url.href === before ? address : url.href.replace(/\?$/, '');
}

const address: Check = ({ URL: given }) => {
  if (!given) return [];
  if (!/^[a-z][a-z0-9+.-]*:/i.test(given)) {
    const whole = `https://${given}`;
    return [
      {
        check: 'address-form',
        pencil: 'red',
        field: 'URL',
        message: 'Not a whole address',
        ...(/^[\p{L}\d-]+(?:\.[\p{L}\d-]+)+(?:[/?#]|$)/u.test(given) && URL.canParse(whole)
          ? { fix: { label: `Make it ${whole.slice(0, 60)}`, edit: { URL: whole } } }
          : {}),
      },
    ];
  }
  if (!URL.canParse(given))
    return [{ check: 'address-form', pencil: 'red', field: 'URL', message: 'Not an address' }];
  const { protocol, hostname } = new URL(given);
  if (!/^(?:https?|ftp):$/.test(protocol) || /^(?:localhost|127\.|10\.|192\.168\.)/.test(hostname))
    return [
      {
        check: 'address-own',
        pencil: 'red',
        field: 'URL',
        message: 'An address on one’s own machine or network: nobody else comes there',
      },
    ];
  const found: Finding[] = [];
  const lasting = lastingAddress(given);
  if (lasting !== given && addressKey(lasting))
    found.push({
      check: 'address-visit',
      pencil: 'blue',
      field: 'URL',
      message: 'The address has parts of one visit in it',
      fix: { label: 'Take them out', edit: { URL: lasting } },
    });
  if (/(?:^|[.-])\w{0,20}proxy\w{0,20}[.-]/i.test(hostname))
    found.push({
      check: 'address-proxy',
      pencil: 'blue',
      field: 'URL',
      message: 'An address through a library’s door: others do not come in there',
    });
  if (
    /\/(?:search|results?)(?:\/|\?|$)/i.test(given.split('?')[0]! + '?') &&
    /[?&](?:q|query|search)=/i.test(given)
  )
    found.push({
      check: 'address-search',
      pencil: 'red',
      field: 'URL',
      message: 'The address of a search, not of the page',
    });
  return found;
};

export const identifierChecks: Check[] = [doi, doiInAddress, doiResolver, digits, pubmed, address];
