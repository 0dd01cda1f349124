import { fold } from '../../text';
import type { Check, Finding } from '../types';

/** `London: Strand Press` as a publisher: its place stands in it. */
const placeInPublisher: Check = ({ publisher, 'publisher-place': place }) => {
  const m = publisher && /^([^:;]{2,60}?)\s*:\s+(\S[^:]{2,200})$/u.exec(publisher);
  if (!m || /\d/.test(m[1]!) || (place && fold(place) !== fold(m[1]!))) return [];
  return [
    {
      check: 'publisher-place-in',
      pencil: 'red',
      field: 'publisher',
      message: 'The place stands in the publisher',
      fix: { label: 'Part them', edit: { publisher: m[2]!, 'publisher-place': m[1]! } },
    },
  ];
};

/** A place that holds the publisher, or a whole postal address. */
const publisherInPlace: Check = ({ publisher, 'publisher-place': place }) => {
  if (!place) return [];
  const m = /^([^:;\d]{2,60}?)\s*:\s+(\S[^:]{2,200})$/u.exec(place);
  if (m && (!publisher || fold(publisher) === fold(m[2]!)))
    return [
      {
        check: 'publisher-in-place',
        pencil: 'red',
        field: 'publisher-place',
        message: 'The publisher stands in the place',
        fix: { label: 'Part them', edit: { publisher: m[2]!, 'publisher-place': m[1]! } },
      },
    ];
  return /\d{3,}/.test(place)
    ? [
        {
          check: 'place-address',
          pencil: 'red',
          field: 'publisher-place',
          message: 'A postal address where only the city prints',
        },
      ]
    : [];
};

/** A publisher with its street, or with what a company is by law, which styles leave out (APA 7, 9.29; from memory). */
const publisherForm: Check = ({ publisher }) => {
  if (!publisher) return [];
  if (/,\s[^,]{0,200}\d{3}/.test(publisher))
    return [
      {
        check: 'publisher-address',
        pencil: 'red',
        field: 'publisher',
        message: 'The publisher stands with its postal address',
        fix: { label: 'Keep the name', edit: { publisher: publisher.split(',')[0]!.trim() } },
      },
    ];
  const bare = publisher.replace(
    /[,\s]{1,3}(?:Inc|Ltd|LLC|GmbH|Corp|PLC|S\.?\s?A|B\.?\s?V|Limited)\.?$/i,
    '',
  );
  return bare && bare !== publisher
    ? [
        {
          check: 'publisher-form',
          pencil: 'blue',
          field: 'publisher',
          message: 'The publisher says what company it is by law',
          fix: { label: `Make it ${bare}`, edit: { publisher: bare } },
        },
      ]
    : [];
};

const EMPTY =
  /^(?:n\.?\s?\/?\s?a\.?|none|null|nil|undefined|unknown|unbekannt|inconnu|not (?:available|given|known)|tba|tbd|-+|–|\?+|\.+|x{2,}|\[?s\.?\s?[nl]\.?\]?|\[?n\.?\s?p\.?\]?|\[?o\.?\s?[oj]\.?\]?)$/i;
const HELD = [
  'title',
  'container-title',
  'publisher',
  'publisher-place',
  'volume',
  'issue',
  'page',
  'edition',
  'language',
  'genre',
  'number',
] as const;

/** What stands for nothing: styles say it in their own words where a field is empty. */
const placeholder: Check = (record) => {
  const found: Finding[] = HELD.filter((field) => record[field] && EMPTY.test(record[field].trim())).map(
    (field) => ({
      check: 'placeholder',
      pencil: 'red',
      field,
      message: `“${record[field]!}” stands for nothing`,
      fix: { label: 'Leave it empty', edit: { [field]: null } },
    }),
  );
  const nobody = record.author?.filter(({ literal, family, given }) =>
    /^(?:anon(?:ymous|\.)?|unknown(?: author)?|n\.?\s?a\.?|no author|admin(?:istrator)?|editor|staff|user|guest|null)$/i.test(
      literal ?? [given, family].filter(Boolean).join(' '),
    ),
  );
  if (nobody?.length) {
    const rest = record.author!.filter((name) => !nobody.includes(name));
    const said = nobody[0]!.literal ?? nobody[0]!.family ?? nobody[0]!.given ?? '';
    found.push({
      check: 'nobody',
      pencil: 'blue',
      field: 'author',
      message: `“${said}” is nobody’s name`,
      fix: { label: 'Leave it out', edit: { author: rest.length ? rest : null } },
    });
  }
  return found;
};

export const publisherChecks: Check[] = [placeInPublisher, publisherInPlace, publisherForm, placeholder];
