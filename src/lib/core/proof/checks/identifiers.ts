import { findDoi, isbnKey, isIssn } from '../../source';
import type { Check } from '../types';

/** Identifiers whose syntax or check digit is wrong (DOI Handbook 2.2; ISO 2108; ISO 3297). */
export const identifiers: Check = (record) => {
  const findings = [];
  const { DOI, ISBN, ISSN } = record;
  const doi = DOI === undefined ? undefined : findDoi(DOI);
  if (DOI !== undefined && !doi)
    findings.push({
      check: 'doi-invalid',
      pencil: 'red' as const,
      field: 'DOI' as const,
      message: 'Not a DOI',
    });
  if (DOI !== undefined && doi && doi !== DOI)
    findings.push({
      check: 'doi-form',
      pencil: 'red' as const,
      field: 'DOI' as const,
      message: 'DOI with more than the DOI in it',
      fix: { label: 'Keep the bare DOI', edit: { DOI: doi } },
    });
  if (ISBN !== undefined && !ISBN.split(/[,;]|\s(?=97)/).some((part) => isbnKey(part)))
    findings.push({
      check: 'isbn-invalid',
      pencil: 'red' as const,
      field: 'ISBN' as const,
      message: 'ISBN fails its check digit',
    });
  if (ISSN !== undefined && !ISSN.split(/[,;\s]+/).some(isIssn))
    findings.push({
      check: 'issn-invalid',
      pencil: 'red' as const,
      field: 'ISSN' as const,
      message: 'ISSN fails its check digit',
    });
  return findings;
};
