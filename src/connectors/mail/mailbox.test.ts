import type { AddressInfo, Server } from 'node:net';
import { createServer } from 'node:net';
import { type BoxedMail, MAILBOX_LOGIN, mailboxServer } from '@practice/mail/mailbox';
import { afterEach, describe, expect, test } from 'vitest';
import { fetchMails, type MailboxAddress } from './mailbox';

const servers: Server[] = [];
afterEach(async () => {
  for (const server of servers.splice(0)) await new Promise((closed) => server.close(closed));
});
const MAILS: BoxedMail[] = [3, 4, 9].map((uid) => ({
  uid,
  at: new Date(Date.UTC(2026, 10, uid + 10)),
  raw: `From: a@quaymark.test\r\nSubject: mail ${uid}\r\n\r\nfür ${uid}\r\n`,
}));
const SINCE = new Date('2026-11-01T00:00:00Z');

async function serve(server: Server, more: Partial<MailboxAddress> = {}): Promise<MailboxAddress> {
  servers.push(server);
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const { port } = server.address() as AddressInfo;
  return { host: '127.0.0.1', port, ...MAILBOX_LOGIN, folder: 'INBOX', allowedHosts: ['127.0.0.1'], ...more };
}

describe('a mailbox that is read by IMAP', () => {
  test('all of it, then only what has come since', async () => {
    const box = [...MAILS];
    const address = await serve(mailboxServer(box, 7));
    const first = await fetchMails(address, null, SINCE);
    expect(first.validity).toBe('7');
    expect(first.mails.map(({ uid }) => uid)).toEqual([3, 4, 9]);
    expect(Buffer.from(first.mails[0]?.raw ?? []).toString('utf8')).toContain('Subject: mail 3\r\n\r\nfür 3');
    const place = { validity: '7', lastUid: 9 };
    expect((await fetchMails(address, place, SINCE)).mails).toEqual([]);
    box.push({ uid: 12, at: new Date(), raw: 'Subject: new\r\n\r\nx' });
    expect((await fetchMails(address, place, SINCE)).mails.map(({ uid }) => uid)).toEqual([12]);
  });

  test('a mailbox that was made anew is read from its begin', async () => {
    const address = await serve(mailboxServer(MAILS, 8));
    const { mails } = await fetchMails(address, { validity: '7', lastUid: 9 }, SINCE);
    expect(mails).toHaveLength(3);
  });

  test('without a place only what is not older than asked for', async () => {
    const address = await serve(mailboxServer(MAILS));
    const { mails } = await fetchMails(address, null, new Date('2026-11-14T00:00:00Z'));
    expect(mails.map(({ uid }) => uid)).toEqual([4, 9]);
  });

  test('a wrong password, a folder that is not there, a host that is not public', async () => {
    const address = await serve(mailboxServer(MAILS));
    await expect(fetchMails({ ...address, password: 'x' }, null, SINCE)).rejects.toThrow();
    await expect(fetchMails({ ...address, folder: 'Elsewhere' }, null, SINCE)).rejects.toThrow();
    await expect(fetchMails({ ...address, allowedHosts: [] }, null, SINCE)).rejects.toThrow('not at a public address');
  });

  test('off loopback no password is said before the connection is encrypted (RFC 8314 section 3.2)', async () => {
    let heard = '';
    const plain = createServer((socket) => {
      socket.on('error', () => undefined);
      socket.write('* OK [CAPABILITY IMAP4rev1 AUTH=PLAIN SASL-IR] ready\r\n');
      socket.on('data', (piece) => {
        heard += piece.toString();
        for (const line of piece.toString().split('\r\n').filter(Boolean))
          socket.write(`${line.split(' ')[0]} BAD no\r\n`);
      });
    });
    servers.push(plain);
    await new Promise<void>((ready) => plain.listen(0, '0.0.0.0', ready));
    const { port } = plain.address() as AddressInfo;
    const address = { host: '0.0.0.0', port, ...MAILBOX_LOGIN, folder: 'INBOX', allowedHosts: ['0.0.0.0'] };
    await expect(fetchMails(address, null, SINCE)).rejects.toThrow();
    expect(heard).not.toMatch(/AUTHENTICATE|LOGIN/);
  });
});
