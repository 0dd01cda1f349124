/**
 * Benchmarks, not tests: each figure is measured in this run on this machine, as the median of several rounds.
 * `npm run bench`, or some of it: `npm run bench -- list page`. Needs a build (`npm run build`), Chromium, pandoc and
 * bibutils.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, openSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay, performance } from 'node:perf_hooks';
import Database from 'better-sqlite3';
import { JSDOM } from 'jsdom';
import { ASIDE } from '../tests/corpus/aside';
import { INVENTED, invented } from '../tests/corpus/invented-web';
import type { Labelled } from '../tests/corpus/label';
import { FIELDS, score } from '../tests/corpus/score';
import { readPage } from '../src/lib/reading/page';
import { readPdfText } from '../src/lib/reading/pdf';
import { endRecogniser, recognise } from '../src/lib/reading/scan';
import { DOCUMENTS } from '../stand-ins/documents';
import { MARSH, THESIS, htmlOf } from '../stand-ins/texts';
import { findGroups, signatureOf, type Signature } from '../src/lib/core/duplicates/index';
import { FORMATS, readFormat, writeFormat } from '../src/lib/core/formats/index';
import { sourceRecord, toCsl, type SourceRecord } from '../src/lib/core/source/index';
import { defaultContext, makePerson, transaction, type Context } from '../src/lib/server/access/context';
import { letIn } from '../src/lib/server/accounts';
import { bringLibrary } from '../src/lib/server/backup/brought';
import { deleteLibrary } from '../src/lib/server/libraries';
import { phraseHash } from '../src/lib/server/accounts/phrases';
import { config } from '../src/lib/server/config';
import { openDatabase } from '../src/lib/server/db/open';
import { getSources, insertSource, updateSource } from '../src/lib/server/sources/repository';
import { listOfView, savedList, toldOfView } from '../src/lib/server/lists';
import { printedSoFar, printList } from '../src/lib/server/lists/printing';
import { talliesOf } from '../src/lib/server/sources/tallies';
import { insertCopy } from '../src/lib/server/copies/repository';
import { keepFile } from '../src/lib/server/files/store';
import { keepPassage } from '../src/lib/server/passages';
import { largeLibrary, random } from './large-library';
import { addProject, changePlaced, file, makeSection } from '../src/lib/server/projects';
import { editSources, facetsOf, listIds, listSources } from '../src/lib/server/sources';
import { draftSave, openDraft, saveDraft } from '../src/lib/server/drafts';
import { proofAroundOf } from '../src/lib/server/proof';
import { closePools } from '../src/lib/server/workers/pools';
import { createPrinter } from '../src/lib/core/citing/index';
import { borrowedFrom, borrowings, indexOwn, ownTexts, type DraftPart } from '../src/lib/core/drafting/index';
import { locale, style, toXml } from '../tests/outside/catalogue';
import { allStyles, classOf, compare } from '../tests/outside/differential';
import { book, outcome } from '../tests/anchoring/book';
import { anchorAll, describe, textOf, TINTS } from '../src/lib/core/passages/index';
import { startApp, until, visit, type App, type Person } from '../tests/browser/app';
import { traced } from '../tests/browser/trace';

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const ms = (value: number) =>
  `${value.toLocaleString('en', { maximumFractionDigits: value < 10 ? 2 : 0 })} ms`;
const row = (name: string, figure: string, more = '') =>
  console.log(`${name.padEnd(58)} ${figure.padStart(12)}  ${more}`);

const chosen = process.argv.slice(2);
/** One part of the benchmarks, run unless others were asked for by name. */
async function part(name: string, title: string, work: () => Promise<void>): Promise<void> {
  if (chosen.length > 0 && !chosen.includes(name)) return;
  console.log(`\n${title} (${name})`);
  await work();
}

async function timed<T>(work: () => Promise<T> | T): Promise<[number, T]> {
  const start = performance.now();
  const value = await work();
  return [performance.now() - start, value];
}

/** A person at the browser. The compiler of this script calls a helper in functions that are sent into the page. */
async function person(app: App): Promise<Person> {
  const me = await visit(app);
  await me.page.evaluateOnNewDocument('globalThis.__name = (value) => value');
  return me;
}

/** Prints the longest task of the page’s main thread while something is done there. */
async function answers(name: string, me: Person, work: () => Promise<unknown>): Promise<void> {
  const ended = await traced(me.page);
  await work();
  const [longest] = await ended();
  row(name, ms(longest!.wall), `longest task of the page’s main thread, ${ms(longest!.cpu)} of it working`);
}

const WORDS =
  'tide mill pond marsh gate sluice grain toll dam wheel survey coast salt harbour ledger lease'.split(' ');
const NAMES =
  'Ferreira Ng Barrow Brandt Lindqvist Osei Sato Haverkamp Costa Zee Raman Oakes Pell Quill'.split(' ');
/** The nth invented record: the same every time. */
function generated(n: number): SourceRecord {
  const pick = (list: string[], k: number) => list[(n * 7 + k * 13 + ((n * n) % 11)) % list.length]!;
  const title = Array.from({ length: 6 }, (_, k) => pick(WORDS, k)).join(' ');
  return sourceRecord.parse({
    type: (['article-journal', 'book', 'chapter', 'report'] as const)[n % 4],
    title: `${title.charAt(0).toUpperCase()}${title.slice(1)} ${n}`,
    author: [1, 2].map((k) => ({
      family: pick(NAMES, k),
      given: String.fromCharCode(65 + ((n + k) % 26)) + '.',
    })),
    issued: { 'date-parts': [[1900 + (n % 125)]] },
    'container-title': `Journal of ${pick(WORDS, 3)}`,
    volume: String(1 + (n % 60)),
    page: `${n % 400}-${(n % 400) + 12}`,
    publisher: 'Strand University Press',
    DOI: `10.5555/bench.${n}`,
  });
}

async function fill(file: string, count: number) {
  const db = await openDatabase(file);
  const ctx = await defaultContext(db);
  const [took] = await timed(() =>
    transaction(ctx, async (inner) => {
      for (let n = 0; n < count; n++)
        await insertSource(inner, generated(n), { checked: true, why: 'generated' });
    }),
  );
  return { db, ctx, took };
}

