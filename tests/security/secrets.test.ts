import { afterEach, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { selectSealed } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import { linkOf, saveLink } from '@/usecases/links/links';
import { saveReminders } from '@/usecases/reminders/settings';
import { sealAnew, sealedWithOtherKey } from '@/usecases/secrets/keys';
import { keyFrom, type SealKey, sealedWith } from '@/usecases/secrets/seal';
import { backupText, restoreText } from '../database/backups';
import { emptyLedger, TEST_KEY, type TestLedger, usualAccount } from '../database/ledger';
import { startProgram } from './program';

const made: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of made.splice(0)) await close();
});

const LINK = { host: '127.0.0.1', port: 7000, login: 'harbour', password: 'first-password' };

async function linked(): Promise<{ ledger: TestLedger; accountId: number }> {
  const ledger = await emptyLedger();
  made.push(ledger.close);
  const accountId = await usualAccount(ledger, 'Quaymark');
  expect(await saveLink(ledger, { accountId, ...LINK })).toBe(true);
  return { ledger, accountId };
}

const withKey = (ledger: TestLedger, text: string) => ({ ...ledger, key: keyFrom(text) as SealKey, links: new Map() });

test('a kept password goes nowhere else: another host, port or login asks for it again', async () => {
  const { ledger, accountId } = await linked();
  const { password: _kept, ...same } = LINK;
  expect(await saveLink(ledger, { accountId, ...same })).toBe(true);
  for (const other of [{ host: 'evil.test' }, { port: 7001 }, { login: 'somebody' }])
    expect(await saveLink(ledger, { accountId, ...same, ...other })).toMatchObject({
      code: 'password-for-new-address',
      field: 'password',
    });
  expect(await saveLink(ledger, { accountId, ...LINK, port: 7001 })).toBe(true);

  const mail = {
    reminderDays: [7],
    to: 'office@harbour.test',
    host: 'mail.harbour.test',
    port: 587,
    user: 'office',
    password: 'mail-password',
    baseUrl: 'http://127.0.0.1:4180',
  };
  expect(await saveReminders(ledger, mail)).toBe(true);
  const { password: _other, ...again } = mail;
  expect(await saveReminders(ledger, again)).toBe(true);
  expect((await selectSettings(ledger.database)).mail?.sealedPassword).toBeTruthy();
  for (const other of [{ host: 'evil.test' }, { port: 25 }, { user: 'somebody' }])
    expect(await saveReminders(ledger, { ...again, ...other })).toMatchObject({ code: 'password-for-new-address' });
});

test('hosts that are not public are not linked, unless they are allowed', async () => {
  const ledger = await emptyLedger();
  made.push(ledger.close);
  const accountId = await usualAccount(ledger, 'Quaymark');
  for (const host of ['10.0.0.1', '169.254.169.254', '::1', '127.0.0.2'])
    expect(await saveLink(ledger, { accountId, ...LINK, host })).toMatchObject({
      code: 'host-not-public',
      field: 'host',
    });
});

test('under another key every link says so, and is mended by typing the login again', async () => {
  const { ledger, accountId } = await linked();
  const other = withKey(ledger, 'another key');
  expect(await sealedWithOtherKey(ledger)).toEqual([]);
  expect(await sealedWithOtherKey(other)).toEqual([{ kind: 'account', id: accountId, label: 'Quaymark' }]);
  expect(await sealedWithOtherKey({ ...ledger, key: null })).toHaveLength(1);
  expect(await linkOf(other, accountId)).toBeNull();
  const { password: _kept, ...same } = LINK;
  expect(await saveLink(other, { accountId, ...same })).toMatchObject({
    code: 'password-other-key',
    field: 'password',
  });
  expect(await saveLink(other, { accountId, ...LINK })).toBe(true);
  expect(await sealedWithOtherKey(other)).toEqual([]);
  expect(await linkOf(other, accountId)).not.toBeNull();
});

test('a key is changed by sealing everything anew, in one go and as often as wished', async () => {
  const { ledger, accountId } = await linked();
  const [before, after] = [keyFrom(TEST_KEY) as SealKey, keyFrom('the next key') as SealKey];
  expect(await sealAnew(ledger, before, after)).toEqual({ resealed: 1, left: [] });
  expect(await sealAnew(ledger, before, after)).toEqual({ resealed: 0, left: [] });
  expect((await selectSealed(ledger.database)).map(({ sealed }) => sealedWith(sealed))).toEqual([await after.id()]);
  expect(await linkOf(withKey(ledger, 'the next key'), accountId)).not.toBeNull();
  expect(await sealAnew(ledger, before, keyFrom('a third') as SealKey)).toMatchObject({
    resealed: 0,
    left: [{ label: 'Quaymark' }],
  });
});

test('what is sealed is bound to its row: moved to another account it opens nothing', async () => {
  const { ledger, accountId } = await linked();
  const second = await usualAccount(ledger, 'Fernhithe');
  await ledger.database.query(
    `update accounts b set link_host = a.link_host, link_port = a.link_port, link_login = a.link_login, link_secret = a.link_secret
     from accounts a where a.id = $1 and b.id = $2`,
    [accountId, second],
  );
  expect(await linkOf(ledger, second)).toBeNull();
});

test('a backup holds no password in the open, no link of a mail, and says under another key what it lacks', async () => {
  const { ledger } = await linked();
  const text = await backupText(ledger);
  expect(text).not.toContain(LINK.password);
  expect(text).not.toMatch(/"(token|auth_code|auth_code_sealed)":/);
  const other = await emptyLedger();
  made.push(other.close);
  expect(isRefusal(await restoreText(other, text))).toBe(false);
  expect(await sealedWithOtherKey(withKey(other, 'a key elsewhere'))).toHaveLength(1);
});

test('the started program says it on Today and on the account', async () => {
  const program = await startProgram(false, { NAME_LEDGER_KEY: 'the key of another installation' });
  made.push(program.close);
  const accountId = await usualAccount(program.ledger, 'Quaymark');
  expect(await saveLink(program.ledger, { accountId, ...LINK })).toBe(true);
  for (const page of ['/today', `/setup/accounts/${accountId}`]) {
    const { text } = await program.ask(page);
    expect([page, /another key|is not the one that sealed|otherKey\\?":\[\{/.test(text)]).toEqual([page, true]);
    expect(text).not.toContain(LINK.password);
  }
}, 60_000);
