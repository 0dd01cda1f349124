import type { Knex } from 'knex';
import * as ground from './0001-ground';

interface Migration {
  name: string;
  up: (db: Knex) => Promise<void>;
}

const MIGRATIONS: Migration[] = [{ name: '0001-ground', up: ground.up }];

/** The migrations, in order. They only go forward; a new one is added at the end. */
export const migrationSource: Knex.MigrationSource<Migration> = {
  getMigrations: () => Promise.resolve(MIGRATIONS),
  getMigrationName: (m) => m.name,
  getMigration: (m) =>
    Promise.resolve({ up: m.up, down: () => Promise.reject(new Error('migrations only go forward')) }),
};
