import { isIP } from 'node:net';
import { ImapFlow } from 'imapflow';
import { mayAsk, publicLookup } from '../http/addresses';

/** Where mails are fetched from. */
export interface MailboxAddress {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly folder: string;
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
}

/** The last mail that was taken: its number holds as long as the mailbox's own validity (RFC 9051 section 2.3.1.1). */
export interface MailboxPlace {
  readonly validity: string;
  readonly lastUid: number;
}

/** What was fetched, in the order of the mailbox, and where to go on. */
export interface FetchedMails {
  readonly mails: readonly { readonly uid: number; readonly raw: Uint8Array }[];
  readonly validity: string;
}

/** The port on which IMAP is encrypted from its first octet (RFC 8314 section 3.2). */
const ENCRYPTED_PORT = 993;
const TIMEOUT_MS = 30_000;
const MOST_MAILS = 200;
const LARGEST_MAIL = 2 * 1024 * 1024;
const isLoopback = (host: string) => host === 'localhost' || host === '::1' || host.startsWith('127.');

/** The address of a host that may be asked; looked up here, so that the name cannot lead elsewhere afterwards. */
function addressOf(host: string, allowedHosts: readonly string[]): Promise<string> {
  if (!mayAsk(host, allowedHosts)) return Promise.reject(new Error(`${host} is not at a public address`));
  if (isIP(host)) return Promise.resolve(host);
  return new Promise((found, failed) =>
    publicLookup(allowedHosts)(host, {}, (error, address) =>
      error ? failed(error) : found(typeof address === 'string' ? address : (address[0]?.address ?? host)),
    ),
  );
}

/**
 * Fetches what has come to a mailbox since a place, at most two hundred mails; from the last thirty days without one. Nothing there is
 * changed: the folder is opened to be read alone. The password goes over an encrypted connection only, but on loopback. Throws with a
 * cause that can be shown.
 */
export async function fetchMails(
  { host, port, user, password, folder, allowedHosts }: MailboxAddress,
  place: MailboxPlace | null,
  since: Date,
): Promise<FetchedMails> {
  const client = new ImapFlow({
    host: await addressOf(host, allowedHosts),
    servername: host,
    port,
    secure: port === ENCRYPTED_PORT,
    ...(isLoopback(host) ? {} : { doSTARTTLS: port !== ENCRYPTED_PORT }),
    auth: { user, pass: password },
    logger: false,
    disableAutoIdle: true,
    connectionTimeout: TIMEOUT_MS,
    greetingTimeout: TIMEOUT_MS,
    socketTimeout: TIMEOUT_MS,
  });
  let broken: Error | null = null;
  client.on('error', (error: Error) => {
    broken = error;
  });
  const late = setTimeout(() => client.close(), 4 * TIMEOUT_MS);
  try {
    await client.connect();
    const opened = await client.mailboxOpen(folder, { readOnly: true });
    const validity = String(opened.uidValidity);
    const from = place?.validity === validity ? place.lastUid + 1 : null;
    const found = await client.search(from === null ? { since } : { uid: `${from}:*` }, { uid: true });
    // “n:*” names the last mail even where its number is lower.
    const uids = (found || [])
      .filter((uid) => from === null || uid >= from)
      .sort((a, b) => a - b)
      .slice(0, MOST_MAILS);
    const mails: { uid: number; raw: Uint8Array }[] = [];
    if (uids.length > 0)
      for await (const { uid, source } of client.fetch(
        uids,
        { uid: true, source: { maxLength: LARGEST_MAIL } },
        { uid: true },
      ))
        if (source) mails.push({ uid, raw: source });
    if (broken) throw broken;
    return { mails: mails.sort((a, b) => a.uid - b.uid), validity };
  } finally {
    clearTimeout(late);
    await client.logout().catch(() => client.close());
  }
}