await part('list', 'Reference list, 1,000 sources, APA', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-bench-'));
  const { db, ctx } = await fill(join(folder, 'retexa.sqlite'), 1_000);
  const look = { style: 'apa', locale: 'en-US' };
  const sources = await getSources(ctx, await listIds(ctx, {}));
  const firsts: number[] = [];
  for (let i = 0; i < 5; i++) {
    // A worker that never saw the list, its style loaded by a single reference.
    await closePools();
    await printList(ctx, sources.slice(0, 1), look, 'another');
    firsts.push((await timed(() => printList(ctx, sources, look, 'library')))[0]);
  }
  const again: number[] = [];
  for (let i = 0; i < 7; i++) again.push((await timed(() => printList(ctx, sources, look, 'library')))[0]);
  const first = median(firsts);
  row('first time, in the worker', ms(first));
  row(
    'again, nothing changed',
    ms(median(again)),
    `${((100 * median(again)) / first).toFixed(1)} % of the first`,
  );
  await updateSource(ctx, sources[0]!.id, 1, { record: { ...sources[0]!.record, volume: '999' } }, 'bench');
  const edited = await getSources(
    ctx,
    sources.map((s) => s.id),
  );
  const after = (await timed(() => printList(ctx, edited, look, 'library')))[0];
  row('after editing one record', ms(after), `${((100 * after) / first).toFixed(0)} % of the first`);
  await db.destroy();
  await closePools();
});

await part('csl', 'CSL processor, whole cold processes against pandoc --citeproc', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-bench-'));
  for (const count of [1_000, 4_827]) {
    const items = [...largeLibrary(count)].map((record, i) => toCsl(`s${i}`, record));
    const file = join(folder, `${count}.json`);
    writeFileSync(file, JSON.stringify(items));
    writeFileSync(join(folder, 'in.md'), '---\nnocite: "@*"\n---\n');
    for (const id of ['apa', 'chicago-note-bibliography', 'ieee', 'american-sociological-association']) {
      writeFileSync(join(folder, 'style.csl'), toXml(style(id)));
      const [mine, theirs]: number[][] = [[], []];
      for (let i = 0; i < 3; i++) {
        mine!.push(outside('node', ['build/cli/retexa.js', 'cite', file, '--style', id], '/dev/null'));
        theirs!.push(
          outside('pandoc', ['--citeproc', '--csl', join(folder, 'style.csl'), '--bibliography', file, join(folder, 'in.md'), '-t', 'plain'], '/dev/null'),
        ); // prettier-ignore
      }
      const [ours, pandoc] = [median(mine!), median(theirs!)];
      row(
        `${count} references, ${id}`,
        ms(ours),
        `pandoc ${ms(pandoc)}, ${(ours / pandoc).toFixed(2)} of it`,
      );
    }
  }
  const workers = 'build/client/_app/immutable/workers';
  const sent = readdirSync(workers).find((file) => /^printing-.*\.js\.gz$/.test(file));
  if (sent) row('code for printing that reaches the browser', `${(readFileSync(join(workers, sent)).length / 1_000).toFixed(1)} KB`, 'compressed, with gzip'); // prettier-ignore
  const tree = style('apa');
  const english = locale('en-US');
  row('a style opened and compiled, APA', ms((await timed(() => createPrinter(tree, english, 'en-US')))[0]));
  const items = [...largeLibrary(5_000)].map((record, i) => toCsl(`s${i}`, record));
  const printer = createPrinter(tree, english, 'en-US');
  row('5,000 references, in the process', ms((await timed(() => printer.list(items)))[0]));
  const oneChanged = async (of: typeof printer, works: typeof items) => {
    const now = [...works];
    const changes: number[] = [];
    for (let i = 0; i < 7; i++) {
      const at = Math.floor((i * now.length) / 10);
      now[at] = { ...now[at]!, title: `Changed ${i}` };
      changes.push((await timed(() => of.list(now)))[0]);
    }
    return ms(median(changes));
  };
  row('one record of them changed', await oneChanged(printer, items));
  // Its style tries every name of works that are cited alike.
  const sociology = createPrinter(style('american-sociological-association'), english, 'en-US');
  const people = ['Ng', 'Pell', 'Mori', 'Osei', 'Vries', 'Brandt', 'Solano', 'Adeyemi'];
  const together = Array.from({ length: 120 }, (_, i) => ({
    id: `t${i}`,
    type: 'book' as const,
    title: `Tides ${i}`,
    issued: { 'date-parts': [[2001]] },
    author: people.map((family) => ({ family, given: 'Ida Marie' })),
  }));
  sociology.list(together);
  row('one record changed of 120 by the same eight people in one year', await oneChanged(sociology, together)); // prettier-ignore
  for (const id of ['apa', 'ieee', 'chicago-note-bibliography']) {
    const text = createPrinter(style(id), english, 'en-US').text();
    const works = items.slice(0, 200);
    const cited = Array.from({ length: 300 }, (_, i) => ({
      id: `c${i}`,
      note: id.includes('note') ? i + 2 : 0,
      cites: [
        { id: works[(i * 7) % 190]!.id },
        ...(i % 5 ? [] : [{ id: works[(i * 13) % 190]!.id, locator: '7' }]),
      ],
    }));
    text.set(works.slice(0, 190), cited);
    const times: number[] = [];
    for (let i = 0; i < 7; i++) {
      const early = { id: `new${i}`, note: cited[0]!.note ? 1 : 0, cites: [{ id: works[190 + i]!.id }] };
      times.push((await timed(() => text.set(works, [early, ...cited])))[0]);
      text.set(works, cited);
    }
    row(`a citation put before 300 others, ${id}`, ms(median(times)));
  }
});

await part(
  'gathered',
  'A list of 20,000 sources, gathered and printed in its thread, and saved',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'retexa-bench-'));
    process.env.RETEXA_DATA = folder;
    const db = await openDatabase(config.databaseFile);
    const ctx = await defaultContext(db);
    await addLarge(ctx, 20_000);
    const [scope, look] = [{ kind: 'library' } as const, { style: 'apa', locale: 'en-US' }];
    const lag = monitorEventLoopDelay({ resolution: 5 });
    lag.enable();
    const measured = async (words: string, work: () => Promise<Uint8Array>) => {
      lag.reset();
      const [took, bytes] = await timed(work);
      row(words, ms(took), `${(bytes.byteLength / 1e6).toFixed(0)} MB; others wait at most ${ms(lag.max / 1e6)} for their turn`); // prettier-ignore
    };
    await measured('looked at, the first time', () => listOfView(ctx, 'bench', scope, look));
    await measured('again', () => listOfView(ctx, 'bench', scope, look));
    await measured('what tells its works apart', () => toldOfView(ctx, scope, look));
    await measured('saved as text', () => savedList(ctx, scope, look, 'text'));
    await measured('saved as BibTeX', () => savedList(ctx, scope, look, 'bibtex'));
    lag.disable();
    await closePools();
    await db.destroy();
  },
);

