import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { DAY_MS, type Instant } from '@/core/time';
import { selectRevision } from '@/database/ledger';
import { upsertSettings } from '@/database/settings';
import { savePrice } from '@/usecases/accounts/prices';
import { importRates, previewRates, rates, ratesSource, readDailyRates, saveRatesSource } from '@/usecases/rates/rates';
import { ratesServer } from '../../practice/rates/server';
import type { World } from '../../practice/world/types';
import { emptyLedger, type TestLedger, TODAY, usualAccount } from './ledger';

let ledger: TestLedger;
const closing: Server[] = [];
beforeEach(async () => {
  ledger = await emptyLedger();
  const accountId = await usualAccount(ledger, 'Quaymark');
  const price = { accountId, ending: 'uk', action: 'renew', currency: 'GBP', yearMinor: 790, from: '2026-01-01' };
  expect(await savePrice(ledger, price)).toBe(true);
});
afterEach(async () => {
  for (const server of closing.splice(0)) server.closeAllConnections();
  await ledger.close();
});

async function at(server: Server): Promise<string> {
  closing.push(server);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  server.unref();
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}
const allowThisMachine = () =>
  upsertSettings(ledger.database, { records: { bootstrap: null, whois: {}, dns: null, allowedHosts: ['127.0.0.1'] } });
const told = async () =>
  (await rates(ledger)).map(({ from, currency, into, factor }) => `${from} ${currency} ${factor} ${into}`);

describe('a file of rates', () => {
  const text = 'Date,USD,GBP,JPY\n2026-11-20,1.0865,0.8342,161.25\n2026-11-19,1.0851,0.8339,161.02';
  test('is seen first; only currencies in use are kept, with the bank’s own between them', async () => {
    expect(await previewRates(ledger, { text, base: 'EUR' })).toEqual({
      count: 4,
      firstDay: '2026-11-19',
      lastDay: '2026-11-20',
      newest: [
        { from: '2026-11-20', currency: 'EUR', into: 'USD', factor: 1.0865 },
        { from: '2026-11-20', currency: 'EUR', into: 'GBP', factor: 0.8342 },
      ],
      leftOut: 1,
    });
    expect(await told()).toEqual([]);
    expect(await importRates(ledger, { text, base: 'EUR' })).toBe(4);
    expect(await told()).toHaveLength(4);
  });

  test('brought again changes nothing, so no window reads again; a corrected rate does', async () => {
    await importRates(ledger, { text, base: 'EUR' });
    const before = await selectRevision(ledger.database);
    expect(await importRates(ledger, { text, base: 'EUR' })).toBe(4);
    expect(await selectRevision(ledger.database)).toEqual(before);
    await importRates(ledger, { text: text.replace('1.0865', '1.0866'), base: 'EUR' });
    expect((await told())[0]).toBe('2026-11-20 EUR 0.8342 GBP');
    expect(await told()).toContain('2026-11-20 EUR 1.0866 USD');
    expect(await selectRevision(ledger.database)).not.toEqual(before);
  });

  test('the bank’s own currency is the one that stands in every rate, whatever was said for a table', async () => {
    const xml =
      "<Envelope><Cube><Cube time='2026-11-20'><Cube currency='USD' rate='1.0865'/><Cube currency='GBP' rate='0.8342'/></Cube></Cube></Envelope>";
    expect(await importRates(ledger, { text: xml, base: 'CHF' })).toBe(2);
    expect(await told()).toEqual(['2026-11-20 EUR 0.8342 GBP', '2026-11-20 EUR 1.0865 USD']);
  });

  test('nothing at all asks for it at its field', async () => {
    expect(await previewRates(ledger, { text: '', base: 'EUR' })).toMatchObject({
      message: 'Paste the rates here, or choose a file.',
      field: 'text',
    });
    expect(await previewRates(ledger, { text, base: 'euro' })).toMatchObject({ field: 'base' });
  });

  test.each([
    ['nothing here is priced so', 'day,currency,into,rate\n2026-11-20,SEK,NOK,1', 'no-rates-in-use'],
    ['no rates', 'name,expires\nkelpkiln.com,2027-01-01', 'rates-headings'],
    ['a wrong base', text, 'currency-unknown'],
  ])('is refused at its field: %s', async (what, bad, code) => {
    const base = what === 'a wrong base' ? 'EUX' : 'EUR';
    expect(await importRates(ledger, { text: bad, base })).toMatchObject({ code, field: 'text' });
    expect(await told()).toEqual([]);
  });
});

