import type Database from 'better-sqlite3';

/** How many statements a connection keeps prepared: those used last. */
const MOST = 400;

/** What asks for rows or changes them; everything else (pragmas, schemas) is prepared each time. */
const KEPT = /^\s*(?:select|insert|update|delete|with)\b/i;

/**
 * Keeps the statements of a connection prepared. The query builder prepares each one anew, and an insert that sets off
 * triggers is compiled with all of them: a fifth of the time of adding a source. SQLite itself prepares a statement again
 * when the schema has changed.
 */
export function keepPrepared(connection: Database.Database): void {
  const prepare = connection.prepare.bind(connection);
  const kept = new Map<string, Database.Statement>();
  connection.prepare = ((sql: string) => {
    if (!KEPT.test(sql)) return prepare(sql);
    const known = kept.get(sql);
    const statement = known ?? prepare(sql);
    kept.delete(sql);
    kept.set(sql, statement);
    if (kept.size > MOST) kept.delete(kept.keys().next().value!);
    return statement;
  }) as typeof connection.prepare;
}