await part(
  'cache',
  'References of a page of rows: printed, and out of the cache there is for them',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'retexa-bench-'));
    process.env.RETEXA_DATA = folder;
    const db = await openDatabase(join(folder, 'retexa.sqlite'));
    const ctx = await defaultContext(db);
    await addLarge(ctx, 2_000);
    const english = locale('en-US');
    const sources = await getSources(ctx, (await listIds(ctx, {})).slice(0, 500));
    for (const id of ['apa', 'chicago-note-bibliography', 'ieee', 'american-sociological-association']) {
      const printer = createPrinter(style(id), english, 'en-US');
      const look = { style: id, locale: 'en-US' };
      const [printing, out, kept, sent]: number[][] = [[], [], [], []];
      for (let i = 0; i < 10; i++) {
        const page = sources.slice(i * 50, i * 50 + 50);
        const items = page.map((s) => toCsl(s.id, s.record));
        printing!.push((await timed(() => printer.each(items)))[0]);
        const references = printer.each(items);
        sent!.push((await timed(() => structuredClone([items, references])))[0]);
        kept!.push(
          (
            await timed(() =>
              db.transaction(async (trx) => {
                for (const [j, { runs }] of references.entries())
              await trx('printed').insert({ source_id: page[j]!.id, revision: page[j]!.revision, ...look, runs: JSON.stringify(runs) }); // prettier-ignore
              }),
            )
          )[0],
        );
        out!.push((await timed(() => printedSoFar(ctx, page, look)))[0]);
      }
      row(
        `50 references, ${id}`,
        ms(median(printing!)),
        `and ${ms(median(sent!))} to the thread and back; kept in ${ms(median(kept!))}, out of the cache ${ms(median(out!))}`,
      );
    }
    await db.destroy();
  },
);

await part(
  'differential',
  'Entries equal to citeproc-js, all independent styles in their own locale; EVERY=20 takes one of twenty, IN=de-DE,fr-FR a sample of 200 in others',
  async () => {
    let [total, same, left] = [0, 0, 0];
    const worst: [string, number][] = [];
    const every = Number(process.env.EVERY ?? 1);
    const known = new Map<string, number>();
    const all = allStyles();
    const others = process.env.IN?.split(',');
    const sample = all.filter((_, i) => i % Math.floor(all.length / 200) === 0).slice(0, 200);
    const pairs: [id: string, lang?: string][] = others
      ? others.flatMap((lang) => sample.map((id): [string, string] => [id, lang]))
      : all.map((id) => [id]);
    for (const [id, lang] of pairs.filter((_, i) => i % every === 0)) {
      const compared = compare(id, lang);
      if (!compared) {
        left++;
        continue;
      }
      total += compared.total;
      same += compared.same;
      const of = compared.differences.map((d) => classOf(d));
      for (const name of of) if (name) known.set(name, (known.get(name) ?? 0) + 1);
      worst.push([lang ? `${id}, ${lang}` : id, of.filter((name) => !name).length]);
    }
    row('entries and citations equal', `${((100 * same) / total).toFixed(2)} %`, `${same} of ${total}`);
    const explained = [...known.values()].reduce((sum, n) => sum + n, 0);
    row(
      'equal, or different in a way that is explained',
      `${((100 * (same + explained)) / total).toFixed(2)} %`,
      `${same + explained} of ${total}`,
    );
    for (const [name, n] of [...known].sort((a, b) => b[1] - a[1])) row(`  ${name}`, String(n));
    row('styles not compared, since citeproc-js leaves entries out or comes to no end', String(left));
    row('differences that are not explained, by style', '');
    for (const [id, count] of worst.sort((a, b) => b[1] - a[1]).slice(0, 20)) row(`  ${id}`, String(count));
  },
);

/** The time a command takes, in milliseconds, with a file on its standard input. */
function outside(command: string, args: string[], file: string): number {
  // Where a machine has certificates of its own, every process of Node reads them all before it does anything.
  const { NODE_EXTRA_CA_CERTS: _of, ...env } = process.env;
  const took = performance.now();
  const made = spawnSync(command, args, { env, stdio: [openSync(file, 'r'), 'ignore', 'ignore'] });
  if (made.error) throw made.error;
  return performance.now() - took;
}

await part(
  'formats',
  'Formats: 5,000 entries, ours in this process and the others in theirs, in turn, best of three',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'retexa-bench-formats-'));
    const items = (count: number) =>
      Array.from({ length: count }, (_, n) => ({ key: `k${n}`, record: generated(n) }));
    const bib = join(folder, 'five.bib');
    const json = join(folder, 'five.json');
    const large = join(folder, 'fifty.bib');
    const five = items(5_000);
    writeFileSync(bib, writeFormat('bibtex', five).text);
    writeFileSync(json, writeFormat('csl-json', five).text);
    writeFileSync(large, writeFormat('bibtex', items(50_000)).text);
    const cli = ['build/cli/retexa.js', 'convert'];
    const best: Record<string, number> = {};
    const note = (name: string, took: number) => (best[name] = Math.min(best[name] ?? Infinity, took));
    for (let i = 0; i < 3; i++) {
      const text = readFileSync(bib, 'utf8');
      note('read', (await timed(() => readFormat('bibtex', text)))[0]);
      note('pandoc read', outside('pandoc', ['-f', 'bibtex', '-t', 'csljson', bib], bib));
      note('bib2xml', outside('bib2xml', [bib], bib));
      note('write', (await timed(() => FORMATS.bibtex.write(five)))[0]);
      note('told', (await timed(() => writeFormat('bibtex', five)))[0]);
      note('pandoc write', outside('pandoc', ['-f', 'csljson', '-t', 'bibtex', json], json));
      note('convert', outside('node', [...cli, bib, '--to', 'csl-json', '-o', join(folder, 'o.json')], bib));
    }
    const times = (name: string, other: string) =>
      `${(best[other]! / best[name]!).toFixed(1)} times faster than ${other.replace(/ .*/, '')}`;
    row(
      'reading and mapping',
      ms(best.read!),
      `${times('read', 'pandoc read')}, ${times('read', 'bib2xml')}`,
    );
    row('pandoc -f bibtex -t csljson', ms(best['pandoc read']!));
    row('bib2xml', ms(best.bib2xml!));
    row('retexa convert, the whole process', ms(best.convert!), times('convert', 'pandoc read'));
    row('writing BibTeX', ms(best.write!), times('write', 'pandoc write'));
    row('writing it and reading it back to tell the losses', ms(best.told!), times('told', 'pandoc write'));
    row('pandoc -f csljson -t bibtex', ms(best['pandoc write']!));
    const small = readFileSync(bib, 'utf8');
    const all = readFileSync(large, 'utf8');
    const one = (await timed(() => readFormat('bibtex', small)))[0];
    const ten = (await timed(() => readFormat('bibtex', all)))[0];
    row('50,000 entries, reading', ms(ten), `${(ten / one).toFixed(1)} times 5,000`);
    const [smallWritten] = await timed(() => FORMATS.bibtex.write(five));
    const fifty = items(50_000);
    const [largeWritten] = await timed(() => FORMATS.bibtex.write(fifty));
    row(
      '50,000 entries, writing',
      ms(largeWritten),
      `${(largeWritten / smallWritten).toFixed(1)} times 5,000`,
    );
    const script = `const { readFileSync } = await import('node:fs'); const { readFormat } = await import('./src/lib/core/formats/index.ts'); const r = readFormat('bibtex', readFileSync(${JSON.stringify(large)}, 'utf8')); console.log(r.entries.length, Math.round(process.resourceUsage().maxRSS / 1024));`;
    const said = execFileSync('npx', ['tsx', '--input-type=module', '-e', script], {
      encoding: 'utf8',
    }).trim();
    row('50,000 entries, most memory of the process that reads them', `${said.split(' ')[1]} MB`);
  },
);

