import type { Knex } from 'knex';
import {
  addedIn,
  problemsIn,
  typesNamed,
  yearsIn,
  type Has,
  type State,
  type Query,
  type QueryField,
} from '../../core/query';
import type { Facet } from '../../core/source';
import { scoped, visible, type Context } from '../access/context';
import { withWords } from '../search/repository';

type Rows = Knex.QueryBuilder;
type Condition = (ctx: Context, rows: Rows, value: string) => void;

const like = (text: string) => `${text.replace(/[\\%_]/g, '\\$&')}%`;

/** Sources that something of a table hangs on. */
const hangs = (
  ctx: Context,
  table: 'passage' | 'task' | 'note' | 'copy',
  more: (query: Rows) => unknown = () => 0,
) => {
  const query = table === 'copy' ? scoped(ctx, table) : visible(ctx, table).whereNull('binned');
  more(query);
  return query.whereNotNull('source_id').select('source_id');
};

/** The ids of sources that something hangs on, as a query of its table. */
export const HANGS = {
  copy: (ctx) => hangs(ctx, 'copy'),
  pdf: (ctx) => hangs(ctx, 'copy', (q) => q.where('kind', 'pdf')),
  page: (ctx) => hangs(ctx, 'copy', (q) => q.where('kind', 'page')),
  passages: (ctx) => hangs(ctx, 'passage'),
  notes: (ctx) => hangs(ctx, 'note'),
  tasks: (ctx) => hangs(ctx, 'task', (q) => q.whereNull('done')),
} satisfies Partial<Record<Has, (ctx: Context) => Rows>>;

const HAS: Record<Has, (ctx: Context, rows: Rows) => unknown> = {
  ...(Object.fromEntries(
    Object.entries(HANGS).map(([has, hanging]) => [
      has,
      (ctx: Context, rows: Rows) => rows.whereIn('source.id', hanging(ctx)),
    ]),
  ) as Record<keyof typeof HANGS, (ctx: Context, rows: Rows) => unknown>),
  doi: (_, rows) => rows.whereNotNull('source.doi'),
  isbn: (_, rows) => rows.whereNotNull('source.isbn'),
  date: (_, rows) => rows.whereNotNull('source.year'),
  tags: (ctx, rows) => rows.whereIn('source.id', scoped(ctx, 'source_tag').select('source_id')),
};

const STATES: Record<State, (rows: Rows) => unknown> = {
  checked: (rows) => rows.whereNotNull('source.checked'),
  unchecked: (rows) => rows.whereNull('source.checked'),
  // In the words of the index, which has only these.
  found: (rows) => rows.whereRaw(`source.findings <> '[]'`),
  clean: (rows) => rows.whereRaw(`source.findings = '[]'`),
};

/** Sources with a value of a facet, in capitals or not. */
const faceted = (ctx: Context, rows: Rows, kind: Facet, value: string) =>
  rows.whereIn(
    'source.no',
    ctx
      .db('trait_of')
      .whereIn(
        'trait_id',
        scoped(ctx, 'trait').where({ kind }).whereRaw('value = ? COLLATE NOCASE', [value]).select('id'),
      )
      .select('no'),
  );

/** Sources by what the person said of their reading; `none` is nothing. */
const readBy = (ctx: Context, rows: Rows, column: 'state' | 'priority', value: string) => {
  const said = ctx.db('reading').where({ owner_id: ctx.personId }).select('source_id');
  if (value === 'none') rows.whereNotIn('source.id', said.whereNotNull(column));
  else rows.whereIn('source.id', said.where(column, value));
};

