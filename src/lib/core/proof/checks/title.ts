import { isShouting, plain, sentenceCase } from '../../text';
import type { Check } from '../types';

/** A source without a title prints as its type or not at all. */
export const titleMissing: Check = (record) =>
  record.title ? [] : [{ check: 'title-missing', pencil: 'red', field: 'title', message: 'No title' }];

/** A title in capitals prints in capitals; common practice asks for sentence case in the record. */
export const titleCapitals: Check = (record) =>
  record.title && isShouting(plain(record.title))
    ? [
        {
          check: 'title-capitals',
          pencil: 'red',
          field: 'title',
          message: 'Title in capitals',
          fix: { label: 'Lower the capitals', edit: { title: sentenceCase(record.title) } },
        },
      ]
    : [];