await part('library', 'Sources, 10,000', async () => {
  const app = await startApp();
  const { db, ctx, took } = await fill(join(app.dataFolder, 'retexa.sqlite'), 10_000);
  row('adding them in one transaction', ms(took), `${ms(took / 10_000)} each`);
  const look = { style: 'apa', locale: 'en-US' };
  const rows: number[] = [];
  for (let i = 0; i < 5; i++)
    rows.push(
      (
        await timed(async () =>
          Promise.all([
            listSources(ctx, {}, look, { from: { offset: 0 }, limit: 60, sort: 'author' }),
            facetsOf(ctx, {}),
          ]),
        )
      )[0],
    );
  row('first page of rows and the filters, on the server', ms(median(rows)));
  const found: number[] = [];
  for (let i = 0; i < 5; i++)
    found.push(
      (
        await timed(() =>
          listSources(ctx, { text: 'tide mill 77' }, look, {
            from: { offset: 0 },
            limit: 60,
            sort: 'author',
          }),
        )
      )[0],
    );
  row('a search', ms(median(found)));
  await db.destroy();
  const me = await person(app);
  const opened = async () =>
    (
      await timed(async () => {
        await me.page.goto(`${app.url}/sources`, { waitUntil: 'load' });
        await me.page.waitForFunction(() => {
          const rows = [...document.querySelectorAll('.row .reference')].slice(0, 8);
          return rows.length >= 8 && rows.every((r) => !r.querySelector('.waiting'));
        });
      })
    )[0];
  row('opening the view until eight rows are printed, first', ms(await opened()));
  const later: number[] = [];
  for (let i = 0; i < 5; i++) later.push(await opened());
  row('again', ms(median(later)));
  const scrolled: number[] = [];
  for (const part of [0.2, 0.5, 0.9])
    scrolled.push(
      (
        await timed(async () => {
          await me.page.$eval('.rows', (r, p) => r.scrollTo(0, r.scrollHeight * p), part);
          await me.page.waitForFunction(() => {
            const shown = [...document.querySelectorAll('.row')].filter(
              (r) => r.getBoundingClientRect().top > 160 && r.getBoundingClientRect().top < 700,
            );
            return (
              shown.length > 4 &&
              shown.every((r) => r.querySelector('.reference') && !r.querySelector('.waiting'))
            );
          });
        })
      )[0],
    );
  row('jumping to another place in the list until it is printed', ms(median(scrolled)));
  await me.leave();
  await app.stop();
});

await part(
  'pages',
  'Capture: labelled pages read right, by field and by vocabulary (right / where the label or the reading has a value)',
  async () => {
    const registry = (page: Labelled[]) => (page === ASIDE ? undefined : invented);
    const table = (name: string, pages: Labelled[]) => {
      const { right, of } = score(pages, registry(pages));
      console.log(`${name.padEnd(34)} ${FIELDS.map((f) => `${f} ${right[f]}/${of[f]}`).join('  ')}`);
    };
    table(`invented web, ${INVENTED.length} pages`, INVENTED);
    table(`kept aside, ${ASIDE.length} pages`, ASIDE);
    const all = [...INVENTED, ...ASIDE];
    for (const vocabulary of [...new Set(all.flatMap((p) => p.vocabularies))].sort()) {
      const some = all.filter((p) => p.vocabularies.includes(vocabulary));
      const { right, of } = score(some, invented);
      console.log(
        `  ${`${vocabulary}, ${some.length} pages`.padEnd(32)} ${FIELDS.map((f) => `${f} ${right[f]}/${of[f]}`).join('  ')}`,
      );
    }
  },
);