describe('rates that are read daily', () => {
  test('from the practice bank: at once when the address is set, then once a day', async () => {
    await allowThisMachine();
    let asked = 0;
    const bank = ratesServer({
      get now() {
        asked += 1;
        return ledger.clock();
      },
    } as unknown as World);
    const url = `${await at(bank)}/daily.xml`;
    expect(await saveRatesSource(ledger, { url, base: 'EUR' })).toBe(2);
    expect((await told()).map((text) => text.slice(0, 14))).toEqual(['2026-11-24 EUR', '2026-11-24 EUR']);
    await readDailyRates(ledger);
    expect(asked).toBe(1);
    ledger.setClock((TODAY + DAY_MS) as Instant);
    await readDailyRates(ledger);
    await readDailyRates(ledger);
    expect(asked).toBe(2);
    expect(await told()).toHaveLength(4);
  });

  test('an address that fails is not kept; one that begins to fail says so, keeps what is known, and is asked again', async () => {
    await allowThisMachine();
    let status = 404;
    const server = createServer((_, answer) =>
      answer.writeHead(status).end('day,currency,rate\n2026-11-24,GBP,1.3024'),
    );
    const url = await at(server);
    expect(await saveRatesSource(ledger, { url, base: 'EUR' })).toMatchObject({
      message: 'The address answered with 404 in place of rates. Check it.',
      field: 'url',
    });
    expect(await ratesSource(ledger)).toBeNull();
    status = 200;
    expect(await saveRatesSource(ledger, { url, base: 'EUR' })).toBe(1);
    status = 500;
    ledger.setClock((TODAY + DAY_MS) as Instant);
    await expect(readDailyRates(ledger)).rejects.toThrow('answered with 500');
    expect(await ratesSource(ledger)).toMatchObject({ problem: expect.stringContaining('500'), readAt: TODAY });
    expect(await told()).toHaveLength(1);
    status = 200;
    await readDailyRates(ledger);
    expect(await ratesSource(ledger)).toMatchObject({ problem: null, readAt: TODAY + DAY_MS });
    expect(await saveRatesSource(ledger, { url: '', base: 'EUR' })).toBe(0);
    expect(await ratesSource(ledger)).toBeNull();
  });

  test('an address that is set or taken away while the old one is read stays as it was set', async () => {
    await allowThisMachine();
    let meanwhile = async () => {};
    const server = createServer((_, answer) => {
      void meanwhile().then(() => answer.writeHead(200).end('day,currency,rate\n2026-11-24,GBP,1.3024'));
    });
    const url = await at(server);
    expect(await saveRatesSource(ledger, { url, base: 'EUR' })).toBe(1);
    ledger.setClock((TODAY + DAY_MS) as Instant);
    const other = { url: 'https://bank.example/daily.xml', base: 'EUR', readAt: null, problem: null };
    for (const set of [other, null]) {
      await upsertSettings(ledger.database, { rates: { ...other, url } });
      meanwhile = () => upsertSettings(ledger.database, { rates: set });
      await readDailyRates(ledger);
      expect(await ratesSource(ledger)).toEqual(set);
    }
  });

  test('only over TLS or inside this machine, and never at an address inside a network of its own', async () => {
    for (const url of ['http://bank.example/daily.xml', 'file:///etc/passwd', 'daily.xml'])
      expect(await saveRatesSource(ledger, { url, base: 'EUR' })).toMatchObject({
        code: 'address-unread',
        field: 'url',
      });
    for (const url of [
      'https://10.0.0.8/daily.xml',
      'https://169.254.169.254/daily.xml',
      'https://[fd00::1]/daily.xml',
    ])
      expect(await saveRatesSource(ledger, { url, base: 'EUR' })).toMatchObject({
        message: expect.stringContaining('is not at a public address'),
      });
  });
});
