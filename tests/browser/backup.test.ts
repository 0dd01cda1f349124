/** A backup is made, a library is brought back out of it beside what was done since, and over to another server. */
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { downloadedBytes, startApp, visit, type App, type Person } from './app';

let here: App;
let there: App;
let ada: Person;
let file: string;
beforeAll(async () => {
  here = await startApp();
  ada = await visit(here);
});
afterAll(async () => {
  await ada.leave();
  await here.stop();
  await there?.stop();
});

const openFile = async (person: Person, place: string) => {
  await person.open('/backup');
  const picker = await person.page.waitForSelector('input[aria-label="A backup to open"]');
  await (picker as unknown as { uploadFile(place: string): Promise<void> }).uploadFile(place);
};

describe('a backup', () => {
  it('is opened, and a library comes back out of it beside what is here', async () => {
    await ada.importPasted(
      '@book{pell2001, title={Sluices of the north}, author={Pell, Mara}, year={2001}}\n@book{orne1999, title={Eels}, author={Orne, Tad}, year={1999}}',
    );
    await ada.see('2 sources added');
    await ada.open('/backup');
    await ada.see('No backup yet');
    await ada.press('Make one now');
    await ada.see('Save as a file');
    const [name] = (await ada.page.$$eval('a[download]', (links) =>
      links.map((link) => link.getAttribute('download')),
    )) as [string];
    await ada.press('Save as a file');
    file = join(here.dataFolder, 'elsewhere.tar');
    await writeFile(file, await downloadedBytes(ada, name));

    await ada.press('Look inside');
    await ada.see(`In ${name}`);
    await ada.see('2 sources, 0 passages, 0 documents · You · is here; comes in beside it');
    await ada.press('Bring in My library');
    await ada.see('is in: 2 sources.');
    expect(here.rows('SELECT id FROM source')).toHaveLength(4);
    const day = new Date().toISOString().slice(0, 10);
    expect(here.rows<{ name: string }>('SELECT name FROM library ORDER BY created').at(-1)!.name).toBe(
      `My library (${day})`,
    );
    await ada.press('Close it');
    await ada.gone(`In ${name}`);
    // It is another library, with sources of its own.
    await ada.choose('Project', `My library (${day})`);
    await ada.see('What waits');
    await ada.open('/sources');
    await ada.see('Sluices of the north');
  });

  it('that is none, or is damaged, brings nothing and says so', async () => {
    const none = join(here.dataFolder, 'none.tar');
    await writeFile(none, 'no archive');
    await openFile(ada, none);
    await ada.see('Nothing came of it:');
    await ada.see('ends early or is none');
    expect(here.rows('SELECT id FROM library')).toHaveLength(2);
  });

  it('of another server is brought over as whose it was', async () => {
    there = await startApp();
    const other = await visit(there);
    await openFile(other, file);
    await other.see('In elsewhere.tar');
    await other.see('You are');
    await other.press('Bring in My library');
    await other.see('is in: 2 sources.');
    expect(there.rows('SELECT citekey FROM source ORDER BY citekey')).toEqual([
      { citekey: 'orne1999' },
      { citekey: 'pell2001' },
    ]);
    expect(there.rows('SELECT role FROM membership')).toEqual([{ role: 'owner' }, { role: 'owner' }]);
    await other.leave();
  });
});