/** How each field narrows the living sources to those with a value. Fields that are words are looked for with the words. */
const CONDITIONS: Partial<Record<QueryField, Condition>> = {
  year: (_, rows, value) => {
    const { from, to } = yearsIn(value)!;
    // What has no year is in none, also where it is turned round.
    void rows.whereNotNull('source.year');
    if (from !== undefined) void rows.where('source.year', '>=', from);
    if (to !== undefined) void rows.where('source.year', '<=', to);
  },
  type: (_, rows, value) => void rows.whereIn('source.type', typesNamed(value)),
  tag: (ctx, rows, value) =>
    void rows.whereIn(
      'source.id',
      scoped(ctx, 'source_tag')
        .whereRaw(
          `tag IN (SELECT substr(what, 5) FROM tally WHERE library_id = ? AND project_id = '' AND what >= 'tag:' AND what < 'tag;' AND lower(substr(what, 5)) = lower(?))`,
          [ctx.libraryId, value],
        )
        .select('source_id'),
    ),
  in: (ctx, rows, value) => {
    const named = (table: 'project' | 'section') =>
      scoped(ctx, table)
        .whereRaw(`lower(name) LIKE lower(?) ESCAPE '\\'`, [like(value)])
        .select('id');
    void rows.where((either) =>
      either
        .whereIn(
          'source.id',
          ctx.db('filing').whereIn('project_id', named('project').whereNull('binned')).select('source_id'),
        )
        .orWhereIn(
          'source.id',
          ctx
            .db('placement')
            .whereIn('section_id', named('section').whereNull('binned'))
            .whereNotNull('source_id')
            .select('source_id'),
        ),
    );
  },
  has: (ctx, rows, value) => void HAS[value.toLowerCase() as Has](ctx, rows),
  state: (_, rows, value) => void STATES[value.toLowerCase() as State](rows),
  finding: (ctx, rows, value) =>
    void rows.whereIn('source.id', scoped(ctx, 'finding').where({ name: value }).select('source_id')),
  person: (ctx, rows, value) => void faceted(ctx, rows, 'person', value),
  container: (ctx, rows, value) => void faceted(ctx, rows, 'container', value),
  language: (ctx, rows, value) => void faceted(ctx, rows, 'language', value),
  reading: (ctx, rows, value) => readBy(ctx, rows, 'state', value.toLowerCase()),
  priority: (ctx, rows, value) => readBy(ctx, rows, 'priority', value.toLowerCase()),
  key: (_, rows, value) =>
    void rows.where('source.citekey', '>=', value).where('source.citekey', '<', `${value}\uffff`),
  added: (_, rows, value) => {
    const { from, to } = addedIn(value)!;
    void rows.where('source.added', '>=', from).where('source.added', '<', `${to}~`);
  },
};

/**
 * Narrows the living sources of a library to those a query asks for. The one place where a query becomes SQL. What cannot be
 * asked as it is written (`problemsIn`) finds nothing. `fitted`: the words are joined with how well they fit;
 * `common`: they stand in so many that each source is held against them.
 */
export function asQueried(
  ctx: Context,
  rows: Rows,
  query: Query,
  { fitted = false, common = false }: { fitted?: boolean; common?: boolean } = {},
): void {
  if (problemsIn(query).length) return void rows.whereRaw('false');
  // With the sign, nothing is looked up by it.
  withWords(ctx, rows, common ? '+source.no' : 'source.no', 'source', query, fitted);
  narrowedByFields(ctx, rows, query);
}

/** The same by its fields alone, without what it looks for in words. */
function narrowedByFields(ctx: Context, rows: Rows, query: Query): void {
  for (const term of query.terms) {
    const condition = term.kind === 'field' ? CONDITIONS[term.field] : undefined;
    if (!condition || term.kind !== 'field') continue;
    const any = (either: Rows) => {
      for (const value of term.values) void either.orWhere((one) => condition(ctx, one, value));
    };
    if (term.not) void rows.whereNot((none) => any(none));
    else void rows.where((some) => any(some));
  }
}

/** What of a query is asked of sources by their fields; the words are asked of what is looked through. */
export const fieldsOf = ({ terms }: Query): Query => ({
  terms: terms.filter((term) => term.kind === 'field'),
});
/** What of a query is words. */
export const wordsOf = ({ terms }: Query): Query => ({
  terms: terms.filter((term) => term.kind === 'words'),
});
