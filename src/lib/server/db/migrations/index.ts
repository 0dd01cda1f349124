import type { Knex } from 'knex';
import * as ground from './0001-ground';
import * as capture from './0002-capture';
import * as citing from './0003-citing';

interface Migration {
  name: string;
  up: (db: Knex) => Promise<void>;
}

export const MIGRATIONS: Migration[] = [
  { name: '0001-ground', up: ground.up },
  { name: '0002-capture', up: capture.up },
  { name: '0003-citing', up: citing.up },
];

/** Gives the migrator the migrations, in order. They only go forward; a new one is added at the end. */
export const migrationSource: Knex.MigrationSource<Migration> = {
  getMigrations: () => Promise.resolve(MIGRATIONS),
  getMigrationName: (m) => m.name,
  getMigration: (m) =>
    Promise.resolve({ up: m.up, down: () => Promise.reject(new Error('migrations only go forward')) }),
};
