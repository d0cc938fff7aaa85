import { SMTPServer } from 'smtp-server';

/** A mail as it came in. */
export interface PracticeMail {
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

const MOST_MAILS = 50;
const LARGEST = 1024 * 1024;

/** An SMTP server on loopback that takes every mail and delivers none: they can be read under Setup, Practice. */
export function mailServer(mails: PracticeMail[], now: () => number): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: LARGEST,
    logger: false,
    onData(stream, session, done) {
      const pieces: Buffer[] = [];
      stream.on('data', (piece: Buffer) => pieces.push(piece));
      stream.on('end', () => {
        const raw = Buffer.concat(pieces).toString('utf8');
        mails.unshift({
          at: new Date(now()).toISOString(),
          to: session.envelope.rcptTo.map(({ address }) => address).join(', '),
          ...readMail(raw),
        });
        mails.length = Math.min(mails.length, MOST_MAILS);
        done();
      });
    },
  });
}

/** Subject and plain text of a mail (RFC 5322, RFC 2045), as far as the practice world shows them. */
function readMail(raw: string): { subject: string; text: string } {
  const [head = '', ...rest] = raw.split(/\r\n\r\n/);
  const unfolded = head.replace(/\r\n[ \t]+/g, ' ');
  const subject = decodeWords(/^subject: (.*)$/im.exec(unfolded)?.[1] ?? '');
  const boundary = /boundary="?([^";\r\n]+)"?/i.exec(unfolded)?.[1];
  const body = rest.join('\r\n\r\n');
  const part = boundary ? (body.split(`--${boundary}`).find((piece) => /text\/plain/i.test(piece)) ?? '') : body;
  const [partHead = '', ...partBody] = boundary ? part.split(/\r\n\r\n/) : ['', body];
  return { subject, text: decodeBody(partBody.join('\n\n'), boundary ? partHead : unfolded).trim() };
}

function decodeBody(body: string, head: string): string {
  if (/base64/i.test(head)) return Buffer.from(body, 'base64').toString('utf8');
  if (/quoted-printable/i.test(head)) return decodeQuoted(body.replace(/=\r?\n/g, ''));
  return body;
}

function decodeQuoted(text: string): string {
  const octets = text.replace(/=([0-9A-F]{2})/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)));
  return Buffer.from(octets, 'latin1').toString('utf8');
}

/** RFC 2047 encoded words of a header. */
function decodeWords(text: string): string {
  return text
    .replace(/\?=\s+=\?/g, '?==?')
    .replace(/=\?utf-8\?([bq])\?([^?]*)\?=/gi, (_, kind: string, coded: string) =>
      kind.toLowerCase() === 'b'
        ? Buffer.from(coded, 'base64').toString('utf8')
        : decodeQuoted(coded.replaceAll('_', ' ')),
    );
}
