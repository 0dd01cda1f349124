import {
  columnOrderingFeature,
  columnResizingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  createTable,
  tableFeatures,
  type ColumnDef,
} from '@tanstack/svelte-table';
import { z } from 'zod';
import { TYPE_LABELS, type CslType } from '$lib/core/source';
import type { SourceItem } from '$lib/server/sources';
import { dateLabel } from '../frame/dates';
import { READING_NAMES } from './naming';

/** What a column of Sources shows, and the order of the list it stands for. */
export interface SourceColumn {
  id: string;
  head: string;
  text: (item: SourceItem) => string;
  /** The orders its head chooses: the first, and the other way round where there is one. */
  sorts?: [string, ...string[]];
  /** Its width at first, in pixels. */
  size: number;
  /** It is not shown at first. */
  aside?: true;
  /** It leads to the source. */
  leads?: true;
  look?: 'serif' | 'number' | 'small';
}

/** A column by its id. */
export const columnOf = (id: string): SourceColumn => SOURCE_COLUMNS.find((c) => c.id === id)!;

const counted = (n: number) => (n ? String(n) : '');

export const SOURCE_COLUMNS: readonly SourceColumn[] = [
  { id: 'people', head: 'Creators', text: (i) => i.people || '–', sorts: ['author'], size: 200, leads: true },
  {
    id: 'year',
    head: 'Year',
    text: (i) => String(i.year ?? '–'),
    sorts: ['newest', 'oldest'],
    size: 64,
    look: 'number',
  },
  {
    id: 'title',
    head: 'Title',
    text: (i) => i.title || 'Untitled source',
    sorts: ['title'],
    size: 300,
    leads: true,
    look: 'serif',
  },
  { id: 'container', head: 'Appeared in', text: (i) => i.container, size: 160 },
  { id: 'citekey', head: 'Citekey', text: (i) => i.citekey, size: 130, look: 'small' },
  { id: 'passages', head: 'Passages', text: (i) => counted(i.passages), size: 74, look: 'number' },
  {
    id: 'type',
    head: 'Kind',
    text: (i) => TYPE_LABELS[i.type as CslType] ?? i.type,
    sorts: ['kind'],
    size: 130,
    aside: true,
  },
  { id: 'tags', head: 'Tags', text: (i) => i.tags.join(', '), size: 150, aside: true },
  { id: 'copies', head: 'Copies', text: (i) => counted(i.copies), size: 70, aside: true, look: 'number' },
  {
    id: 'findings',
    head: 'Findings',
    text: (i) => counted(i.findings.length),
    size: 80,
    aside: true,
    look: 'number',
  },
  {
    id: 'reading',
    head: 'Reading',
    text: (i) => (i.reading?.state ? READING_NAMES[i.reading.state] : ''),
    size: 90,
    aside: true,
  },
  { id: 'added', head: 'Added', text: (i) => dateLabel(i.added), sorts: ['added'], size: 150, aside: true },
];

/** The narrowest a column gets, in pixels. */
export const NARROWEST = 48;
const WIDEST = 900;

const kept = z.object({
  columnOrder: z.array(z.string()),
  columnVisibility: z.record(z.string(), z.boolean()),
  columnSizing: z.record(z.string(), z.number().min(NARROWEST).max(WIDEST)),
});
export type KeptColumns = z.infer<typeof kept>;

const AT_FIRST: KeptColumns = {
  columnOrder: SOURCE_COLUMNS.map((c) => c.id),
  columnVisibility: Object.fromEntries(SOURCE_COLUMNS.filter((c) => c.aside).map((c) => [c.id, false])),
  columnSizing: {},
};

const KEPT_AS = 'retexa.columns';

/** The columns as this browser remembers them; as they are at first where it remembers none, or none that can be read. */
export function rememberedColumns(text: string | null): KeptColumns {
  try {
    const known = kept.parse(JSON.parse(text ?? ''));
    const ids = known.columnOrder.filter((id) => SOURCE_COLUMNS.some((c) => c.id === id));
    // Columns that came since stand last.
    const rest = SOURCE_COLUMNS.map((c) => c.id).filter((id) => !ids.includes(id));
    return { ...known, columnOrder: [...ids, ...rest] };
  } catch {
    return AT_FIRST;
  }
}

const features = tableFeatures({
  columnSizingFeature,
  columnResizingFeature,
  columnOrderingFeature,
  columnVisibilityFeature,
});

const DEFINED = SOURCE_COLUMNS.map(({ id, head, size }): ColumnDef<typeof features, SourceItem> => ({
  id,
  header: head,
  size,
  minSize: NARROWEST,
  maxSize: WIDEST,
}));

/** The columns of Sources: which are shown, how wide and in which order, remembered in this browser. */
export function sourceColumns() {
  const table = createTable({
    features,
    columns: DEFINED,
    data: [] as SourceItem[],
    columnResizeMode: 'onChange' as const,
    initialState: rememberedColumns(globalThis.localStorage?.getItem(KEPT_AS) ?? null),
  });
  const state = (): KeptColumns => ({
    columnOrder: table.atoms.columnOrder.get(),
    columnVisibility: table.atoms.columnVisibility.get(),
    columnSizing: table.atoms.columnSizing.get(),
  });
  $effect(() => localStorage.setItem(KEPT_AS, JSON.stringify(state())));
  let said = $state('');
  return {
    /** What was done to a column, for those who do not see it. */
    get said() {
      return said;
    },
    set said(words: string) {
      said = words;
    },
    table,
    /** Those that are shown, in their order. */
    shown: () => table.getVisibleLeafColumns().map((c) => columnOf(c.id)),
    /** The widths of those shown, as the tracks of a grid. */
    tracks: () =>
      table
        .getVisibleLeafColumns()
        .map((c) => `${c.getSize()}px`)
        .join(' '),
    /** Moves a column to the place of another, or by so many places. */
    move(id: string, to: string | number) {
      const order = table.atoms.columnOrder.get();
      const visible = table.getVisibleLeafColumns().map((c) => c.id);
      const before = typeof to === 'string' ? to : visible[visible.indexOf(id) + to];
      if (before === undefined || before === id) return;
      const forward = order.indexOf(before) > order.indexOf(id);
      const rest = order.filter((c) => c !== id);
      rest.splice(rest.indexOf(before) + (forward ? 1 : 0), 0, id);
      table.setColumnOrder(rest);
    },
    /** Makes a column wider, or narrower, by so many pixels. */
    widen(id: string, by: number) {
      const size = table.getColumn(id)!.getSize();
      const next = Math.min(WIDEST, Math.max(NARROWEST, size + by));
      table.setColumnSizing((known) => ({ ...known, [id]: next }));
    },
    reset() {
      table.setColumnOrder(AT_FIRST.columnOrder);
      table.setColumnVisibility(AT_FIRST.columnVisibility);
      table.setColumnSizing({});
    },
  };
}
export type SourceColumns = ReturnType<typeof sourceColumns>;
