import { strToU8, zipSync } from 'fflate';
import { odsFiles, toCsv, type Table } from '$lib/core/tables';
import type { SourceItem } from '$lib/server/sources';
import { call, download } from '../frame/client';
import type { SourceColumn } from './columns.svelte';

/** How many rows the server gives at once. */
const PAGE = 100;

/**
 * All sources an address asks for, in its order, as a table of the columns shown. `went` is told how many are there of how
 * many.
 */
export async function tableOf(
  search: string,
  columns: readonly SourceColumn[],
  went: (done: number, total: number) => void,
): Promise<Table> {
  const rows: (string | number)[][] = [];
  for (let total = Infinity; rows.length < total;) {
    const part = await call<{ items: SourceItem[]; total: number }>(
      'GET',
      `/api/sources${search || '?'}${search ? '&' : ''}offset=${rows.length}`,
    );
    total = part.total;
    if (part.items.length === 0) break;
    for (const item of part.items)
      rows.push(
        columns.map((column) => {
          const text = column.text(item);
          return column.look === 'number' && /^-?\d+$/.test(text) ? Number(text) : text === '–' ? '' : text;
        }),
      );
    went(Math.min(rows.length, total), total);
    if (part.items.length < PAGE) break;
  }
  return { heads: columns.map((column) => column.head), rows };
}

/** Saves a table as a file. */
export function saveTable(table: Table, name: string, as: 'csv' | 'ods'): void {
  if (as === 'csv') return download(`${name}.csv`, 'text/csv;charset=utf-8', toCsv(table));
  const files = [...odsFiles(table, name)].map(
    ([path, text]) => [path, [strToU8(text), { level: path === 'mimetype' ? 0 : 6 }]] as const,
  );
  download(
    `${name}.ods`,
    'application/vnd.oasis.opendocument.spreadsheet',
    zipSync(Object.fromEntries(files) as Parameters<typeof zipSync>[0]),
  );
}
