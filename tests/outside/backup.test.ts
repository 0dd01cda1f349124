/**
 * Backups by the built command: read by GNU tar and checked by sha256sum, which know nothing of us; damaged, cut off and ended in
 * the middle; restored while nobody and while somebody uses the folder.
 */
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../src/lib/core/source';
import { defaultContext, transaction, type Context } from '../../src/lib/server/access/context';
import { openDatabase } from '../../src/lib/server/db/open';
import { keepFile } from '../../src/lib/server/files/store';
import { keepPassage } from '../../src/lib/server/passages';
import { insertSource } from '../../src/lib/server/sources/repository';

const COMMAND = 'build/workers/backup.js';
const work = mkdtempSync(join(tmpdir(), 'retexa-backup-'));
const data = join(work, 'data');
const archive = join(work, 'one.tar');
let ctx: Context;
/** Sizes of the documents: none of one byte too few for a block of tar, which is 512. */
const SIZES = [0, 1, 511, 512, 513, 3_000_000];

const env = (folder: string) => ({ ...process.env, RETEXA_DATA: folder });
function run(folder: string, ...given: string[]): { code: number; said: string } {
  try {
    const said = execFileSync('node', [COMMAND, ...given], {
      env: env(folder),
      encoding: 'utf8',
      stdio: 'pipe',
    });
    return { code: 0, said };
  } catch (error) {
    const { status, stdout, stderr } = error as { status: number; stdout: string; stderr: string };
    return { code: status, said: stdout + stderr };
  }
}
/** All rows of a database. */
function rowsOf(folder: string): string {
  const db = new Database(join(folder, 'retexa.sqlite'), { readonly: true });
  try {
    const tables = db
      .prepare(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%' ORDER BY name",
      )
      .pluck()
      .all() as string[];
    return JSON.stringify(tables.map((table) => [table, db.prepare(`SELECT * FROM "${table}"`).all()]));
  } finally {
    db.close();
  }
}

beforeAll(async () => {
  process.env.RETEXA_DATA = data;
  const db = await openDatabase(join(data, 'retexa.sqlite'));
  ctx = await defaultContext(db);
  for (const size of SIZES) await keepFile(Buffer.alloc(size, size % 251));
  for (const title of ['Sluices of the north', 'Mühlen – “Gezeiten”', 'たいど'])
    await transaction(ctx, async (inner) => {
      const record = sourceRecord.parse({ type: 'book', title, author: [{ family: 'Pell', given: 'M.' }] });
      const { id } = await insertSource(inner, record, { why: 'test' });
      await keepPassage(inner, { copyId: null, sourceId: id, selectors: null, exact: `Of ${title}`, kind: 'quotation', gist: 'g', ownWords: '', tint: 'claim', locator: null, visibility: 'private' }); // prettier-ignore
    });
});
afterAll(async () => {
  await ctx.db.destroy();
  rmSync(work, { recursive: true, force: true });
});

