import {
  dateText,
  fieldLabel,
  isDateVariable,
  precisionOf,
  yearOf,
  type CslDate,
  type SourceRecord,
} from '../../source';
import type { Check, Finding } from '../types';

/** Kinds that are printed: none is older than printing with movable type in Europe. */
const PRINTED = new Set([
  'article-journal',
  'article-magazine',
  'article-newspaper',
  'book',
  'chapter',
  'report',
  'thesis',
]);
/** Kinds of the web, which was first written for in 1991. */
const ON_THE_WEB = new Set(['webpage', 'post', 'post-weblog']);

/** Days since year 0, roughly, so that dates as far as they are known can be compared; the first day of what is known. */
const dayOf = (date: CslDate | undefined): number | undefined => {
  const [y, m = 1, d = 1] = date?.['date-parts']?.[0] ?? [];
  return y === undefined ? undefined : y * 372 + (m - 1) * 31 + d - 1;
};

const dateFuture: Check = ({ issued, status }, { year }) => {
  const y = yearOf(issued);
  return y !== undefined && y > year + 1 && !status
    ? [{ check: 'date-future', pencil: 'red', field: 'issued', message: `${y} has not come yet` }]
    : [];
};

const dateTooEarly: Check = ({ issued, type }) => {
  const y = yearOf(issued);
  if (y === undefined || issued?.circa) return [];
  if (PRINTED.has(type) && y < 1450)
    return [
      {
        check: 'date-early',
        pencil: y < 1000 ? 'red' : 'blue',
        field: 'issued',
        message: `${y}: nothing was printed yet`,
      },
    ];
  return ON_THE_WEB.has(type) && y < 1991
    ? [
        {
          check: 'date-early',
          pencil: 'blue',
          field: 'issued',
          message: `${y}: the web is younger. The date of what is shown there?`,
        },
      ]
    : [];
};

/** A date in words prints as it is and sorts as none. */
const dateInWords: Check = (record) =>
  (['issued', 'accessed', 'original-date'] as const).flatMap((field): Finding[] => {
    const date = record[field];
    return date?.literal &&
      !date['date-parts'] &&
      !/^(?:n\.?\s?d\.?|s\.?\s?a\.?|o\.?\s?J\.?|undated|forthcoming|in press)$/i.test(date.literal)
      ? [
          {
            check: 'date-words',
            pencil: 'blue',
            field,
            message: `${fieldLabel(field)} in words: prints as it stands, and sorts as no date`,
          },
        ]
      : [];
  });

/** "n.d." in the record: styles write it in their language where the date is absent. */
const noDateSaid: Check = ({ issued }) =>
  issued?.literal && /^(?:n\.?\s?d\.?|s\.?\s?[ad]\.?|o\.?\s?J\.?|undated)$/i.test(issued.literal)
    ? [
        {
          check: 'date-none',
          pencil: 'red',
          field: 'issued',
          message: `“${issued.literal}” is for the style to say`,
          fix: { label: 'Leave it empty', edit: { issued: null } },
        },
      ]
    : [];

const accessedEarlier: Check = ({ issued, accessed }) => {
  const [came, seen] = [issued?.['date-parts']?.[0], accessed?.['date-parts']?.[0]];
  if (!came || !seen) return [];
  const n = Math.min(came.length, seen.length);
  const before = seen.slice(0, n).findIndex((part, i) => part !== came[i]);
  return before !== -1 && seen[before]! < came[before]!
    ? [{ check: 'accessed-early', pencil: 'red', field: 'accessed', message: 'Accessed before it came out' }]
    : [];
};

const originalLater: Check = ({ issued, 'original-date': original }) => {
  const [now, first] = [yearOf(issued), yearOf(original)];
  return now !== undefined && first !== undefined && first > now
    ? [
        {
          check: 'original-later',
          pencil: 'red',
          field: 'original-date',
          message: 'First published after it was published',
          fix: { label: 'Swap the dates', edit: { issued: original, 'original-date': issued } },
        },
      ]
    : [];
};

/** Kinds whose date on the page of a repository is often that of the upload. */
const UPLOADED = new Set([
  'thesis',
  'report',
  'book',
  'chapter',
  'paper-conference',
  'article-journal',
  'map',
  'manuscript',
  'dataset',
  'article',
]);

/** Dates of other origins than the one that is taken. */
const otherDates = ({ retexa, issued }: SourceRecord): { date: CslDate; kind: string }[] =>
  (Object.hasOwn(retexa.origins, 'issued') ? (retexa.origins.issued ?? []) : []).flatMap(
    ({ value, kind }) => {
      const date = value as CslDate;
      return yearOf(date) !== undefined && yearOf(date) !== yearOf(issued) ? [{ date, kind }] : [];
    },
  );

/** An origin that says an earlier year: the date that is taken may be when it was put online. */
const dateOfUpload: Check = (record) => {
  const { issued, type } = record;
  const year = yearOf(issued);
  if (year === undefined || !UPLOADED.has(type)) return [];
  const chosen = record.retexa.origins.issued?.find(
    ({ kind, value }) => kind === 'person' && JSON.stringify(value) === JSON.stringify(issued),
  );
  if (chosen) return [];
  const earlier = otherDates(record).filter(({ date, kind }) => yearOf(date)! < year && kind !== 'person');
  const first = earlier.sort((a, b) => yearOf(a.date)! - yearOf(b.date)!)[0];
  return first
    ? [
        {
          check: 'date-upload',
          pencil: 'blue',
          field: 'issued',
          message: `Another origin says ${dateText(first.date)}. ${year} may be when it was put online`,
          fix: { label: `Take ${dateText(first.date)}`, edit: { issued: first.date } },
        },
      ]
    : [];
};

/** The day a page was read stands as the day it came out. */
const dateOfVisit: Check = ({ issued, accessed, type }) =>
  ON_THE_WEB.has(type) && precisionOf(issued) === 3 && dayOf(issued) === dayOf(accessed)
    ? [
        {
          check: 'date-visit',
          pencil: 'blue',
          field: 'issued',
          message: 'Came out on the very day it was accessed?',
        },
      ]
    : [];

/** A range whose end is before its beginning. */
const rangeTurned: Check = (record) =>
  Object.keys(record)
    .filter(isDateVariable)
    .flatMap((field): Finding[] => {
      const [from, to] = record[field]?.['date-parts'] ?? [];
      if (!from || !to) return [];
      const [a, b] = [dayOf({ 'date-parts': [from] })!, dayOf({ 'date-parts': [to] })!];
      return b < a && to[0]! < from[0]!
        ? [
            {
              check: 'date-range',
              pencil: 'red',
              field,
              message: `${fieldLabel(field)} ends before it begins`,
              fix: {
                label: 'Turn it round',
                edit: { [field]: { ...record[field], 'date-parts': [to, from] } },
              },
            },
          ]
        : [];
    });

export const dateChecks: Check[] = [
  dateFuture,
  dateTooEarly,
  dateInWords,
  noDateSaid,
  accessedEarlier,
  originalLater,
  dateOfUpload,
  dateOfVisit,
  rangeTurned,
];