/** What a request takes on the server, from asking to the last byte: median and 95th percentile of forty. */
async function views(size: number): Promise<void> {
  const app = await startApp();
  const folder = app.dataFolder;
  const db = await openDatabase(join(folder, 'retexa.sqlite'));
  const ctx = await defaultContext(db);
  const adding: number[] = [];
  let some: string[] = [];
  const records = [...largeLibrary(size)];
  const [took] = await timed(async () => {
    for (let from = 0; from < records.length; from += 200)
      await transaction(ctx, async (inner) => {
        for (const record of records.slice(from, from + 200)) {
          const [one, { id }] = await timed(() =>
            insertSource(inner, record, { checked: from % 1_000 > 0, why: 'generated' }),
          );
          adding.push(one);
          if (some.length < 40 && adding.length % Math.ceil(size / 40) === 0) some = [...some, id];
        }
      });
  });
  row(
    `adding ${size.toLocaleString('en')}`,
    ms(took),
    `${ms(median(adding.slice(-2_000)))} each at that size`,
  );
  const look = { style: 'apa', locale: 'en-US' };
  const [through] = await timed(() => proofAroundOf(ctx, look, {}));
  const [again] = await timed(() => proofAroundOf(ctx, look, {}));
  row('proofing all in a style', ms(through), `${ms(again)} again when nothing changed`);
  const counts: number[] = [];
  for (let i = 0; i < 21; i++) counts.push((await timed(() => talliesOf(ctx)))[0]);
  row('counts of the path', ms(median(counts)));
  const { id: projectId } = await addProject(ctx, { name: 'Thesis', ...look });
  const all = await listIds(ctx, {});
  await file(ctx, projectId, all.slice(0, size / 2), true);
  const sections: string[] = [];
  for (let i = 0; i < 30; i++) {
    const under = i % 3 ? sections[i - (i % 3)]! : null;
    sections.push((await makeSection(ctx, projectId, `Section ${i}`, under)).id);
  }
  for (const [i, id] of sections.entries())
    await changePlaced(ctx, id, { act: 'place', ids: all.slice(i * 60, i * 60 + 120) });
  const asked: [string, (i: number) => string][] = [
    ['What to narrow by', () => '/api/facets'],
    [
      'What to narrow by, of a query',
      (i) =>
        `/api/facets?q=${['mill', 'year:1950-1980', 'type:book marsh', '-type:chapter'][i % 4]!.replaceAll(' ', '+')}`,
    ],
    ['A section in its own order', (i) => `/sources?section=${sections[i % 30]}`],
    ['Desk', () => '/'],
    ['Intake', () => '/intake'],
    ['Sources', (i) => `/sources?sort=${['author', 'title', 'newest', 'added'][i % 4]}`],
    ['Sources, narrowed', (i) => `/sources?type=${['book', 'chapter'][i % 2]}`],
    ['Sources, words', (i) => `/sources?q=${['marsh', 'tide mill', 'moulin', 'editorial'][i % 4]}`],
    ['a page far down', (i) => `/api/sources?offset=${Math.floor((size * (i + 1)) / 41)}`],
    ['a source', (i) => `/sources/${some[i % some.length]}`],
    ['Passages', () => '/passages'],
    ['Duplicates', () => '/duplicates'],
    ['Leads', () => '/leads'],
    ['Bin', () => '/bin'],
    ['Search', (i) => `/search?q=${['sediment', 'mühle', 'editorial', 'soko'][i % 4]}`],
    [
      'Search, three words',
      (i) =>
        `/search?q=${['tide mill p', 'salt marsh rec', 'moulin maree ecl', 'mill pond lease'][i % 4]!.replaceAll(' ', '+')}`,
    ],
    [
      'Sources, a query',
      (i) =>
        `/sources?q=${['author:pell year:1950-1980', 'title:mill -pond type:book', 'state:found has:doi', 'mill -year:1990-'][i % 4]!.replaceAll(' ', '+')}`,
    ],
    ['Proof, records gone through', () => '/proof'],
  ];
  for (const [name, path] of asked) {
    const times: number[] = [];
    for (let i = 0; i < 40; i++)
      times.push((await timed(async () => (await fetch(app.url + path(i))).arrayBuffer()))[0]);
    const sorted = [...times].sort((a, b) => a - b);
    row(name, `${ms(median(times))}`, `95th percentile ${ms(sorted[37]!)}`);
  }
  /** Saves a field of a source as the sheet does; how long it takes. */
  const saving = async (id: string, note: string): Promise<number> => {
    const [{ revision }] = app.rows<{ revision: number }>('SELECT revision FROM source WHERE id = ?', id) as [
      { revision: number },
    ];
    const asked = {
      method: 'PATCH',
      headers: { 'content-type': 'application/json', origin: app.url },
      body: JSON.stringify({ base: revision, fields: { note } }),
    };
    return (await timed(async () => (await fetch(`${app.url}/api/sources/${id}`, asked)).arrayBuffer()))[0];
  };
  const alone: number[] = [];
  for (const [i, id] of some.entries()) alone.push(await saving(id, `saved ${i}`));
  row('saving a field', ms(median(alone)), `95th percentile ${ms(alone.sort((a, b) => a - b)[37]!)}`);
  const chosenIds = all.slice(0, 5_000);
  const [tagging] = await timed(() => editSources(ctx, chosenIds, { tag: 'a tag of many' }));
  row('a tag on 5,000', ms(tagging));
  await db.destroy();
  const entries = records
    .slice(0, 5_000)
    .map(
      (r, i) =>
        `@book{import${i}, title={${r.title ?? ''} ${i}}, author={${r.author?.[0]?.family ?? 'Ng'}, A.}, year={1990}, publisher={P}}`,
    )
    .join('\n');
  const started = await fetch(`${app.url}/api/import?name=five.bib`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', origin: app.url },
    body: entries,
  });
  const { id: job } = (await started.json()) as { id: string };
  const state = () => app.rows<{ state: string }>('SELECT state FROM job WHERE id = ?', job)[0]!.state;
  await until(
    'the import to add',
    async () => app.rows('SELECT id FROM import_step LIMIT 1').length > 0 || state() === 'done',
  );
  const during: number[] = [];
  for (let i = 0; state() === 'running'; i++) {
    during.push(await saving(some[i % some.length]!, `meanwhile ${i}`));
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  const sorted = [...during].sort((a, b) => a - b);
  if (during.length)
    row(
      'saving a field while 5,000 entries are imported',
      ms(median(during)),
      `95th percentile ${ms(sorted[Math.floor(sorted.length * 0.95)]!)}, longest ${ms(sorted.at(-1)!)}, of ${during.length}`,
    );
  row('memory of the server', `${Math.round(app.memory() / 1024 / 1024)} MB`);
  await app.stop();
}

/** A PDF of so many pages of text, with printed labels. */
async function longPdf(pages: number): Promise<Uint8Array> {
  const { PDFDocument, StandardFonts } = await import('pdf-lib');
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (let n = 0; n < pages; n++) {
    const page = doc.addPage([420, 595]);
    for (let line = 0; line < 38; line++)
      page.drawText(
        `Line ${line} of page ${n}: the sluice of mill ${(n * 37 + line) % 911} was shut at neaps.`,
        {
          x: 50,
          y: 540 - line * 13,
          size: 10,
          font,
        },
      );
  }
  return doc.save();
}

/** Opens a copy: how soon it is there, the longest tasks of opening and of going through it, and the memory it takes then. */
async function openCopy(app: App, me: Person, name: string, id: string, there: string): Promise<void> {
  await me.open('/');
  const opening = timed(async () => {
    await me.page.goto(`${app.url}/copies/${id}`, { waitUntil: 'domcontentloaded' });
    await me.page.waitForFunction(there);
  });
  const [opened] = await opening;
  row(`${name}: all there`, ms(opened));
  const before = await me.page.metrics();
  await answers(`${name}: going through it`, me, async () => {
    for (let i = 1; i <= 120; i++)
      await me.page.evaluate(
        (part) =>
          new Promise<void>((resolve) => {
            const view = document.querySelector('.reader')!;
            view.scrollTop = part * view.scrollHeight;
            requestAnimationFrame(() => requestAnimationFrame(() => resolve()));
          }),
        i / 120,
      );
  });
  const after = await me.page.metrics();
  const megabytes = (bytes = 0) => `${Math.round(bytes / 1e6)} MB`;
  row(
    `${name}: memory of scripts behind it`,
    megabytes(after.JSHeapUsedSize),
    `${megabytes(before.JSHeapUsedSize)} before, ${after.Nodes?.toLocaleString('en')} nodes`,
  );
  await me.open('/');
  await answers(`${name}: opening it`, me, async () => {
    await me.page.evaluate((path) => {
      const link = Object.assign(document.createElement('a'), { href: path, textContent: 'open' });
      document.body.append(link);
      link.click();
    }, `/copies/${id}`);
    await me.page.waitForFunction(there);
  });
}

