/**
 * Hostile documents, read as the server and the command line read them: in processes of their own. Each gives a result or words
 * for the person, the process that asked lives, memory is bounded, and what is asked next is answered. Needs a build.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readers, type Readers, type ReadTask } from '../../src/lib/reading/apart';
import { textOfDocx } from '../../src/lib/reading/docx';
import { Unreadable } from '../../src/lib/reading/failure';
import { sniffBytes } from '../../src/lib/reading/sniff';
import { readStyle } from '../../src/lib/reading/styles';
import { sourceRecord } from '../../src/lib/core/source';
import { reconcile } from '../../src/lib/core/capture';
import { HOSTILE_PAGES } from './pages';
import { hostilePdfs, soundPdf } from './pdfs';
import { damagedPictures, soundPicture } from './pictures';

const ENTRY = 'build/workers/reading.js';
/** Time each hostile document is given here, in milliseconds; the product gives more. */
const GIVEN = 1_200;
/** Memory of everything together, in bytes. */
const MOST_MEMORY = 1.5 * 1024 ** 3;

let hostile: Readers;
let sound: Readers;
let most = 0;
let watch: NodeJS.Timeout;

/** Resident memory of this process's children and theirs, in bytes; nothing where `ps` is not there. */
function memoryOfChildren(): number {
  const rows = execFileSync('ps', ['-eo', 'pid=,ppid=,rss=,args='], { encoding: 'utf8' })
    .split('\n')
    .map((line) => /^\s*(\d+)\s+(\d+)\s+(\d+)\s+(.*)$/.exec(line))
    .filter((m) => m !== null);
  return rows
    .filter(([, , parent, , args]) => Number(parent) === process.pid && args!.includes(ENTRY))
    .reduce((sum, m) => sum + Number(m[3]) * 1024, 0);
}

beforeAll(() => {
  hostile = readers(ENTRY, GIVEN);
  sound = readers(ENTRY);
  watch = setInterval(() => (most = Math.max(most, memoryOfChildren())), 100);
});
afterAll(async () => {
  clearInterval(watch);
  await hostile.close();
  await sound.close();
});

/** Reads; gives what came of it, which is a result or words for the person and nothing else. */
async function tried<T extends ReadTask>(task: T): Promise<{ result?: unknown; words?: string }> {
  try {
    return { result: await hostile.read(task) };
  } catch (error) {
    expect(error).toBeInstanceOf(Unreadable);
    const words = (error as Error).message;
    expect(words).toMatch(/^[A-Z].*\.$/s);
    return { words };
  }
}

describe('pictures', () => {
  const all = damagedPictures();
  it.each(Object.entries(all))('that are damaged are told: %s', async (_what, bytes) => {
    const { result, words } = await tried({ task: 'scan', bytes });
    expect(result ?? words).toBeDefined();
  });

  it('that are sound are read after them', async () => {
    expect((await sound.read({ task: 'scan', bytes: soundPicture() })).leaf.width).toBe(595);
  });

  it('that are damaged end no command line', () => {
    const folder = mkdtempSync(join(tmpdir(), 'retexa-hostile-'));
    const file = join(folder, 'cut.png');
    writeFileSync(file, all['the first 33 bytes of a PNG']!);
    const { status, stderr, signal } = spawnSync('node', ['build/cli/retexa.js', 'read', file], {
      encoding: 'utf8',
    });
    expect({ status, signal }).toEqual({ status: 2, signal: null });
    expect(stderr).toMatch(/^cut\.png: The picture is damaged/);
  });
});

describe('PDFs', () => {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-pdfs-'));
  let files = 0;
  const fileOf = (bytes: Uint8Array) => {
    const path = join(folder, `${files++}.pdf`);
    writeFileSync(path, bytes);
    return path;
  };
  const all = Object.entries(hostilePdfs());
  it('are fifty-five kinds and more', () => expect(all.length).toBeGreaterThanOrEqual(55));

  it.each(all)('that are hostile are read or told, and drawn or told: %s', async (_what, bytes) => {
    await tried({ task: 'pdf', bytes });
    await tried({ task: 'draw', path: fileOf(bytes), leaf: 1, width: 1_300 });
  });

  it('that are sound are read after them', async () => {
    const { leaves } = await sound.read({ task: 'pdf', bytes: soundPdf() });
    expect(leaves[0]?.runs.map((r) => r.text).join('')).toBe('Grain was ground with the tide.');
  });

  it('say what is wrong', async () => {
    const pdfs = hostilePdfs();
    // With the time the product gives: what is asked is the words.
    const said = (name: string) =>
      sound.read({ task: 'draw', path: fileOf(pdfs[name]!), leaf: 1, width: 900 }).then(
        () => undefined,
        (error: Error) => error.message,
      );
    expect(await said('pages that are their own parent')).toMatch(/damaged.*circular/);
    expect(await said('a page of one by ten million')).toMatch(/1 × 10,000,000 points/);
    expect(await said('a picture of one by sixty million')).toMatch(/60,000,000 pixels a side/);
  });
});