describe('a backup', { timeout: 300_000 }, () => {
  it('is made while the database is in use, and is whole by other programs too', () => {
    const { code, said } = run(data, 'make', archive);
    expect({ code, said }).toMatchObject({ code: 0 });
    expect(readdirSync(work).filter((name) => name.endsWith('.part'))).toEqual([]);
    const out = join(work, 'unpacked');
    mkdirSync(out);
    execFileSync('tar', ['-xf', archive, '-C', out, '--strip-components=1']);
    execFileSync('sha256sum', ['-c', '--quiet', '--strict', 'manifest-sha256.txt'], { cwd: out });
    execFileSync('sha256sum', ['-c', '--quiet', '--strict', 'tagmanifest-sha256.txt'], { cwd: out });
    expect(readFileSync(join(out, 'bagit.txt'), 'utf8')).toContain('BagIt-Version: 1.0');
    const [folder] = readdirSync(join(out, 'data/libraries'));
    const records = JSON.parse(
      readFileSync(join(out, 'data/libraries', folder!, 'records.json'), 'utf8'),
    ) as { title: string }[];
    expect(records.map(({ title }) => title).sort()).toEqual([
      'Mühlen – “Gezeiten”',
      'Sluices of the north',
      'たいど',
    ]);
    const pages = JSON.parse(
      readFileSync(join(out, 'data/libraries', folder!, 'passages.jsonld'), 'utf8'),
    ) as { type: string; items: unknown[] }[];
    expect(pages.map(({ type, items }) => [type, items.length])).toEqual(
      Array.from({ length: 3 }, () => ['AnnotationPage', 1]),
    );
    // As many bytes and files as it says.
    const info = /Payload-Oxum: (\d+)\.(\d+)/.exec(readFileSync(join(out, 'bag-info.txt'), 'utf8'))!;
    const sizes = execFileSync('find', [join(out, 'data'), '-type', 'f', '-printf', '%s\n'], {
      encoding: 'utf8',
    })
      .trim()
      .split('\n')
      .map(Number);
    expect([Number(info[1]), Number(info[2])]).toEqual([sizes.reduce((a, b) => a + b, 0), sizes.length]);
    expect(run(data, 'check', archive)).toMatchObject({
      code: 0,
      said: expect.stringContaining('whole') as string,
    });
  });

  it('restored into an empty folder, it is what was there', () => {
    const fresh = join(work, 'fresh');
    expect(run(fresh, 'restore', archive)).toMatchObject({ code: 0 });
    expect(rowsOf(fresh)).toBe(rowsOf(data));
    const files = execFileSync('find', [join(fresh, 'files'), '-type', 'f'], { encoding: 'utf8' })
      .trim()
      .split('\n');
    expect(files).toHaveLength(SIZES.length);
  });

  it('damaged anywhere or cut off, it is told, and not restored', () => {
    const bytes = readFileSync(archive);
    const bad = join(work, 'bad.tar');
    for (const at of [0.2, 0.5, 0.8]) {
      const copy = Buffer.from(bytes);
      copy[Math.floor(bytes.length * at)]! ^= 1;
      writeFileSync(bad, copy);
      expect(run(data, 'check', bad).code).toBe(1);
    }
    for (const share of [0.3, 0.9]) {
      writeFileSync(bad, bytes);
      truncateSync(bad, Math.floor(bytes.length * share));
      expect(run(data, 'check', bad).code).toBe(1);
      const nowhere = join(work, 'nowhere');
      expect(run(nowhere, 'restore', bad)).toMatchObject({
        code: 1,
        said: expect.stringContaining('not restored') as string,
      });
      expect(existsSync(join(nowhere, 'retexa.sqlite'))).toBe(false);
    }
    writeFileSync(bad, 'no archive');
    expect(run(data, 'check', bad).code).toBe(1);
  });

  it('is not restored over what is there unless told so, nor under a server; what was there is kept', async () => {
    const other = join(work, 'other');
    expect(run(other, 'restore', archive).code).toBe(0);
    const db = new Database(join(other, 'retexa.sqlite'));
    db.prepare("UPDATE library SET name = 'Changed since'").run();
    expect(run(other, 'restore', archive)).toMatchObject({
      code: 1,
      said: expect.stringContaining('--replace') as string,
    });
    db.pragma('journal_mode = WAL');
    db.prepare('SELECT * FROM library').all();
    expect(run(other, 'restore', archive, '--replace')).toMatchObject({
      code: 1,
      said: expect.stringContaining('running') as string,
    });
    db.close();
    expect(run(other, 'restore', archive, '--replace').code).toBe(0);
    expect(rowsOf(other)).toBe(rowsOf(data));
    const [kept] = readdirSync(other).filter((name) => name.includes('.before-'));
    const before = new Database(join(other, kept!), { readonly: true });
    expect(before.prepare('SELECT name FROM library').pluck().get()).toBe('Changed since');
    before.close();
  });

  it('ended in the middle, making leaves no backup and restoring leaves what was there or all of it', async () => {
    const made = join(work, 'ended.tar');
    const target = join(work, 'target');
    expect(run(target, 'restore', archive).code).toBe(0);
    const whole = rowsOf(target);
    // At moments spread over the time it takes, whatever machine this is.
    for (const act of ['make', 'restore'] as const)
      for (let i = 0; i < 8; i++) {
        const given = act === 'make' ? ['make', made] : ['restore', archive, '--replace'];
        const child = spawn('node', [COMMAND, ...given], {
          env: { ...env(act === 'make' ? data : target), RETEXA_PROGRESS: '1' },
          stdio: ['ignore', 'pipe', 'ignore'],
        });
        let seen = 0;
        child.stdout.setEncoding('utf8').on('data', (text: string) => {
          seen += text.split('progress').length - 1;
          if (seen > i * 6) child.kill('SIGKILL');
        });
        await once(child, 'exit');
        if (act === 'make') {
          if (existsSync(made)) expect(run(data, 'check', made).code).toBe(0);
          rmSync(made, { force: true });
        } else expect(rowsOf(target)).toBe(whole);
      }
    expect(run(target, 'restore', archive, '--replace').code).toBe(0);
  });
});