await part('reading', 'Reading: 600 pages with 300 passages, a page with 500', async () => {
  const app = await startApp();
  const db = await openDatabase(join(app.dataFolder, 'retexa.sqlite'));
  const ctx = await defaultContext(db);
  process.env.RETEXA_DATA = app.dataFolder;
  const me = await person(app);
  const record = sourceRecord.parse({ type: 'book', title: 'A long book' });
  const { id: sourceId } = await transaction(ctx, (inner) =>
    insertSource(inner, record, { checked: true, why: 'generated' }),
  );
  const sent = await fetch(`${app.url}/api/sources/${sourceId}/copies?name=long.pdf`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', origin: app.url },
    body: new Uint8Array(await longPdf(600)),
  });
  if (!sent.ok) throw new Error(await sent.text());
  const copies = () => app.rows<{ id: string; text: string }>('SELECT id, text FROM copy ORDER BY captured');
  await until('the PDF', async () => copies().length === 1);
  const keepEach = async (copyId: string, text: string, words: (i: number) => string, count: number) => {
    for (let i = 0; i < count; i++) {
      const start = text.indexOf(words(i));
      await keepPassage(ctx, {
        copyId,
        selectors: describe(text, start, start + words(i).length),
        kind: 'quotation',
        tint: TINTS[i % TINTS.length]!,
        gist: `Point ${i}`,
        ownWords: '',
        locator: null,
        visibility: 'library',
      });
    }
  };
  const [pdf] = copies();
  await keepEach(pdf!.id, pdf!.text, (i) => `Line ${i % 30} of page ${i * 2}: the sluice`, 300);
  const drawn = `document.querySelector('iframe')?.contentDocument?.querySelector('.face img')?.complete && document.querySelectorAll('[data-card]').length >= 300`;
  await openCopy(app, me, '600 pages', pdf!.id, drawn);
  const paragraphs = Array.from(
    { length: 1_200 },
    (_, i) =>
      `<p>Paragraph ${i}: the pond of mill ${i % 97} was sluiced at every spring tide, and dressed.</p>`,
  );
  const html = `<main>${paragraphs.join('')}</main>`;
  const dom = new JSDOM(html);
  const { text } = textOf(dom.window.document.body);
  const copy = await transaction(ctx, async (inner) => {
    const [reading, bytes] = [await keepFile(Buffer.from(html)), await keepFile(Buffer.from(`${html} `))];
    return insertCopy(inner, {
      source_id: sourceId,
      kind: 'page',
      media_type: 'text/html',
      sha256: bytes,
      size: html.length,
      reading_sha256: reading,
      title: 'A long page',
      address: 'https://a.example/long',
      captured: new Date().toISOString(),
      text,
      labels: null,
      note: null,
    });
  });
  await keepEach(copy.id, text, (i) => `Paragraph ${i * 2}: the pond of mill`, 500);
  const marked = `document.querySelector('iframe')?.contentDocument?.querySelectorAll('mark').length >= 500 && document.querySelectorAll('[data-card]').length >= 500`;
  await openCopy(app, me, '500 passages', copy.id, marked);
  await db.destroy();
  await me.leave();
  await app.stop();
});

await part('views', 'Every view, 10,000 sources', () => views(10_000));
/** Looks through a whole library for works that are in it twice: one in twenty is, hundreds of pieces share a title. */
async function doubles(size: number): Promise<void> {
  const ids: string[] = [];
  const signatures: Signature[] = [];
  for (const record of largeLibrary(size)) {
    ids.push(String(ids.length).padStart(7, '0'));
    signatures.push(signatureOf(record));
  }
  const [found, groups] = await timed(() => findGroups(ids, signatures));
  const sure = groups.filter((g) => g.verdict === 'sure').length;
  const memory = Math.round(process.memoryUsage().rss / 1e6);
  row(
    `a full pass over ${size.toLocaleString('en')} records`,
    ms(found),
    `${groups.length.toLocaleString('en')} groups, ${sure.toLocaleString('en')} sure; ${memory} MB`,
  );
}

await part('doubles', 'Works that are in a library twice', async () => {
  await doubles(10_000);
  await doubles(100_000);
});

await part('draft', 'A draft of 30,000 words with 300 citations of 200 works', async () => {
  const app = await startApp();
  const me = await person(app);
  const { db, ctx } = await fill(join(app.dataFolder, 'retexa.sqlite'), 200);
  const sources = await listIds(ctx, {});
  for (const style of ['apa', 'chicago-fullnote-bibliography']) {
    const project = await addProject(ctx, { name: `Long, ${style}`, style, locale: 'en-US' });
    const { id } = await openDraft(ctx, project.id);
    const content = (i: number): DraftPart['content'] => ({
      type: 'paragraph',
      content: [
        { type: 'text', text: `${wordsOf(i + 1, 100)} ` },
        { type: 'cite', attrs: { id: `c${i}`, works: [{ id: sources[(i * 7) % 200]!, label: 'page', locator: String(i) }], named: false } },
        { type: 'text', text: '.' },
      ],
    }); // prettier-ignore
    const puts = Array.from({ length: 300 }, (_, i) => ({ id: `p${style}${i}`, base: null, content: content(i) }));
    await saveDraft(ctx, id, draftSave.parse({ since: 0, puts, order: puts.map((put) => put.id) }));
    await me.page.setCookie({ name: 'retexa-project', value: project.id, url: app.url });
    const cite = `[aria-label="Draft"] .in-cite`;
    const printed = `[...document.querySelectorAll('${cite}')].length === 300 && !document.querySelectorAll('${cite}')[299].textContent.includes('…')`;
    const [opening] = await timed(async () => {
      await me.open('/draft');
      await me.page.waitForFunction(`${printed} && document.querySelectorAll('[aria-label="References"] .entry').length === 200`);
    });
    row(`${style}: opening it, all printed`, ms(opening));
    const changing: number[] = [];
    for (let n = 0; n < 9; n++) {
      await (await me.page.$$(cite))[140 + n]!.click();
      await me.page.waitForSelector('.ProseMirror-selectednode');
      await me.page.keyboard.press('Enter');
      await me.page.waitForSelector('[role="combobox"]:focus');
      await me.page.click('.cite-field input[type="checkbox"]');
      await me.page.evaluate((at) => {
        const one = () => document.querySelectorAll('[aria-label="Draft"] .in-cite')[at]!;
        const before = one().textContent;
        const seen = { from: 0, took: 0 };
        Object.assign(globalThis, { seen });
        addEventListener('keydown', (event) => {
          if (event.key !== 'Enter' || seen.from) return;
          seen.from = performance.now();
          const look = () => {
            if (one().textContent === before || document.querySelector('.cite-field')) return void requestAnimationFrame(look);
            seen.took = performance.now() - seen.from;
          };
          requestAnimationFrame(look);
        }, true);
      }, 140 + n); // prettier-ignore
      await me.page.keyboard.down('Control');
      await me.page.keyboard.press('Enter');
      await me.page.keyboard.up('Control');
      await me.page.waitForFunction('globalThis.seen.took > 0');
      changing.push(await me.page.evaluate('globalThis.seen.took') as number);
    }
    row(`${style}: a citation changed, until it is seen`, ms(median(changing)), `slowest of nine ${ms(Math.max(...changing))}`);
    await answers(`${style}: sixty letters typed`, me, () => me.page.keyboard.type('Words typed in the middle of a long draft, one by one, fast.'));
  }
  await db.destroy();
  await me.leave();
  await app.stop();
}); // prettier-ignore

/** Paragraphs of a text, of words that are of no one: each is a place on a list of letters and figures. */
function wordsOf(seed: number, count: number): string {
  let state = seed;
  const word = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state % 9_973).toString(36);
  };
  return Array.from({ length: count }, word).join(' ');
}

