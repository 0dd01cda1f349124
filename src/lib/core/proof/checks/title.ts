import { decodeEntities, fold, isShouting, languageOfTitle, plain, sentenceCase } from '../../text';
import { fieldName, type SourceRecord, type Variable } from '../../source';
import type { Check, Finding } from '../types';

/** A source without a title prints as its type or not at all. */
export const titleMissing: Check = (record) =>
  record.title ? [] : [{ check: 'title-missing', pencil: 'red', field: 'title', message: 'No title' }];

const HELD_IN = ['title', 'container-title', 'collection-title', 'publisher', 'event-title'] as const;

/** A title in capitals prints in capitals; common practice asks for sentence case in the record. */
export const titleCapitals: Check = (record) =>
  HELD_IN.filter((field) => record[field] && isShouting(plain(record[field]))).map((field) => ({
    check: field === 'title' ? 'title-capitals' : 'capitals',
    pencil: 'red',
    field,
    message: `${field === 'title' ? 'Title' : capital(fieldName(field))} in capitals`,
    fix: {
      label: 'Lower the capitals',
      edit: { [field]: lowered(field, record[field]!, record) },
    },
  }));

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Names of journals and publishers have a capital for each word that is no short one. */
function lowered(field: Variable, text: string, { language }: SourceRecord): string {
  const lower = sentenceCase(text, { language });
  return field === 'title'
    ? lower
    : lower.replace(/(?<![\p{L}’'])\p{Ll}[\p{L}]{3,}/gu, (word) => capital(word));
}

/** What ends with a stop of its own: an abbreviation, an initial, an ellipsis. */
const STOPS = /(?:\.\.|…|\b(?:Co|Inc|Ltd|Jr|Sr|St|etc|al|ed|eds|vol|no|pp|ca|[A-Z])\.)$/i;

/** Styles set a full stop after a title; one in the record prints twice or in the wrong place. */
const titleStop: Check = ({ title }) => {
  if (!title?.endsWith('.') || STOPS.test(title)) return [];
  const clean = title.slice(0, -1).trimEnd();
  return [
    {
      check: 'title-stop',
      pencil: 'red',
      field: 'title',
      message: 'Title ends with a full stop',
      fix: { label: 'Take the stop out', edit: { title: clean } },
    },
  ];
};

const QUOTED = /^(?:"([^"]+)"|“([^”]+)”|„([^“”]+)[“”]|«\s?([^»]+?)\s?»|‘([^’]+)’)$/;

/** Quotation marks around a whole title are the style's to set. */
const titleQuoted: Check = ({ title }) => {
  const inside = title && QUOTED.exec(title)?.slice(1).find(Boolean);
  return inside
    ? [
        {
          check: 'title-quoted',
          pencil: 'red',
          field: 'title',
          message: 'The whole title is in quotation marks',
          fix: { label: 'Take them off', edit: { title: inside } },
        },
      ]
    : [];
};

/** Tags CSL-JSON knows within a value. Source: CSL 1.0.2, "CSL-JSON", rich text (HTML-like tags). */
const OURS = /<\/?(?:i|b|sub|sup|sc|span)\b[^<>]*>/gi;

/** Entities and tags of a web page print as they stand. */
const markup: Check = (record) =>
  (['title', 'container-title', 'publisher'] as const).flatMap((field): Finding[] => {
    const value = record[field];
    if (!value || !/[&<]/.test(value)) return [];
    const bare = value.replace(OURS, '');
    const entities = /&(?:[a-z]{2,8}|#\d{2,6}|#x[\da-f]{2,5});/i.test(bare);
    const tags = /<\/?[a-z][^<>]{0,200}>/i.test(bare);
    if (!entities && !tags) return [];
    const clean = (tags ? plain(value) : decodeEntities(value)).replace(/\s+/g, ' ').trim();
    return [
      {
        check: 'markup',
        pencil: 'red',
        field,
        message: `Marks of a web page in the ${fieldName(field)}`,
        ...(clean ? { fix: { label: 'Take them out', edit: { [field]: clean } } } : {}),
      },
    ];
  });

/** The name of a site or journal behind the title of a page: `Tide mills | Shore Gazette`. */
const titleSite: Check = (record) => {
  const { title } = record;
  const m = title && /^(.{8,}?)\s{1,3}(?:[|•»]|[-–—]{1,2})\s{1,3}([^|•»]{2,80})$/u.exec(title);
  if (!m) return [];
  const tail = fold(m[2]!);
  const named = (['container-title', 'publisher', 'collection-title'] as const).some(
    (field) => record[field] && fold(record[field]) === tail,
  );
  return named
    ? [
        {
          check: 'title-site',
          pencil: 'red',
          field: 'title',
          message: `“${m[2]!}” stands in the title and in its own field`,
          fix: { label: 'Cut it off', edit: { title: m[1]! } },
        },
      ]
    : [];
};

/** A file's name, or what a program calls a document nobody named. */
const titleOfFile: Check = ({ title }) =>
  title &&
  (/^[\w .()-]{1,120}\.(?:pdf|docx?|odt|rtf|tex|txt|html?|indd|qxd|dvi|ps)$/i.test(title) ||
    /^(?:untitled(?: document)?|document\s?\d*|scan[_\s-]?\d+|no job name|(?:full)?page photo|layout \d+)$/i.test(
      title,
    ))
    ? [{ check: 'title-file', pencil: 'red', field: 'title', message: 'The title is a file’s name' }]
    : [];

/** The first word behind the colon: English styles with sentence case print it with a capital (APA 7, 6.17; from memory). */
const titleColon: Check = ({ title, language }) => {
  if (!title || !/:\s+["“‘]?\p{Ll}/u.test(title)) return [];
  const english = language ? /^en\b/i.test(language) : languageOfTitle(plain(title)) === 'en';
  if (!english) return [];
  const fixed = title.replace(
    /(:\s+["“‘]?)(\p{Ll})(?!\p{L}*\p{Lu})/gu,
    (_, before: string, letter: string) => before + letter.toUpperCase(),
  );
  return fixed === title
    ? []
    : [
        {
          check: 'title-colon',
          pencil: 'blue',
          field: 'title',
          message: 'Small letter behind the colon',
          fix: { label: 'Make it a capital', edit: { title: fixed } },
        },
      ];
};

/** A part that is called as what it is in. */
const titleIsContainer: Check = ({ title, 'container-title': container, type }) =>
  title && container && fold(title) === fold(container) && type !== 'webpage' && type !== 'periodical'
    ? [
        {
          check: 'title-container',
          pencil: 'blue',
          field: 'container-title',
          message: 'Called the same as what it appeared in',
        },
      ]
    : [];

/** A short title that is longer than the title. */
const shortTitle: Check = ({ title, 'title-short': short }) =>
  title && short && fold(short).length > fold(title).length
    ? [
        {
          check: 'title-short',
          pencil: 'blue',
          field: 'title-short',
          message: 'The short title is longer than the title',
          fix: { label: 'Leave it out', edit: { 'title-short': null } },
        },
      ]
    : [];

/** Space where none belongs: before a colon outside French, or doubled. */
const spaces: Check = ({ title, language }) => {
  if (!title) return [];
  const french = language ? /^fr\b/i.test(language) : languageOfTitle(plain(title)) === 'fr';
  let clean = title.replace(/[ \u00a0]{2,}/g, ' ').replace(/ ([,.;])(?=\s|$)/g, '$1');
  if (!french) clean = clean.replace(/[ \u00a0]:(?=\s)/g, ':');
  return clean === title
    ? []
    : [
        {
          check: 'title-spaces',
          pencil: 'red',
          field: 'title',
          message: 'Space before a mark, or doubled',
          fix: { label: 'Set it right', edit: { title: clean } },
        },
      ];
};

export const titleChecks: Check[] = [
  titleMissing,
  titleCapitals,
  titleStop,
  titleQuoted,
  markup,
  titleSite,
  titleOfFile,
  titleColon,
  titleIsContainer,
  shortTitle,
  spaces,
];
