import { SMTPServer } from 'smtp-server';
import type { AddressInfo } from 'node:net';

/** A mail that was handed in, as far as it matters here. */
export interface SunkMail {
  to: string[];
  subject: string;
  text: string;
}

/** The words of a body in quoted-printable (RFC 2045, 6.7). */
const unquoted = (text: string): string =>
  Buffer.from(
    text
      .replace(/=\r\n/g, '')
      .replace(/=([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    'latin1',
  ).toString('utf8');

/** A message (RFC 5322) of one part of text, read. */
function read(message: string, to: string[]): SunkMail {
  const at = message.indexOf('\r\n\r\n');
  const head = message.slice(0, at).replace(/\r\n[ \t]+/g, ' ');
  const body = message.slice(at + 4);
  const field = (name: string) => new RegExp(`^${name}: (.*)$`, 'im').exec(head)?.[1]?.trim() ?? '';
  const coding = field('Content-Transfer-Encoding').toLowerCase();
  const text =
    coding === 'quoted-printable'
      ? unquoted(body)
      : coding === 'base64'
        ? Buffer.from(body, 'base64').toString('utf8')
        : body;
  return { to, subject: field('Subject'), text: text.replace(/\r\n/g, '\n') };
}

/** Most mails that are kept, the oldest go. */
const KEPT = 100;

/** A mail server on a loopback port that takes everything and sends nothing on. */
export async function startMailSink(
  port = 0,
): Promise<{ port: number; mails: SunkMail[]; stop(): Promise<void> }> {
  const mails: SunkMail[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, session, taken) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        mails.push(
          read(
            Buffer.concat(parts).toString('utf8'),
            session.envelope.rcptTo.map(({ address }) => address),
          ),
        );
        if (mails.length > KEPT) mails.shift();
        taken();
      });
    },
  });
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    port: (server.server.address() as AddressInfo).port,
    mails,
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
