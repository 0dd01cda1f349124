import { escapeHtml, withoutControls } from '../text';

/** A table to be saved: what its columns are called, and its rows, each as long as the heads. */
export interface Table {
  heads: readonly string[];
  rows: readonly (readonly (string | number)[])[];
}

/** Characters at which a program that opens a table takes a cell for something to be reckoned. */
const RECKONED = /^[=+\-@\t\r]/;

/**
 * A table as comma-separated values (RFC 4180), in UTF-8 with a byte order mark, by which spreadsheets know it. A text that begins
 * like a formula gets an apostrophe before it, so that nothing is reckoned from what a page or a file called itself.
 */
export function toCsv({ heads, rows }: Table): string {
  const cell = (value: string | number) => {
    if (typeof value === 'number') return String(value);
    const text = RECKONED.test(value) ? `'${value}` : value;
    return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
  };
  return `\ufeff${[heads, ...rows].map((row) => `${row.map(cell).join(',')}\r\n`).join('')}`;
}

const escaped = (text: string) => escapeHtml(withoutControls(text));

/**
 * The files of a table as an OpenDocument spreadsheet (ISO/IEC 26300-1, part 3 for the package), by their names; `mimetype` is to
 * stand first in the archive, stored. Texts are texts there, whatever they begin with.
 */
export function odsFiles({ heads, rows }: Table, name: string): Map<string, string> {
  const cell = (value: string | number) =>
    typeof value === 'number'
      ? `<table:table-cell office:value-type="float" office:value="${value}"><text:p>${value}</text:p></table:table-cell>`
      : `<table:table-cell office:value-type="string">${value
          .split(/\r?\n/)
          .map((line) => `<text:p>${escaped(line)}</text:p>`)
          .join('')}</table:table-cell>`;
  const row = (cells: readonly (string | number)[]) =>
    `<table:table-row>${cells.map(cell).join('')}</table:table-row>`;
  const type = 'application/vnd.oasis.opendocument.spreadsheet';
  const head = '<?xml version="1.0" encoding="UTF-8"?>\n';
  return new Map([
    ['mimetype', type],
    [
      'META-INF/manifest.xml',
      `${head}<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:version="1.3" manifest:media-type="${type}"/><manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>`,
    ],
    [
      'content.xml',
      `${head}<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" office:version="1.3"><office:body><office:spreadsheet><table:table table:name="${escaped(name)}"><table:table-header-rows>${row(heads)}</table:table-header-rows>${rows.map(row).join('')}</table:table></office:spreadsheet></office:body></office:document-content>`,
    ],
  ]);
}