describe('pages', () => {
  it('are thirty-four kinds and more', () =>
    expect(Object.keys(HOSTILE_PAGES).length).toBeGreaterThanOrEqual(34));

  it.each(Object.entries(HOSTILE_PAGES))('keep nothing that runs, loads or lies: %s', async (_what, html) => {
    const address = 'https://a.example/page';
    const { result } = await tried({
      task: 'page',
      bytes: Buffer.from(html),
      contentType: 'text/html',
      address,
    });
    if (!result) return;
    const read = result as Awaited<ReturnType<Readers['read']>> & {
      html: string;
      text: string;
      candidates: never[];
      list: { address?: string }[];
    };
    expect(read.html).not.toMatch(
      /<(?:script|iframe|object|embed|form|input|button|link|meta|base|style|svg|annotation|annotation-xml|maction|mglyph|malignmark|template|video|audio|source|portal)[\s>/]/i,
    );
    expect(read.html).not.toMatch(
      /<[^>]*\s(?:on\w+|style|src|srcset|background|poster|formaction|action|xlink:href|name)\s*=/i,
    );
    expect(read.html).not.toMatch(/(?:href|title)="\s*(?:javascript|data|vbscript|file):/i);
    expect(read.text).not.toMatch(/[\0-\x08\x0b\x0c\x0e-\x1f\x7f\ufffe\uffff]/);
    const record = reconcile(read.candidates, address, '2026-01-01T00:00:00.000Z');
    expect(sourceRecord.safeParse(record).error).toBeUndefined();
    for (const value of [record.URL, ...read.list.map((w) => w.address)].filter((v) => v !== undefined))
      expect(value).toMatch(/^https?:\/\//);
  });
});

describe('XML', () => {
  const laughs = `<?xml version="1.0"?><!DOCTYPE l [<!ENTITY a "lol">${Array.from({ length: 9 }, (_, i) => `<!ENTITY ${String.fromCharCode(98 + i)} "${`&${String.fromCharCode(97 + i)};`.repeat(10)}">`).join('')}]><mods>&j;</mods>`;
  it.each<[string, string]>([
    ['entities that multiply', laughs],
    [
      'entities of files',
      '<!DOCTYPE m [<!ENTITY f SYSTEM "file:///etc/passwd">]><mods><titleInfo><title>&f;</title></titleInfo></mods>',
    ],
    ['elements fifty thousand deep', '<a>'.repeat(50_000)],
    [
      'a hundred thousand records',
      `<modsCollection>${'<mods><titleInfo><title>a</title></titleInfo></mods>'.repeat(20_000)}</modsCollection>`,
    ],
    ['not XML', '<<<<>>>>'],
    ['nothing', ''],
  ])('is read or told: %s', async (_what, xml) => {
    await tried({ task: 'catalogue', xml }).catch((error: unknown) =>
      expect((error as Error).message).not.toMatch(/root:/),
    );
    const read = await tried({ task: 'file', format: 'mods', text: xml });
    expect(JSON.stringify(read)).not.toMatch(/root:|lollol/);
  });
});

describe('styles', () => {
  const style = (macros: string, layout: string) => `<?xml version="1.0" encoding="utf-8"?>
<style xmlns="http://purl.org/net/xbiblio/csl" class="in-text" version="1.0"><info><title>Odd</title><id>odd</id><updated>2026-01-01T00:00:00+00:00</updated></info>
${macros}<citation><layout>${layout}</layout></citation></style>`;
  const LOCALE = 'locales-en-US.csljson';
  const told = async (xml: string) => {
    const { problems } = (await readStyle(xml, LOCALE)) as { problems?: { text: string }[] };
    return problems?.map((p) => p.text).join('; ') ?? '';
  };
  it('whose macros call themselves, or each other without end, are not taken', async () => {
    expect(await told(style('<macro name="a"><text macro="a"/></macro>', '<text macro="a"/>'))).toBe(
      'the macro “a” calls itself',
    );
    expect(
      await told(
        style(
          '<macro name="a"><text macro="b"/></macro><macro name="b"><group><text macro="a"/></group></macro>',
          '<text macro="a"/>',
        ),
      ),
    ).toMatch(/calls itself/);
    const nested = Array.from(
      { length: 9 },
      (_, i) => `<macro name="m${i}"><group>${`<text macro="m${i + 1}"/>`.repeat(10)}</group></macro>`,
    ).join('');
    expect(
      await told(style(`${nested}<macro name="m9"><text variable="title"/></macro>`, '<text macro="m0"/>')),
    ).toMatch(/call each other so often/);
  });
});

describe('.docx', () => {
  const docx = (xml: string) => zipSync({ 'word/document.xml': strToU8(xml) });
  it('of sixty-four thousand unfinished runs is read in time that grows with it', () => {
    const cpu = (n: number) => {
      const bytes = docx('<w:p>' + '<w:t xml:space="preserve" '.repeat(n));
      const { user } = process.cpuUsage();
      textOfDocx(bytes);
      return (process.cpuUsage().user - user) / 1_000;
    };
    cpu(1_000);
    // The shortest of a few, since what the process does besides only adds.
    const shortest = (n: number) => Math.min(...Array.from({ length: 3 }, () => cpu(n)));
    expect(shortest(64_000)).toBeLessThan(40 * Math.max(shortest(6_400), 20));
  });

  it.each([
    ['a name that leads out', zipSync({ '../../etc/passwd': strToU8('x') })],
    ['no document', zipSync({ 'a.txt': strToU8('x') })],
    ['cut', docx('<w:p/>').subarray(0, 60)],
  ])('that is none is told: %s', (_what, bytes) => {
    expect(() => textOfDocx(bytes)).toThrow(/no \.docx/);
  });
});

describe('sound and names of files', () => {
  it('are told by their bytes, whatever they are called', () => {
    expect(sniffBytes(Buffer.from('OggS\0\x02'))).toBe('audio');
    expect(sniffBytes(Buffer.from('<script>alert(1)</script>'))).toBe('html');
    expect(sniffBytes(Buffer.from('ID3\x04'))).toBe('audio');
    expect(sniffBytes(new Uint8Array(0))).toBe('text');
  });
});

describe('all of it', () => {
  it('took no more than one and a half gigabytes of memory at any time', () => {
    console.log(`most memory of the reading processes: ${Math.round(most / 1024 / 1024)} MB`);
    expect(most).toBeGreaterThan(0);
    expect(most).toBeLessThan(MOST_MEMORY);
  });
});
