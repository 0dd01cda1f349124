/** Two people at one library: an account, an invitation, what is private and what is said to each other, a link to read. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let ada: Person;
let ben: Person;
let copy: string;

beforeAll(async () => {
  app = await startApp();
  ada = await visit(app);
  ben = await visit(app);
  await ada.open('/sources');
  await ada.capture('https://marshletters.example/articles/3-1-7');
  copy = (
    await until(
      'the page',
      async () => app.rows<{ id: string }>("SELECT id FROM copy WHERE kind = 'page'")[0],
    )
  ).id;
});
afterAll(async () => {
  await ada.leave();
  await ben.leave();
  await app.stop();
});

const link = (of: Person, inside = '.handed') =>
  of.page
    .waitForSelector(`${inside} input`)
    .then((field) => field!.evaluate((e) => (e as HTMLInputElement).value));
const pathOf = (address: string) => new URL(address).pathname;

/** Keeps words as a passage. */
async function keep(of: Person, words: string, gist: string, only = false) {
  await of.selectInPage(words);
  await of.type('Gist', gist);
  if (only) await of.page.click('.place .private input');
  await of.press('Keep passage', '.place');
  await of.see(gist, '.card');
}
/** The cards beside the document. */
const cards = (of: Person) => of.page.$$eval('.card', (all) => all.map((e) => (e as HTMLElement).innerText));

