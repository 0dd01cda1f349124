import type Database from 'better-sqlite3';
import type { Knex } from 'knex';
import type { Role } from '../../core/members';
import { accountsThere } from '../accounts';
import { noted } from '../audit';
import { counted } from '../db/counted';
import { newId, now } from '../db/ids';
import { KEPT_IN } from '../db/of-library';
import { NAMED } from '../files/named';
import { recount } from '../sources/tallies';
import { inTurn } from '../turns';

/** Tables that stay behind: how people come in, what is under way, what was handed out, and what is made anew from the rest. */
export const LEFT: ReadonlySet<string> = new Set([
  ...['account', 'attempt', 'passkey', 'session', 'token', 'way_back', 'invitation', 'share_link', 'audit'],
  ...['job', 'hold', 'import_step', 'shared', 'sent_once', 'leaving_file', 'crossing'],
  ...['printed', 'tally', 'trait', 'trait_of', 'lookup_key', 'search_word'],
  ...['spelling', 'spelling_source', 'spelling_group', 'spelling_stale'],
  // These come in a way of their own.
  ...['person', 'library', 'membership'],
]);

/** Columns that count rows in their own database, by the table they count. */
const COUNTED: Readonly<Record<string, Record<string, string>>> = {
  search_subject: { id: 'search_subject' },
  search: { rowid: 'search_subject' },
  lookup: { id: 'lookup' },
};

/** How many rows are put in by one statement. */
const AT_ONCE = 40;

/** A library in an opened backup. */
export interface LibraryInBag {
  id: string;
  name: string;
  /** Names of who was in it. */
  people: { id: string; name: string }[];
  sources: number;
  passages: number;
  documents: number;
}

/** Which libraries an opened backup has, by name. */
export function librariesIn(bag: Database.Database): LibraryInBag[] {
  const count = (table: string, id: string, more = '') =>
    bag.prepare(`SELECT count(*) FROM ${table} WHERE library_id = ? ${more}`).pluck().get(id) as number;
  const people = bag.prepare(
    'SELECT person.id, person.name FROM membership JOIN person ON person.id = person_id WHERE library_id = ? ORDER BY person.name',
  );
  return (
    bag.prepare('SELECT id, name FROM library ORDER BY name, id').all() as { id: string; name: string }[]
  ).map(({ id, name }) => ({
    id,
    name,
    people: people.all(id) as LibraryInBag['people'],
    sources: count('source', id, 'AND binned IS NULL AND merged_into IS NULL'),
    passages: count('passage', id, 'AND binned IS NULL'),
    documents: count('copy', id),
  }));
}

/** SHA-256 of all kept files that the rows of a library in an opened backup name. */
export function filesNamed(bag: Database.Database, libraryId: string): Set<string> {
  return new Set(
    NAMED.flatMap(
      ([table, column]) =>
        bag
          .prepare(
            `SELECT DISTINCT ${column} FROM ${table} WHERE library_id = ? AND coalesce(${column}, '') <> ''`,
          )
          .pluck()
          .all(libraryId) as string[],
    ),
  );
}

type Row = Record<string, string | number | null>;

const rowsOf = (bag: Database.Database, table: string, libraryId: string): IterableIterator<Row> => {
  const columns = table === 'search' ? 'rowid, *' : '*';
  return bag
    .prepare(`SELECT ${columns} FROM "${table}" WHERE ${KEPT_IN[table]}`)
    .iterate(libraryId) as IterableIterator<Row>;
};

/** People whom rows of a library in an opened backup name, with the mail address of their account there. */
function peopleNamed(bag: Database.Database, libraryId: string) {
  const named = new Set(
    bag.prepare('SELECT person_id FROM membership WHERE library_id = ?').pluck().all(libraryId) as string[],
  );
  named.add(bag.prepare('SELECT owner_id FROM library WHERE id = ?').pluck().get(libraryId) as string);
  for (const table of Object.keys(KEPT_IN))
    for (const key of bag.pragma(`foreign_key_list("${table}")`) as { table: string; from: string }[])
      if (key.table === 'person')
        for (const id of bag
          .prepare(`SELECT DISTINCT ${key.from} FROM "${table}" WHERE ${KEPT_IN[table]}`)
          .pluck()
          .all(libraryId) as (string | null)[])
          if (id) named.add(id);
  const row = bag.prepare(
    'SELECT person.id, person.name, person.created, account.mail FROM person LEFT JOIN account ON account.person_id = person.id WHERE person.id = ?',
  );
  return [...named].map(
    (id) => row.get(id) as { id: string; name: string; created: string; mail: string | null },
  );
}