await part('borrowed', 'A draft of 30,000 words beside a thousand documents of 8,000', async () => {
  const documents = Array.from({ length: 1_000 }, (_, i) => wordsOf(i + 1, 8_000));
  // Every tenth paragraph has thirty words of one of them.
  const parts: DraftPart[] = Array.from({ length: 300 }, (_, i) => {
    const taken = i % 10 ? '' : documents[i]!.split(' ').slice(100, 130).join(' ');
    return { id: `p${i}`, content: { type: 'paragraph', content: [{ type: 'text', text: `${wordsOf(900_000 + i, 100)}. ${taken}` }] } }; // prettier-ignore
  });
  const [making, index] = await timed(() => indexOwn(ownTexts(parts)));
  row('the words of the draft made ready', ms(making));
  const [comparing, found] = await timed(
    () =>
    borrowings(index, documents.map((text, i) => ({ document: String(i), runs: borrowedFrom(index, text) }))), // prettier-ignore
  );
  const characters = documents.reduce((sum, text) => sum + text.length, 0);
  row('held against the documents', ms(comparing), `${found.length} of 30 found; ${(characters / 1e6).toFixed(0)} million characters`); // prettier-ignore
});

await part('anchoring', 'Passages found again in a book of a million characters that has changed', () => {
  const made = book(1, 1_000_000, 500);
  const sought = made.passages.map(({ selectors }) => selectors);
  const all = (text: string) => anchorAll(text, sought);
  const begun = performance.now();
  const unchanged = all(made.before).filter(({ state }) => state === 'found').length;
  row('500 passages, nothing changed', ms(performance.now() - begun), `${unchanged} found`);
  const again = performance.now();
  const found = all(made.later);
  const took = performance.now() - again;
  const { there, right, gone, raised } = outcome(made, found);
  row(
    '500 passages, after the changes',
    ms(took),
    `${right} of ${there} in the right place; of ${gone} left out, ${raised} “found”`,
  );
  return Promise.resolve();
});

if (chosen.includes('views-large'))
  await part('views-large', 'Every view, 100,000 sources', () => views(100_000));

await part('documents', 'Capture: reading documents, fetched already', async () => {
  const body = htmlOf([...MARSH, ...THESIS]).repeat(3);
  const articles = INVENTED.filter((p) => p.label.type === 'article-journal').map((p) => ({
    address: p.address,
    contentType: 'text/html; charset=utf-8',
    bytes: Buffer.from(p.html.replace('</main>', `${body}</main>`)),
  }));
  readPage(articles[0]!);
  const times: number[] = [];
  for (const article of articles) times.push((await timed(() => readPage(article)))[0]);
  const kilobytes = Math.round(median(articles.map((a) => a.bytes.length)) / 1024);
  row(
    'one article page: parsed, read, sanitised',
    ms(median(times)),
    `median of ${articles.length}, ${kilobytes} KB each`,
  );
  const pdf = await DOCUMENTS['estuaryshore.example/pdf/12-2-101.pdf']!.bytes();
  const [, { leaves }] = await timed(() => readPdfText(pdf));
  const again: number[] = [];
  for (let i = 0; i < 5; i++) again.push((await timed(() => readPdfText(pdf)))[0]);
  row('a PDF’s text', ms(median(again)), `${leaves.length} pages`);
  const picture = await DOCUMENTS['skerryarchive.example/photos/lease.png']!.bytes();
  await recognise(picture);
  row('a picture’s text, recogniser running', ms((await timed(() => recognise(picture)))[0]));
  await endRecogniser();
});

await part('burst', 'Capture: sixty pages in a burst', async () => {
  const app = await startApp();
  const me = await person(app);
  const count = () => app.rows<{ n: number }>('SELECT count(*) AS n FROM source')[0]!.n;
  const lines = Array.from({ length: 60 }, (_, i) => `https://burst.example/pages/${i}`).join('\n');
  await me.open('/');
  let took = 0;
  await answers('the Desk meanwhile', me, async () => {
    [took] = await timed(async () => {
      await me.page.evaluate(
        (text) =>
          fetch('/api/captures', {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ text }),
          }),
        lines,
      );
      await until('sixty sources', async () => count() === 60, 120_000);
    });
  });
  row('until the last is in Intake', ms(took), `${count()} of 60 kept`);
  await me.leave();
  await app.stop();
});

await part('page', 'Reference list on the page, 1,000 sources', async () => {
  const app = await startApp();
  const { db, ctx } = await fill(join(app.dataFolder, 'retexa.sqlite'), 1_000);
  const me = await person(app);
  const whole = (what: string) =>
    until(what, () =>
      me.page.evaluate(
        (selector) =>
          document.querySelectorAll(selector).length === 1_000 &&
          !document.querySelector('.head')?.textContent?.includes('Printing'),
        what,
      ),
    );
  await me.open('/sources');
  await answers('printed in APA', me, async () => {
    await me.page.click('nav.path a[href="/references"]');
    await whole('.entry');
  });
  await answers('again in IEEE', me, async () => {
    await me.page.click('[aria-label^="Citing style"]');
    await me.type('Find a style by name', 'ieee');
    await me.page.waitForSelector('.panel [data-style="ieee"]');
    await me.page.click('.panel [data-style="ieee"]');
    await whole('.entry .label');
  });
  await answers('one record edited meanwhile', me, async () => {
    const [first] = await getSources(ctx, await listIds(ctx, {}));
    await me.page.evaluate(
      async ({ id, base }) => {
        const answer = await fetch(`/api/sources/${id}`, {
          method: 'PATCH',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ base, fields: { volume: '999' } }),
        });
        if (!answer.ok) throw new Error(await answer.text());
      },
      { id: first!.id, base: first!.revision },
    );
    await me.see('vol. 999');
  });
  await db.destroy();
  await me.leave();
  await app.stop();
});
/** Seconds people are at it together; ten minutes are what is asked: `SECONDS=600`. */
/** Adds a large library to one that is empty. */
async function addLarge(ctx: Context, size: number): Promise<void> {
  const records = [...largeLibrary(size)];
  for (let from = 0; from < records.length; from += 500)
    await transaction(ctx, async (inner) => {
      for (const record of records.slice(from, from + 500))
        await insertSource(inner, record, { checked: true, why: 'generated' });
    });
}

