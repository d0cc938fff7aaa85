import { generate } from 'otplib';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { startApp, type TestApp } from './app';
import { openBrowser, type Visitor } from './browser';

let app: TestApp;
/** Another browser, of somebody else. */
let other: Visitor;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true, named: true });
  other = await openBrowser(app.url);
});
afterAll(async () => {
  await other.close();
  await app.close();
});

/** A device that holds passkeys, in place of a finger (WebAuthn level 2, section 11: virtual authenticators). */
async function withDevice(visitor: Visitor): Promise<void> {
  await visitor.tell('WebAuthn.enable', {});
  await visitor.tell('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
}

/** The link that was told once. */
async function toldLink(visitor: Visitor): Promise<string> {
  await visitor.see('It is not shown again.');
  const link = /\/invited\/[\w-]{43}/.exec(await visitor.text('main'))?.[0];
  if (!link) throw new Error('no link was told');
  return link;
}

const PHRASE = 'kelp lantern drifts nine harbours';

test('the first owner invites himself and comes in by a passkey; from then on everybody signs in', async () => {
  const { visitor } = app;
  await withDevice(visitor);
  await visitor.go('/setup/people');
  await visitor.see('Nobody needs to sign in yet.');
  await visitor.fill('Name', 'Ilsa Tarn');
  await visitor.press('Make the link');
  const link = await toldLink(visitor);
  expect(await visitor.axe()).toEqual([]);
  await visitor.go(link);
  await visitor.see('Ilsa Tarn, you are invited as an owner.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Make a passkey');
  await visitor.see('You are in. Keep these codes where your key is not.');
  await visitor.press('I have kept them');
  await visitor.see('Ilsa Tarn');
  await other.go('/ledger?q=a');
  await other.see('Who are you?');
  expect(await other.axe()).toEqual([]);
});

test('somebody is invited, takes a pass phrase with codes, and signs in by them where he wanted to go', async () => {
  const { visitor } = app;
  await visitor.go('/setup/people');
  await visitor.see('One person signs in.');
  await visitor.fill('Name', 'Odo Quill');
  await visitor.press('Make the link');
  await other.go(await toldLink(visitor));
  await other.see('Odo Quill, you are invited as a trader.');
  await other.press('Take a pass phrase with codes');
  await other.fill('Pass phrase', 'odo quill 1234');
  const secret = (/Secret: ([A-Z2-7 ]+)/.exec(await other.text('main'))?.[1] ?? '').replaceAll(' ', '');
  const used = await generate({ secret });
  await other.fill('Code that it shows now', used);
  await other.press('Sign in so from now on');
  await other.see('That is guessed soon.');
  await other.fill('Pass phrase', PHRASE);
  await other.press('Sign in so from now on');
  await other.see('You are in.');
  await other.press('I have kept them');
  await other.press('Odo Quill');
  await other.see('You are Odo Quill, a trader.');
  await other.press('Sign out');
  await other.see('Who are you?');
  await other.go('/prices');
  await other.fill('Name', 'odo quill');
  await other.fill('Pass phrase', PHRASE);
  // This code was used up by coming in.
  await other.fill('Code', used);
  await other.press('Sign in');
  await other.see('That does not fit together.');
  await other.fill('Code', await generate({ secret, epoch: Math.floor(Date.now() / 1000) + 30 }));
  await other.press('Sign in');
  await other.see('Prices');
  expect(new URL(await other.driver.getCurrentUrl()).pathname).toMatch(/^\/prices/);
});

test('a restore waits for a second person: the owner confirms it on Today, and it is done as the trader asked', async () => {
  const { visitor, ledger } = app;
  await other.go('/ledger/brinelantern.com');
  await other.press('Restore for $125.18…');
  await other.gone('Asking the registrars what it costs now…');
  await other.press('Restore one name for $125.18…');
  await other.see('A restore cannot be refunded.');
  await other.press('I certify that this is true. The registrar passes it on as my statement.');
  await other.press('Restore for $125.18');
  await other.see('this waits for a second person now');
  await other.go('/today');
  await other.see('It waits for somebody else to confirm it.');
  await visitor.go('/today');
  await visitor.see('Restore brinelantern.com');
  await visitor.see('asked for by Odo Quill');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Confirm: Restore brinelantern.com');
  await visitor.see('Restore brinelantern.com: done.');
  await visitor.gone('asked for by Odo Quill');
  const { rows } = await ledger.database.query<{ id: string }>(
    "select r.id from renewals r join renewal_items i on i.renewal_id = r.id where r.action = 'restore' and i.state = 'waiting'",
  );
  expect(await carryOutRun(ledger, rows[0]?.id ?? '')).toEqual({ settled: 1, left: 0 });
  await visitor.go('/ledger/brinelantern.com');
  await visitor.see('by Odo Quill');
  await visitor.go('/setup/people/audit');
  await visitor.see('second person: confirm');
  expect(await visitor.axe()).toEqual([]);
});

test('what a role does not allow is said where it is tried; a session that is withdrawn ends on its next step', async () => {
  const { visitor } = app;
  await other.go('/setup/programs');
  await other.fill('What it is for', 'Bookkeeping');
  await other.fill('Address', 'https://books.example.test/hook');
  await other.press('Tell it from now on');
  await other.see('A trader may not set up programs. Ask an owner.');
  await visitor.go('/setup/people');
  await visitor.see('Two people sign in.');
  await visitor.press('End the sessions of Odo Quill');
  await visitor.see('Odo Quill signs in again.');
  await other.press('Tell it from now on');
  await other.see('Who are you?');
});

test('the owner signs out and in again by passkey, and his sessions are told', async () => {
  const { visitor } = app;
  await visitor.press('Ilsa Tarn');
  await visitor.see('One passkey');
  await visitor.see('Ten recovery codes left');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Sign out');
  await visitor.see('Who are you?');
  await visitor.press('Sign in with a passkey');
  await visitor.see('Ilsa Tarn');
});
