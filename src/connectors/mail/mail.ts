import { connect as connectPlain, type Socket } from 'node:net';
import { connect as connectTls } from 'node:tls';
import { createTransport } from 'nodemailer';
import { mayAsk, publicLookup } from '../http/addresses';

/** A mail in both forms: plain text, and HTML that reads on a telephone. */
export interface Mail {
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  /** `null` for a plain mail. */
  readonly html: string | null;
}

/** Where mail is handed over. */
export interface MailServer {
  readonly host: string;
  readonly port: number;
  readonly user: string | null;
  readonly password: string | null;
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
}

/** The port on which SMTP is encrypted from its first octet (RFC 8314 section 3.3). */
const ENCRYPTED_PORT = 465;
const TIMEOUT_MS = 30_000;
/** More than this no mail server has to say. */
const MOST_BYTES = 200_000;

const isLoopback = (host: string) => host === 'localhost' || host === '::1' || host.startsWith('127.');

/**
 * Hands one mail to an SMTP server. With a login the connection is encrypted before the password goes over it, but on loopback
 * (RFC 8314 section 4.1). Throws when the server does not take the mail in time, or says more than any mail server.
 */
export async function sendMail(
  { host, port, user, password, allowedHosts }: MailServer,
  mail: Mail,
  timeoutMs = TIMEOUT_MS,
): Promise<void> {
  const { html, ...rest } = mail;
  if (!mayAsk(host, allowedHosts)) throw new Error(`${host} is not at a public address`);
  const secured = port === ENCRYPTED_PORT;
  const socket = await connected(host, port, secured, allowedHosts, timeoutMs);
  const transport = createTransport({
    host,
    port,
    secure: secured,
    connection: socket,
    secured,
    requireTLS: user !== null && !secured && !isLoopback(host),
    greetingTimeout: timeoutMs,
    socketTimeout: timeoutMs,
    ...(user ? { auth: { user, pass: password ?? '' } } : {}),
  } as Parameters<typeof createTransport>[0]);
  const bounded = setInterval(() => {
    if (socket.bytesRead > MOST_BYTES) socket.destroy(new Error('the mail server says too much'));
  }, 50);
  const late = setTimeout(() => socket.destroy(new Error('the mail server did not take it in time')), timeoutMs);
  try {
    await transport.sendMail({ ...rest, ...(html !== null && { html }) });
  } finally {
    clearInterval(bounded);
    clearTimeout(late);
    transport.close();
    socket.destroy();
  }
}

function connected(
  host: string,
  port: number,
  secured: boolean,
  allowedHosts: readonly string[],
  timeoutMs: number,
): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const lookup = publicLookup(allowedHosts) as never;
    const socket: Socket = secured
      ? connectTls({ host, port, lookup, servername: host })
      : connectPlain({ host, port, lookup });
    const timer = setTimeout(() => socket.destroy(new Error('the mail server does not answer')), timeoutMs);
    socket.once('error', reject);
    socket.once(secured ? 'secureConnect' : 'connect', () => {
      clearTimeout(timer);
      socket.off('error', reject);
      resolve(socket);
    });
    socket.once('close', () => clearTimeout(timer));
  });
}
