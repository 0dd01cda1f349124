/** Names of files that lead elsewhere, hide what they are, or are markup: they are words, and never a path or a header. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { until } from '../browser/app';
import { soundPdf } from './pdfs';
import { startServer, type Asked } from './server';

const NAMES = [
  '../../../../tmp/retexa-escaped.pdf', '..\\..\\retexa-escaped.pdf', '/etc/passwd', 'C:\\boot.ini', 'a\0b.pdf', 'a\nset-cookie: x=1.pdf', 'a\r\n\r\n<script>.pdf', '<img src=x onerror=alert(1)>.pdf', '"quoted"; filename="x".pdf',
  '\u202efdp.exe', '.', '..', '', ' ', 'CON', 'a'.repeat(5_000) + '.pdf', '%2e%2e%2f.pdf', '%00.pdf', 'müller 论文 \ud83d\ude00.pdf', '\ud800.pdf', 'constructor', '__proto__', 'a.pdf.bib', '-rf.pdf',
]; // prettier-ignore

let app: Asked;
beforeAll(async () => {
  app = await startServer();
});
afterAll(() => app.stop());

/** Every file below a folder. */
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => join(e.parentPath ?? e.path, e.name));

describe('names of files', () => {
  it('are kept as words; what is kept lies under its check sum alone', async () => {
    for (const name of NAMES) {
      const path = `/api/captures/file?name=${encodeURIComponent(name.replace(/[\ud800-\udbff](?![\udc00-\udfff])/g, '?'))}`;
      const given = {
        body: new Uint8Array(soundPdf()),
        headers: { 'content-type': 'application/octet-stream' },
      };
      const response = await app.ask('POST', path, given);
      expect({ name, status: response.status }).toEqual({ name, status: 200 });
    }
    const waiting = `SELECT count(*) AS n FROM job WHERE state IN ('waiting', 'running')`;
    await until('all of them', async () => app.rows<{ n: number }>(waiting)[0]!.n === 0, 120_000);
    for (const file of filesIn(app.dataFolder))
      expect(file.slice(app.dataFolder.length)).toMatch(
        /^\/(?:retexa\.sqlite(?:-wal|-shm)?|files\/(?:[0-9a-f]{2}\/)*[0-9a-f]{60,64}|drawn\/.*)$/,
      );
    expect(readdirSync('/tmp').filter((n) => n.includes('retexa-escaped'))).toEqual([]);
  });

  it('are safe where a file is given back', async () => {
    const copies = app.rows<{ id: string; title: string }>('SELECT id, title FROM copy');
    expect(copies.length).toBeGreaterThan(0);
    for (const { id } of copies) {
      const response = await app.ask('GET', `/copies/${id}/file`);
      expect(response.status).toBe(200);
      expect(response.headers.get('set-cookie')).toBeNull();
      expect(response.headers.get('content-disposition') ?? '').toMatch(
        /^(?:inline; filename\*=UTF-8''[\w%.~!*'()-]*)?$/,
      );
      expect(response.headers.get('content-security-policy')).toMatch(/sandbox/);
    }
    const page = await (await app.ask('GET', '/sources')).text();
    expect(page).not.toContain('<img src=x onerror');
  });
});