describe('two people', () => {
  it('alone needs no account; to invite, one makes one, with a pass phrase that is not the first to be tried', async () => {
    await ada.open('/members');
    await ada.see('You work here alone');
    await ada.type('What you are called', 'Ada Pell');
    await ada.type('Mail address', 'ada@harbour.example');
    await ada.type('Pass phrase, 12 characters or more', 'password1234');
    await ada.press('Make my account');
    await ada.see('among the first that somebody would try');
    await ada.type('Pass phrase, 12 characters or more', 'sluice marsh ledger eel');
    await ada.press('Make my account');
    await ada.see('Invite somebody');
    await ada.see('Ada Pell (you)');
    // Another browser is nobody now.
    await ben.page.goto(`${app.url}/sources?q=tide`);
    await ben.see('Sign in');
    expect(new URL(ben.page.url()).searchParams.get('to')).toBe('/sources?q=tide');
  });

  it('an invitation is taken once, with an account made on the way', async () => {
    await ada.type('Whom it is for', 'Ben Okoro');
    await ada.choose('As', 'Annotator');
    await ada.press('Make the link');
    const there = pathOf(await link(ada));
    await ben.open(there);
    await ben.see('Ada Pell invites you to My library');
    await ben.type('Mail address', 'ben@harbour.example');
    await ben.type('Pass phrase, 12 characters or more', 'toll rent gate saltpan');
    await ben.press('Make an account and join');
    await ben.see('Desk');
    // Ada sees him without looking again.
    await ada.see('Ben Okoro');
    await ben.page.goto(app.url + there);
    await ben.see('This invitation was used');
  });

  it('what one keeps for oneself stays so; what is for the library is there at once, and whose it is is said', async () => {
    await ada.open(`/copies/${copy}`);
    await ben.open(`/copies/${copy}`);
    await keep(ben, 'Salt', 'Only Ben thinks so', true);
    await keep(ben, 'marsh', 'Ben shares this');
    await ada.see('Ben shares this', '.card');
    await ada.see('Ben Okoro', '.card');
    await ada.see('new', '.card');
    expect((await cards(ada)).join()).not.toContain('Only Ben thinks so');
    await ada.open('/search?q=thinks');
    await ada.see('Nothing');
    // Shown to her by name, it is there, and says for whom it is.
    await ada.open(`/copies/${copy}`);
    await ben.press('Show in the text: Only Ben thinks so');
    await ben.press('Edit', '.card.chosen');
    await ben.press('Ada Pell', '.place .some');
    await ben.press('Save', '.place');
    await ada.see('Only Ben thinks so', '.card');
    await ada.see('only for me and Ben Okoro', '.card');
    await ben.see('only for me and Ada Pell', '.card');
    // Who else is at it is seen, until they go.
    await ada.see('Ben Okoro is here too', '.here');
    await ben.open('/sources');
    await ada.gone('is here too', '.here');
  });

  it('a reply finds whom it is for, and the answer comes back; then it is settled', async () => {
    await ada.open(`/copies/${copy}`);
    await ada.press('Show in the text: Ben shares this');
    await ada.press('Reply', '.card.chosen');
    await ada.type('Your reply', 'Which page is this?');
    // Called away: what was typed is there.
    await ada.open(`/copies/${copy}`);
    await ada.press('Show in the text: Ben shares this');
    await until('the words', () =>
      ada.page
        .$eval(
          'form[aria-label="Reply"] textarea',
          (e) => (e as HTMLTextAreaElement).value === 'Which page is this?',
        )
        .catch(() => false),
    );
    await ada.page.evaluate(() =>
      [...document.querySelectorAll('.thread label')]
        .find((e) => e.textContent!.includes('Ben'))!
        .querySelector('input')!
        .click(),
    );
    await ada.press('Reply', '.thread form');
    await ada.see('Which page is this?', '.thread ol');
    await ben.open('/');
    await ben.see('For you');
    await ben.press('Ada Pell,');
    await ben.see('Which page is this?', '.thread');
    await ben.press('Answer', '.card.chosen');
    await ben.type('Your reply', 'Page 4, in print.');
    await ben.page.keyboard.down('Control');
    await ben.page.keyboard.press('Enter');
    await ben.page.keyboard.up('Control');
    await ada.see('Page 4, in print.', '.thread ol');
    await ada.press('Mark as settled', '.card.chosen');
    await ben.see('Settled by Ada Pell', '.thread');
    await ben.open('/');
    await ben.gone('For you');
  });

  it('an annotator changes what is their own, and no record; whose passages are shown can be chosen', async () => {
    await keep(await (await ada.open(`/copies/${copy}`), ada), 'tide', 'Ada keeps this');
    await ben.open(`/copies/${copy}`);
    await ben.press('Show in the text: Ada keeps this');
    await ben.see('Ada keeps this', '.card.chosen');
    expect(await ben.page.$('.card.chosen .edit')).toBeNull();
    await ben.page.evaluate(() =>
      [...document.querySelectorAll('fieldset label')]
        .find((e) => e.textContent!.includes('Ada'))!
        .querySelector('input')!
        .click(),
    );
    await ben.gone('Ada keeps this', '.card');
    await ben.open(`/copies/${copy}`);
    await ben.see('Ben shares this', '.card');
    await ben.gone('Ada keeps this', '.card');
    await ben.page.evaluate(() => localStorage.removeItem('retexa-hidden-people'));
    const status = await ben.page.evaluate(async () => {
      const response = await fetch('/api/sources', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{"type":"book","title":"X"}',
      });
      return response.status;
    });
    expect(status).toBe(403);
  });

  it('a link to read is opened with no cookie, until it is withdrawn', async () => {
    await ada.open('/references');
    await ada.press('A link to read…');
    await ada.type('What it is called', 'For my supervisor');
    await ada.press('Make the link');
    const there = await link(ada);
    const response = await fetch(there);
    const text = await response.text();
    expect([response.status, text.includes('For my supervisor'), text.includes('only Ben')]).toEqual([
      200,
      true,
      false,
    ]);
    await ada.open('/members');
    await ada.see('For my supervisor');
    await ada.press('Withdraw the link to For my supervisor');
    await ada.see('opens nothing any more');
    expect((await fetch(there)).status).toBe(404);
  });

  it('what two write into one field at once is shown side by side; into two fields, both stay', async () => {
    const source = () =>
      app.rows<{ id: string; revision: number; record: string }>(
        'SELECT id, revision, record FROM source',
      )[0]!;
    const record = () => JSON.parse(source().record) as { volume?: string; issue?: string };
    const { id } = source();
    /** Somebody else saves a field, from what is there now. */
    const meanwhile = (fields: Record<string, string>) =>
      ada.page.evaluate(
        async (to, body) => {
          const response = await fetch(to, { method: 'PATCH', headers: { 'content-type': 'application/json' }, body });
          if (!response.ok) throw new Error(await response.text());
        },
        `/api/sources/${id}`,
        JSON.stringify({ base: source().revision, fields }),
      ); // prettier-ignore
    await ada.open(`/sources/${id}`);
    await ada.type('Volume', '77');
    await meanwhile({ volume: '99' });
    await ada.page.keyboard.press('Tab');
    await ada.see('Changed by somebody else meanwhile');
    await ada.see('There now 99', 'dialog');
    await ada.see('Yours 77', 'dialog');
    expect(record().volume).toBe('99');
    await ada.page.evaluate(() =>
      [...document.querySelectorAll('dialog label')].find((e) => e.textContent!.includes('Yours'))!.querySelector('input')!.click(),
    ); // prettier-ignore
    await ada.press('Let it stand so');
    await until('one’s own', async () => record().volume === '77');
    // The dialogue has left, and the page shows what was kept.
    await ada.page.waitForFunction(
      () =>
        !document.querySelector('dialog:modal') &&
        document.querySelector<HTMLInputElement>('#f-volume')?.value === '77',
    );
    await ada.see('Saved.');
    await ada.type('Volume', '78');
    await meanwhile({ issue: '5' });
    await ada.page.keyboard.press('Tab');
    await until('both', async () => record().volume === '78' && record().issue === '5');
    await ada.gone('Changed by somebody else meanwhile');
  });

  it('outline and draft are read by who may not write them, and say so', async () => {
    await ada.open('/outline');
    await ada.choose('Project', 'New project…');
    await ada.type('Name', 'Tide mills');
    await ada.press('Make the project');
    await ada.see('Sections are the headings');
    await ada.press('New section');
    await ada.page.waitForSelector('.lines textarea');
    await ada.page.keyboard.type('How a mill works');
    await ada.page.keyboard.press('Enter');
    await ada.see('How a mill works', '.lines');
    await ada.open('/draft');
    await ada.page.waitForSelector('.text [contenteditable="true"]:focus');
    await ada.page.keyboard.type('The gate was shut.');
    await until(
      'the text',
      async () => app.rows<{ content: string }>('SELECT content FROM draft_part').some(({ content }) => content.includes('was shut')),
    ); // prettier-ignore

    await ben.open('/outline');
    await ben.choose('Project', 'Tide mills');
    await ben.see('How a mill works', '.lines');
    await ben.gone('New section');
    await ben.gone('Write a sentence');
    await ben.page.focus('.lines [role="treeitem"]');
    await ben.page.keyboard.press('Delete');
    await ben.open('/draft');
    await ben.see('The gate was shut.');
    await ben.see('its editors write it');
    expect(await ben.page.$eval('.text [role="textbox"]', (e) => e.getAttribute('contenteditable'))).toBe('false'); // prettier-ignore
    expect(await ben.page.$('[role="toolbar"]')).toBeNull();
    // What Ada writes is there as she writes it.
    await ada.page.keyboard.type(' And the pond was full.');
    await ben.see('And the pond was full.');
    expect(app.rows('SELECT id FROM section WHERE binned IS NULL')).toHaveLength(1);
    for (const one of [ada, ben]) {
      await one.choose('Project', 'My library, everything');
      await one.see('A draft is of one project');
    }
  });

  it('who is taken out sees nothing of the library at once; signing out leads to the door, and back', async () => {
    await ben.open('/sources');
    await ben.see('Marsh Letters');
    await ada.open('/members');
    await ada.press('Take Ben Okoro out');
    await ada.press('Take them out');
    await ada.see('is not in My library any more');
    await ben.gone('Marsh Letters', 'main');
    await ada.press('Ada Pell: account and members');
    await ada.press('Sign out');
    await ada.see('Sign in');
    await ada.type('Mail address', 'ada@harbour.example');
    await ada.type('Pass phrase', 'wrong wrong wrong');
    await ada.press('Sign in');
    await ada.see('is not right');
    await ada.type('Pass phrase', 'sluice marsh ledger eel');
    await ada.press('Sign in');
    await ada.see('Desk');
    await ada.open('/sources');
    await ada.see('Marsh Letters');
  });

  it('sources are brought to another library with their documents and one’s own passages, and taken back', async () => {
    await ada.open('/members');
    await ada.type('Another library, for a group or a subject', 'Reading group');
    await ada.press('Make it');
    await ada.see('Reading group: one person');
    await ada.press('Open My library');
    await ada.see('Where you stopped reading');
    await ada.open('/sources');
    await ada.page.evaluate(() =>
      document.querySelector<HTMLInputElement>('.row input[type=checkbox]')!.click(),
    );
    await ada.press('More with the selected');
    await ada.press('To another library…');
    await ada.press('Bring 1 source over');
    await ada.see('1 source copied to Reading group, 1 document');
    await ada.choose('Project', 'Reading group');
    await ada.see('Where you stopped reading');
    await ada.open('/sources');
    await ada.see('Marsh Letters');
    const there = () =>
      app.rows<{ n: number }>(
        "SELECT count(*) AS n FROM source JOIN library ON library.id = source.library_id WHERE library.name = 'Reading group' AND binned IS NULL",
      )[0]!.n;
    expect(there()).toBe(1);
    expect(
      app.rows(
        "SELECT passage.id FROM passage JOIN library ON library.id = passage.library_id WHERE library.name = 'Reading group'",
      ),
    ).toHaveLength(1);
  });

  it('a library is deleted by its name, and an account closed by its pass phrase, with what becomes of it said first', async () => {
    await ada.open('/members');
    await ada.press('Delete this library…');
    await ada.see('Everything in it goes for good, for you');
    await ada.type('Type its name to delete it', 'reading group');
    await ada.press('Delete it for good');
    await ada.see('It is called “Reading group”');
    await ada.type('Type its name to delete it', 'Reading group');
    await ada.press('Delete it for good');
    await ada.gone('Reading group', 'main');
    await ada.see('My library: one person');
    expect(app.rows("SELECT id FROM library WHERE name = 'Reading group'")).toEqual([]);

    await ada.open('/account');
    await ada.press('Close my account…');
    await ada.see('You keep this server, and nobody else does');
    await ben.open('/account');
    await ben.press('Close my account…');
    await ben.see('My library goes for good');
    const phrase = 'form[aria-label="Close the account"] input';
    await ben.page.type(phrase, 'not the phrase');
    await ben.press('Close it for good');
    await ben.see('This is not your pass phrase.');
    await ben.page.type(phrase, 'toll rent gate saltpan');
    await ben.press('Close it for good');
    await ben.see('Sign in');
    expect(app.rows('SELECT mail FROM account')).toEqual([{ mail: 'ada@harbour.example' }]);
    // What he kept for the library stays under his name.
    await ada.open(`/copies/${copy}`);
    await ada.see('Ben shares this', '.card');
    await ada.see('Ben Okoro', '.card');
  });
});