const TOGETHER = Number(process.env.SECONDS ?? 90);
await part(
  'together',
  '200 people signed in, 50 of them reading and marking 20,000 sources; a backup meanwhile',
  async () => {
    const app = await startApp();
    const db = await openDatabase(join(app.dataFolder, 'retexa.sqlite'));
    const ctx = await defaultContext(db);
    await addLarge(ctx, 20_000);
    process.env.RETEXA_DATA = app.dataFolder;
    // Two gigabytes of documents, none of them the same.
    for (let i = 0; i < 400; i++) {
      const bytes = Buffer.alloc(5_000_000, i);
      bytes.writeUInt32LE(i);
      await keepFile(bytes);
    }
    const phrase = await phraseHash('the same for all of them here');
    const secrets = await Promise.all(
      Array.from({ length: 200 }, (_, i) =>
        db.transaction(async (trx) => {
          const { personId } = i === 0 ? ctx : await makePerson(trx, `Person ${i}`);
          await trx('account').insert({
            person_id: personId,
            mail: `p${i}@x.example`,
            phrase,
            keeper: i === 0,
            made: '2026',
          });
          if (i > 0)
            await trx('membership').insert({
              library_id: ctx.libraryId,
              person_id: personId,
              role: 'annotator',
              joined: '2026',
            });
          return letIn(trx, personId, { address: '127.0.0.1', agent: 'bench' });
        }),
      ),
    );
    const ids = (await listIds(ctx, {})).filter((_, i) => i % 7 === 0);
    const next = random(7);
    const pick = <T>(all: readonly T[]) => all[Math.floor(next() * all.length)]!;
    const took: number[] = [];
    const during: number[] = [];
    const seen: number[] = [];
    const failed: string[] = [];
    let backingUp = false;
    const asked = async (who: string, method: string, path: string, body?: unknown) => {
      const start = performance.now();
      const response = await fetch(app.url + path, {
      method,
      headers: { cookie: `retexa-session=${who}; retexa-library=${ctx.libraryId}`, origin: app.url, ...(body ? { 'content-type': 'application/json' } : {}) },
      ...(body ? { body: JSON.stringify(body) } : {}),
    }); // prettier-ignore
      const text = await response.text();
      (backingUp ? during : took).push(performance.now() - start);
      if (!response.ok) failed.push(`${method} ${path}: ${response.status} ${text.slice(0, 80)}`);
      return text;
    };
    // One listens, as an open page does: when is a mark of another known?
    const hearing = new AbortController();
    let marked: number | undefined;
    const events = await fetch(`${app.url}/api/events`, { headers: { cookie: `retexa-session=${secrets[199]}; retexa-library=${ctx.libraryId}` }, signal: hearing.signal }); // prettier-ignore
    void (async () => {
      const decoder = new TextDecoder();
      for await (const chunk of events.body as unknown as AsyncIterable<Uint8Array>)
        if (marked !== undefined && decoder.decode(chunk).includes('passages')) {
          seen.push(performance.now() - marked);
          marked = undefined;
        }
    })().catch(() => undefined);
    let kept = 0;
    const work = async (who: string, until: () => boolean) => {
      await new Promise((resolve) => setTimeout(resolve, 2_000 * next()));
      while (!until()) {
        const id = pick(ids);
        const act = next();
        if (act < 0.2) {
          marked ??= performance.now();
          const quotation = { copyId: null, sourceId: id, selectors: null, exact: `Read by ${kept}`, kind: 'quotation', gist: 'So it is', ownWords: '', tint: 'claim', locator: { label: 'page', value: '3' }, visibility: next() < 0.5 ? 'private' : 'library' }; // prettier-ignore
          await asked(who, 'POST', '/api/passages', quotation);
          kept++;
        } else if (act < 0.5) await asked(who, 'GET', `/sources/${id}/__data.json`);
        else if (act < 0.7) await asked(who, 'GET', '/sources/__data.json');
        else if (act < 0.85) await asked(who, 'GET', '/passages/__data.json');
        else await asked(who, 'GET', `/search/__data.json?q=${pick(['tide', 'marsh', 'ledger'])}`);
        // Read for a while.
        await new Promise((resolve) => setTimeout(resolve, 1_000 + 3_000 * next()));
      }
    };
    const part95 = (values: number[], share = 0.95) =>
      [...values].sort((a, b) => a - b)[Math.floor(values.length * share)] ?? 0;
    const end = performance.now() + TOGETHER * 1_000;
    await Promise.all(secrets.slice(0, 50).map((who) => work(who, () => performance.now() > end)));
    row(
      `${took.length} answers in ${TOGETHER} s`,
      ms(part95(took)),
      `95 in 100 within; median ${ms(median(took))}, longest ${ms(Math.max(...took))}, ${failed.length} failed`,
    );
    const there = app.rows<{ n: number }>(
      "SELECT count(*) AS n FROM passage WHERE exact LIKE 'Read by %'",
    )[0]!.n;
    row('marks kept', String(there), `of ${kept} sent`);
    row(
      'until another’s mark is known',
      ms(part95(seen)),
      `95 in 100 within, of ${seen.length}; longest ${ms(Math.max(...seen))}`,
    );
    backingUp = true;
    const begun = performance.now();
    await asked(secrets[0]!, 'POST', '/api/backups', {});
    let over = false;
    const made = (async () => {
      while (JSON.parse(await asked(secrets[0]!, 'GET', '/api/backups')).making)
        await new Promise((resolve) => setTimeout(resolve, 500));
      over = true;
    })();
    await Promise.all([made, ...secrets.slice(0, 50).map((who) => work(who, () => over))]);
    const { all } = JSON.parse(await asked(secrets[0]!, 'GET', '/api/backups')) as {
      all: { size: number }[];
    };
    row(
      `a backup of ${Math.round((all[0]?.size ?? 0) / 1e6)} MB`,
      ms(performance.now() - begun),
      `${during.length} answers meanwhile: 95 in 100 within ${ms(part95(during))}, longest ${ms(Math.max(...during))}`,
    );
    for (const line of [...new Set(failed)].slice(0, 5)) console.log(line);
    const [argon] = await timed(() =>
      Promise.all(Array.from({ length: 20 }, () => phraseHash('twenty at once, as on a Monday'))),
    );
    row('twenty pass phrases hashed at once', ms(argon), 'Argon2id, 19 MiB, two passes');
    hearing.abort();
    await db.destroy();
    await app.stop();
  },
);

await part('brought', 'a library of 20,000 sources brought back out of a backup, and deleted', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-bench-'));
  process.env.RETEXA_DATA = folder;
  const db = await openDatabase(join(folder, 'retexa.sqlite'));
  const ctx = await defaultContext(db);
  await addLarge(ctx, 20_000);
  await db.raw('VACUUM INTO ?', [join(folder, 'copy.sqlite')]);
  const bag = new Database(join(folder, 'copy.sqlite'), { readonly: true });
  const lag = monitorEventLoopDelay({ resolution: 5 });
  const others = () => `others wait at most ${ms(lag.max / 1e6)} for their turn`;
  lag.enable();
  const [bringing, came] = await timed(() =>
    bringLibrary(db, bag, ctx.libraryId, { personId: ctx.personId, copiedOn: '2026-11-28' }),
  );
  row('brought in beside what is here', ms(bringing), others());
  lag.reset();
  const [deleting] = await timed(() => deleteLibrary({ ...ctx, libraryId: came.libraryId }, came.name));
  row('deleted', ms(deleting), others());
  lag.disable();
  bag.close();
  await db.destroy();
});

process.exit(0);
