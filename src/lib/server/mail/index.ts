import { config } from '../config';
import { log } from '../log';

/** A mail in plain words. */
export interface Mail {
  to: string;
  subject: string;
  text: string;
}

/** Whether mail can be sent: a server to hand it in at is set. */
export const mailThere = (): boolean => config.smtp !== undefined;

/** How long handing in may take, in milliseconds. */
const HANDING_IN_MS = 30_000;

/** Sends a mail; gives whether it was taken. Where none can be sent, or it is not taken, that is logged, without what it says. */
export async function sendMail({ to, subject, text }: Mail): Promise<boolean> {
  const url = config.smtp;
  if (!url) return false;
  const { createTransport } = await import('nodemailer');
  const transport = createTransport({
    url,
    connectionTimeout: HANDING_IN_MS,
    greetingTimeout: HANDING_IN_MS,
    socketTimeout: HANDING_IN_MS,
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    await transport.sendMail({ from: config.mailFrom, to: { address: to, name: '' }, subject, text });
    return true;
  } catch (error) {
    log.warn({ err: error }, 'a mail was not taken');
    return false;
  } finally {
    transport.close();
  }
}
