import { existsSync } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser } from 'puppeteer-core';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** Starts the machine's Chromium, headless, with a profile of its own and a microphone that only pretends. */
export async function launch(...more: string[]): Promise<Browser> {
  const executablePath = process.env.CHROMIUM ?? PLACES.find(existsSync);
  if (!executablePath) throw new Error('No Chromium found; install Debian’s chromium or set CHROMIUM.');
  return puppeteer.launch({
    executablePath,
    headless: true,
    userDataDir: await mkdtemp(join(tmpdir(), 'retexa-chromium-')),
    defaultViewport: { width: 1280, height: 800 },
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      ...more,
    ],
  });
}
