/** Ways to come in besides a pass phrase: a passkey of the device, a way back by mail, an invitation that is sent. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HTTPRequest } from 'puppeteer-core';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let ada: Person;
/** A passkey belongs to a name: this machine is called localhost. */
const named = () => app.url.replace('127.0.0.1', 'localhost');
const go = async (path: string) => {
  await ada.page.goto(named() + path, { waitUntil: 'load' });
  await ada.page.waitForSelector('html[data-ready="true"]');
};
const PHRASE = 'sluice marsh ledger eel';

beforeAll(async () => {
  app = await startApp();
  ada = await visit(app);
  await go('/members');
  await ada.type('What you are called', 'Ada Pell');
  await ada.type('Mail address', 'ada@harbour.example');
  await ada.type('Pass phrase, 12 characters or more', PHRASE);
  await ada.press('Make my account');
  await ada.see('Invite somebody');
});
afterAll(async () => {
  await ada.leave();
  await app.stop();
});

async function signOut() {
  await ada.press('Ada Pell: account and members');
  await ada.press('Sign out');
  await ada.see('Sign in');
}

describe('tokens for programs', () => {
  it('are made for something, shown once, and taken back', async () => {
    await go('/account');
    await ada.press('Make a token');
    await ada.see('Say what it is for.', 'form[aria-label="New token"]');
    await ada.type('What it is for', 'The companion');
    await ada.press('Make a token');
    await ada.see('The token The companion, shown this once.');
    await ada.press('Take back the token The companion');
    await ada.see('The token The companion opens nothing any more.');
    await ada.gone('The companion,', 'section[aria-labelledby="tokens"] ul');
  });
});

describe('coming in', () => {
  it('by a passkey that was added before, until it is taken off', async () => {
    const device = await ada.page.createCDPSession();
    await device.send('WebAuthn.enable');
    await device.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
        automaticPresenceSimulation: true,
      },
    });
    await go('/account');
    await ada.type('What the device is called', 'My laptop');
    const inForm = 'form[aria-label="New passkey"] input[autocomplete="current-password"]';
    await ada.page.type(inForm, 'not the phrase');
    await ada.press('Add a passkey');
    await ada.see('This is not your pass phrase.');
    await ada.page.$eval(inForm, (field) => (field as HTMLInputElement).select());
    await ada.page.type(inForm, PHRASE);
    await ada.press('Add a passkey');
    await ada.see('From now on this passkey lets you in.');
    await ada.see('My laptop');
    await signOut();
    await go('/sign-in?to=/leads');
    await ada.press('Sign in with a passkey');
    await ada.see('No leads');
    expect(app.rows('SELECT counter FROM passkey WHERE used IS NOT NULL')).toHaveLength(1);
    await go('/account');
    await ada.press('Take off My laptop');
    await ada.see('My laptop lets nobody in any more.');
    await signOut();
    await go('/sign-in');
    await ada.see('Pass phrase');
    await ada.gone('Sign in with a passkey');
  });

  it('by a way back that is sent by mail', async () => {
    await go('/sign-in');
    await ada.press('Have a way back in sent to you');
    await ada.type('Mail address of your account', 'nobody@harbour.example');
    await ada.press('Send me a way back in');
    await ada.see('If there is an account with nobody@harbour.example');
    await go('/forgotten');
    await ada.type('Mail address of your account', 'ada@harbour.example');
    await ada.press('Send me a way back in');
    await ada.see('If there is an account with ada@harbour.example');
    const mail = await until('the mail', async () => app.standIns.mails.at(-1));
    expect(app.standIns.mails.map(({ to }) => to)).toEqual([['ada@harbour.example']]);
    const address = /http:\S+\/way-back\/[\w-]{43}/.exec(mail.text)![0];
    // On a slow line the page is filled in and sent before it is live: it waits, and is sent then.
    const [page, held] = [ada.page, [] as HTTPRequest[]];
    const hold = (request: HTTPRequest) =>
      void (request.resourceType() === 'script' ? held.push(request) : request.continue());
    await page.setBypassServiceWorker(true);
    await page.setRequestInterception(true);
    page.on('request', hold);
    await page.goto(address, { waitUntil: 'domcontentloaded' });
    await ada.type('Pass phrase, 12 characters or more', 'gates of the tidal pond');
    await ada.press('Keep it and sign in');
    expect(held).not.toEqual([]);
    expect(page.url()).toBe(address);
    page.off('request', hold);
    page.on('request', (request) => void request.continue());
    await Promise.all(held.map((request) => request.continue()));
    await ada.see('Desk');
    page.removeAllListeners('request');
    await page.setRequestInterception(false);
    await page.setBypassServiceWorker(false);
    await ada.page.goto(address, { waitUntil: 'load' });
    await ada.see('was used');
  });

  it('by an invitation that is sent', async () => {
    // Where the mail led.
    await ada.open('/members');
    await ada.type('Whom it is for', 'Ben Okoro');
    await ada.type('Their mail address, where the link is sent; or none', 'ben@harbour.example');
    await ada.press('Make the link and send it');
    await ada.see('It was sent to ben@harbour.example.');
    const mail = await until('the mail', async () =>
      app.standIns.mails.find(({ to }) => to.includes('ben@harbour.example')),
    );
    expect(mail.subject).toBe('Ada Pell invites you to My library');
    const there = /http:\S+\/invited\/[\w-]{43}/.exec(mail.text)![0];
    const ben = await visit(app);
    try {
      await ben.page.goto(there, { waitUntil: 'load' });
      await ben.see('Ada Pell invites you to My library');
    } finally {
      await ben.leave();
    }
  });
});
