import type { AddressInfo, Server } from 'node:net';
import { type BoxedMail, MAILBOX_LOGIN, mailboxServer } from '@practice/mail/mailbox';
import { createTransport } from 'nodemailer';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { readMailbox, saveMailbox, saveReceiving } from '@/usecases/mails/mailbox';
import { mails } from '@/usecases/mails/mails';
import { keepReceiving } from '@/usecases/mails/receive';
import { sealedWithOtherKey } from '@/usecases/secrets/keys';
import { officeSettings } from '@/usecases/settings';
import { freePort } from '../../bin/support/postgres';
import { emptyLedger, type TestLedger } from './ledger';
import { must } from './marketplace';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
});
afterEach(() => ledger.close());

const boxed = (uid: number, subject: string): BoxedMail => ({
  uid,
  at: new Date('2026-11-20T00:00:00Z'),
  raw: `From: service@quaymark.test\r\nMessage-ID: <${uid}@quaymark.test>\r\nSubject: ${subject}\r\n\r\n${subject}\r\n`,
});

describe('a mailbox', () => {
  let server: Server;
  let box: BoxedMail[];
  let address: { host: string; port: number; user: string; password: string };
  beforeEach(async () => {
    box = [boxed(1, 'one'), boxed(2, 'two')];
    server = mailboxServer(box);
    await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
    address = { host: '127.0.0.1', port: (server.address() as AddressInfo).port, ...MAILBOX_LOGIN };
  });
  afterEach(() => new Promise<void>((closed) => void server.close(() => closed())));
  const subjects = async () => (await mails(ledger, { limit: 50 })).map(({ subject }) => subject).reverse();

  test('is read once, then from where it stood; nothing comes twice', async () => {
    must(await saveMailbox(ledger, address));
    expect(await readMailbox(ledger)).toBe(2);
    expect(await readMailbox(ledger)).toBe(0);
    box.push(boxed(5, 'three'));
    expect(await readMailbox(ledger)).toBe(1);
    expect(await subjects()).toEqual(['one', 'two', 'three']);
    expect((await officeSettings(ledger)).mailbox).toMatchObject({ place: { lastUid: 5 }, problem: null });
  });

  test('two read at once: each mail is taken in once', async () => {
    must(await saveMailbox(ledger, address));
    const answers = await Promise.all([readMailbox(ledger), readMailbox(ledger), readMailbox(ledger)]);
    expect(answers.filter((one) => one === 2)).toHaveLength(1);
    expect(await subjects()).toEqual(['one', 'two']);
  });

  test('what cannot be read is passed over; what went wrong is said', async () => {
    box.splice(1, 0, { uid: 2, at: new Date('2026-11-20T00:00:00Z'), raw: 'no mail' });
    box.splice(2, 1, boxed(3, 'two'));
    must(await saveMailbox(ledger, address));
    expect(await readMailbox(ledger)).toBe(2);
    must(await saveMailbox(ledger, { ...address, password: 'another' }));
    expect(await readMailbox(ledger)).toMatchObject({
      code: 'mailbox-failed',
      message: 'The mailbox did not take this user and password.',
    });
    expect((await officeSettings(ledger)).mailbox?.problem).toContain('did not take');
  });

  test('its password is sealed, and goes nowhere that it was not given for', async () => {
    must(await saveMailbox(ledger, address));
    const { rows } = await ledger.database.query("select value::text from settings where key = 'mailbox'");
    expect(rows[0]?.value).not.toContain(MAILBOX_LOGIN.password);
    const { password: _, ...without } = address;
    must(await saveMailbox(ledger, { ...without, folder: 'INBOX' }));
    expect(await readMailbox(ledger)).toBe(2);
    expect(await saveMailbox(ledger, { ...without, port: address.port + 1 })).toMatchObject({
      code: 'password-missing',
    });
    expect(await saveMailbox(ledger, { ...address, host: '10.0.0.9' })).toMatchObject({ code: 'host-not-public' });
    expect(await sealedWithOtherKey(ledger)).toEqual([]);
  });
});

describe('an address of the office’s own', () => {
  let stop: () => Promise<void>;
  let port: number;
  beforeEach(async () => {
    port = await freePort();
    must(await saveReceiving(ledger, { address: 'Registrars@harbour.example', port }));
    stop = keepReceiving(ledger);
  });
  afterEach(() => stop());
  const send = (to: string, text = 'x') =>
    expect.poll(
      () =>
        createTransport({ host: '127.0.0.1', port, secure: false })
          .sendMail({ from: 'service@quaymark.test', to, subject: 'Told', text })
          .then(
            () => 'taken',
            (error: { responseCode?: number; message: string }) => error.responseCode ?? 'not there',
          ),
      { timeout: 5000 },
    );

  test('mails to it are taken in; to others they are refused', async () => {
    await send('registrars@harbour.example').toBe('taken');
    expect(await mails(ledger, { limit: 5 })).toMatchObject([{ subject: 'Told', source: 'received' }]);
    await send('somebody@elsewhere.example').toBe(550);
    expect(await mails(ledger, { limit: 5 })).toHaveLength(1);
  });

  test('one that is too large is refused, and says why', async () => {
    await send('registrars@harbour.example', 'y'.repeat(3 * 1024 * 1024)).toBe(552);
  });
});
