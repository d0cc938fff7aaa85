import { X509Certificate } from 'node:crypto';
import type { Server } from 'node:http';
import { get as getTls } from 'node:https';
import type { AddressInfo } from 'node:net';
import { PracticeAuthority } from '@practice/acme/server';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { upsertSettings } from '@/database/settings';
import { Shop } from '@/shop/answer';
import { SecureContexts } from '@/shop/contexts';
import { secureOriginBy, shopServer, shopTlsServer } from '@/shop/serve';
import { sealAnew } from '@/usecases/secrets/keys';
import { keyFrom, type SealKey } from '@/usecases/secrets/seal';
import { certificates, renewCertificates } from '@/usecases/shop/certificates';
import { ask } from '../security/program';
import { USUAL_SHOP } from './buyers';
import { emptyLedger, TEST_KEY, type TestLedger } from './ledger';

let ledger: TestLedger;
let authority: PracticeAuthority;
let directory: string;
const servers: Server[] = [];
const listen = async (server: Server): Promise<number> => {
  servers.push(server);
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return (server.address() as AddressInfo).port;
};
beforeEach(async () => {
  ledger = await emptyLedger();
  const shopPort = await listen(shopServer(ledger, new Shop(ledger)));
  authority = new PracticeAuthority(
    () => shopPort,
    () => ledger.clock(),
  );
  directory = `http://127.0.0.1:${await listen(authority.server())}/directory`;
  await set({ url: 'https://offers.harbour.test' });
});
afterEach(async () => {
  for (const server of servers.splice(0)) {
    server.closeAllConnections();
    await new Promise((closed) => server.close(closed));
  }
  await ledger.close();
});

const set = (more: object) =>
  upsertSettings(ledger.database, {
    shop: { ...USUAL_SHOP, acme: { directory, mail: 'office@harbour.test' }, ...more },
  });
const held = async () =>
  (await ledger.database.query<{ host: string; chain: string }>('select host, chain from certificates')).rows;

/** What a host shows over TLS to whoever trusts the practice authority alone. */
async function askTls(port: number, servername: string): Promise<{ status: number; hsts: string | undefined }> {
  const ca = await authority.rootPem();
  return new Promise((resolve, reject) => {
    getTls(
      { host: '127.0.0.1', port, servername, ca, path: '/robots.txt', agent: false, headers: { host: servername } },
      (answer) => {
        answer.resume();
        resolve({ status: answer.statusCode ?? 0, hsts: answer.headers['strict-transport-security'] });
      },
    ).on('error', reject);
  });
}

/** Source: RFC 8555, by a server that checks nonces, signatures and challenges; RFC 8737 is not spoken. */
test('a certificate is asked for, shown to be ours, and served by the name of its host', async () => {
  expect(await renewCertificates(ledger)).toBe(1);
  const [row] = await held();
  const leaf = new X509Certificate(row?.chain ?? '');
  expect(leaf.checkHost('offers.harbour.test')).toBe('offers.harbour.test');
  expect(leaf.verify(new X509Certificate(await authority.rootPem()).publicKey)).toBe(true);
  const port = await listen(shopTlsServer(ledger, new Shop(ledger)) as unknown as Server);
  expect(await askTls(port, 'offers.harbour.test')).toEqual({ status: 200, hsts: 'max-age=31536000' });
  await expect(askTls(port, 'elsewhere.test')).rejects.toThrow();
  // Whoever asks without TLS is sent there, but for what is looked at without.
  const contexts = new SecureContexts(ledger);
  const plain = await listen(shopServer(ledger, new Shop(ledger), { secureOrigin: secureOriginBy(contexts, port) }));
  const sent = (path: string, host: string) => ask(plain, path, { headers: { host } });
  const moved = await sent('/t/x?y=1', 'offers.harbour.test:80');
  expect([moved.status, moved.headers.location]).toEqual([308, `https://offers.harbour.test:${port}/t/x?y=1`]);
  expect((await sent('/robots.txt', 'elsewhere.test')).status).toBe(200);
  expect((await sent('/robots.txt', 'evil.test/@')).status).toBe(200);
  expect((await sent('/.well-known/acme-challenge/x', 'offers.harbour.test')).status).toBe(404);
  expect((await sent('//evil.test/', 'offers.harbour.test')).headers.location).toBe(
    `https://offers.harbour.test:${port}//evil.test/`,
  );
  // What was shown for it is taken away again.
  expect((await ledger.database.query('select * from certificate_challenges')).rows).toEqual([]);
});

test('it is renewed a month before it ends, by the same account, and by one of several processes', async () => {
  expect(await renewCertificates(ledger)).toBe(1);
  expect(await renewCertificates(ledger)).toBe(0);
  const [first] = await held();
  ledger.setClock(addDays(ledger.clock(), 61));
  const came = await Promise.all([renewCertificates(ledger), renewCertificates(ledger)]);
  expect(came.reduce((a, b) => a + b)).toBe(1);
  const [second] = await held();
  expect(second?.chain).not.toBe(first?.chain);
  expect((await ledger.database.query('select * from certificate_accounts')).rows).toHaveLength(1);
});

test('what a server refuses is told, and not asked again before a day has passed', async () => {
  await set({ url: 'https://nowhere.invalid' });
  expect(await renewCertificates(ledger)).toBe(0);
  expect((await certificates(ledger)).problems).toMatchObject([
    { host: 'nowhere.invalid', problem: expect.stringContaining('No certificate is given for such a host.') },
  ]);
  const asked = authority.asked.length;
  await renewCertificates(ledger);
  expect(authority.asked).toHaveLength(asked);
  ledger.setClock(addDays(ledger.clock(), 2));
  await renewCertificates(ledger);
  expect(authority.asked.length).toBeGreaterThan(asked);
});

test('one whose host shows another answer is not given', async () => {
  const other = new PracticeAuthority(
    () => 1,
    () => ledger.clock(),
  );
  await set({
    url: 'https://offers.harbour.test',
    acme: { directory: `http://127.0.0.1:${await listen(other.server())}/directory`, mail: 'office@harbour.test' },
  });
  expect(await renewCertificates(ledger)).toBe(0);
  expect((await certificates(ledger)).problems[0]?.problem).toContain('does not show the answer');
});

test('after a change of the key its keys open with the new one, for the shop alone', async () => {
  await renewCertificates(ledger);
  const [old, next] = [keyFrom(TEST_KEY), keyFrom('another key')] as [SealKey, SealKey];
  expect(await sealAnew(ledger, old, next)).toMatchObject({ left: [] });
  const shop = { ...ledger, key: null, shopKey: next.forShop() };
  const port = await listen(shopTlsServer(shop, new Shop(shop)) as unknown as Server);
  expect((await askTls(port, 'offers.harbour.test')).status).toBe(200);
});