const ID = /[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/g;
/** Parts of drafts, whose ids their editor gave them. */
const PART = /(?<="id":")[^"\\]{1,60}(?=")/g;

/** A row with the ids it has here: whole values, and those within texts such as a history or a draft. */
function rowHere(row: Row, ids: ReadonlyMap<string, string>): Row {
  if (ids.size === 0) return row;
  const idHere = (id: string) => ids.get(id) ?? id;
  const here: Row = {};
  for (const [column, value] of Object.entries(row))
    here[column] =
      typeof value === 'string' ? (ids.get(value) ?? value.replace(ID, idHere).replace(PART, idHere)) : value;
  return here;
}

/** Which ids the rows of a library get here, where it stands beside another. In their order, by which some are sorted. */
function newIds(bag: Database.Database, libraryId: string): Map<string, string> {
  const old = new Set<string>();
  for (const table of Object.keys(KEPT_IN)) {
    if (COUNTED[table]?.id) continue;
    for (const { name } of bag.pragma(`table_info("${table}")`) as { name: string }[])
      if (name === 'id' || name === 'own_id')
        for (const id of bag
          .prepare(`SELECT "${name}" FROM "${table}" WHERE ${KEPT_IN[table]}`)
          .pluck()
          .all(libraryId) as (string | null)[])
          if (id) old.add(id);
  }
  return new Map([...old].sort().map((id) => [id, newId()]));
}

/** What came of bringing a library in. */
export interface Brought {
  libraryId: string;
  name: string;
  sources: number;
  /** Names of whose library it is here. */
  people: string[];
}

/** Who is who: people of the backup by the ids they have here. Those nobody here is are added, without an account. */
async function peopleHere(
  trx: Knex,
  bag: Database.Database,
  libraryId: string,
  { personId, as, alone }: { personId: string; as: string | undefined; alone: boolean },
): Promise<Map<string, string>> {
  const here = new Map<string, string>();
  const taken = new Set<string>();
  const is = (id: string, known: string) => {
    here.set(id, known);
    taken.add(known);
  };
  const people = peopleNamed(bag, libraryId);
  if (as && alone && people.some(({ id }) => id === as)) is(as, personId);
  for (const { id } of people)
    if (!here.has(id) && (await trx('person').where({ id }).first('id'))) is(id, id);
  for (const { id, name, created, mail } of people) {
    if (here.has(id)) continue;
    const account = mail
      ? ((await trx('account').where({ mail }).first('person_id')) as { person_id: string } | undefined)
      : undefined;
    if (account && !taken.has(account.person_id)) is(id, account.person_id);
    else {
      await trx('person').insert({ id, name, created });
      is(id, id);
    }
  }
  return here;
}

/**
 * Brings a library of an opened backup into the database, in one transaction with turns for others between: its records, with their
 * histories, and everything people kept in it. A library that is here already is left as it is; what comes stands beside it, for who is in
 * it now. Otherwise it is for who was in it and is known here, by their ids or the mail address of their account; whoever brings it owns
 * it where none of them is. What somebody keeps for themselves stays theirs, and closed where they are not here.
 *
 * @param as whom of the backup the one who brings it is, where people have no accounts here
 * @param copiedOn the day the backup was made, for the name of what stands beside
 */
export async function bringLibrary(
  db: Knex,
  bag: Database.Database,
  libraryId: string,
  {
    personId,
    as,
    copiedOn,
    progress = () => undefined,
  }: { personId: string; as?: string; copiedOn: string; progress?: (share: number) => void },
): Promise<Brought> {
  const library = bag.prepare('SELECT * FROM library WHERE id = ?').get(libraryId) as
    (Row & { id: string; name: string; owner_id: string }) | undefined;
  if (!library) throw new RangeError('no library of the backup');
  return db.transaction(async (trx) => {
    await trx.raw('PRAGMA defer_foreign_keys = ON');
    // Who somebody is is known by their account, where there are any.
    const alone = !(await accountsThere(trx));
    const people = await peopleHere(trx, bag, libraryId, { personId, as, alone });
    const there = (await trx('library').where({ id: libraryId }).first('id')) as object | undefined;
    const ids = new Map([...people].filter(([from, to]) => from !== to));
    const id = there ? newId() : libraryId;
    if (there) {
      for (const [from, to] of newIds(bag, libraryId)) ids.set(from, to);
      ids.set(libraryId, id);
    }
    const members = there
      ? ((await trx('membership').where({ library_id: libraryId }).select('person_id', 'role')) as Member[])
      : await membersKnown(trx, bag, libraryId, { people, alone });
    if (!members.some(({ role }) => role === 'owner')) {
      const self = members.find((one) => one.person_id === personId);
      if (self) self.role = 'owner';
      else members.push({ person_id: personId, role: 'owner' });
    }
    const owner =
      members.find((one) => one.person_id === people.get(library.owner_id) && one.role === 'owner') ??
      members.find((one) => one.role === 'owner')!;
    const name = there ? `${library.name} (${copiedOn})` : library.name;
    await trx('library').insert({
      ...rowHere(library, ids),
      id,
      name,
      owner_id: owner.person_id,
      created: now(),
    });
    for (const one of members) await trx('membership').insert({ library_id: id, joined: now(), ...one });

    const offsets = new Map<string, number>();
    for (const table of new Set(Object.values(COUNTED).flatMap((of) => Object.values(of)))) {
      const [{ most }] = (await trx(table).max({ most: 'id' })) as [{ most: number | null }];
      offsets.set(table, most ?? 0);
    }
    const tables = Object.keys(KEPT_IN);
    const total = tables.reduce(
      (sum, table) =>
        sum +
        (bag
          .prepare(`SELECT count(*) FROM "${table}" WHERE ${KEPT_IN[table]}`)
          .pluck()
          .get(libraryId) as number),
      0,
    );
    let done = 0;
    for (const table of tables) {
      const counted = Object.entries(COUNTED[table] ?? {});
      let part: Row[] = [];
      const put = async () => {
        if (part.length === 0) return;
        await trx(table).insert(part);
        done += part.length;
        progress(total ? done / total : 1);
        part = [];
      };
      for await (const row of inTurn(rowsOf(bag, table, libraryId))) {
        const here = rowHere(row, ids);
        // Sources are numbered here.
        delete here.no;
        for (const [column, of] of counted)
          if (here[column] !== null) here[column] = Number(here[column]) + offsets.get(of)!;
        part.push(here);
        if (part.length === AT_ONCE) await put();
      }
      await put();
    }
    await recount(trx, id);
    await noted(trx, { libraryId: id, personId, act: 'brought in', words: `${name}, of ${copiedOn}` });
    const names = (await trx('person')
      .whereIn(
        'id',
        members.map((one) => one.person_id),
      )
      .orderBy('name')
      .pluck('name')) as string[];
    const living = trx('source').where({ library_id: id }).whereNull('binned').whereNull('merged_into');
    const sources = await counted(living);
    return { libraryId: id, name, sources, people: names };
  });
}

interface Member {
  person_id: string;
  role: Role;
}

/** Who was in a library of a backup and is known here: by an account, or as who works here alone. */
async function membersKnown(
  trx: Knex,
  bag: Database.Database,
  libraryId: string,
  { people, alone }: { people: ReadonlyMap<string, string>; alone: boolean },
): Promise<Member[]> {
  const members = bag
    .prepare('SELECT person_id, role FROM membership WHERE library_id = ?')
    .all(libraryId) as Member[];
  const known: Member[] = [];
  for (const { person_id, role } of members) {
    const here = people.get(person_id)!;
    const comesIn = alone
      ? await trx('membership').where({ person_id: here }).first('role')
      : await trx('account').where({ person_id: here }).first('person_id');
    if (comesIn) known.push({ person_id: here, role });
  }
  return known;
}
