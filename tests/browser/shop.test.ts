import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { seedDemo } from '@practice/scenario/seed';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Shop } from '@/shop/answer';
import { saveListings } from '@/usecases/selling/listings';
import { emptyLedger, type TestLedger, TODAY } from '../database/ledger';
import { LISTING, must } from '../database/marketplace';
import { openBrowser, type Visitor } from './browser';

let ledger: TestLedger;
let server: Server;
let visitor: Visitor;
beforeAll(async () => {
  ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  const ids = await ledger.database.query<{ id: number; ascii: string }>(
    "select id, ascii from names where ascii in ('moorgauge.io', 'kelpkiln.com')",
  );
  const id = (name: string) => ids.rows.find(({ ascii }) => ascii === name)?.id;
  must(
    await saveListings(ledger, {
      send: true,
      listings: [
        {
          ...LISTING,
          nameId: id('moorgauge.io'),
          prices: { minimum: 40_000, asking: 120_000, buyNow: 120_000 },
          pitch: 'For whatever measures the wind over wet ground.',
          description: 'Registered since 2019.\nNever used for mail.',
        },
        { ...LISTING, nameId: id('kelpkiln.com'), kind: 'auction', prices: { start: 10_000, reserve: 30_000 } },
      ],
    }),
  );
  const shop = new Shop(ledger);
  server = createServer((request, response) => {
    void shop
      .answer({
        method: request.method ?? 'GET',
        url: request.url ?? '/',
        host: request.headers.host ?? '',
        acceptLanguage: request.headers['accept-language'],
      })
      .then(({ status, headers, body }) => response.writeHead(status, { ...headers }).end(body));
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  visitor = await openBrowser(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
}, 60_000);
afterAll(async () => {
  await visitor.close();
  await new Promise((closed) => server.close(closed));
  await ledger.close();
});

const wide = (width: number, height: number) =>
  visitor.tell('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: width < 500 });
const chart = (value: 'light' | 'dark') =>
  visitor.tell('Emulation.setEmulatedMedia', { features: [{ name: 'prefers-color-scheme', value }] });

test.each([
  [1280, 'light'],
  [1280, 'dark'],
  [390, 'light'],
  [390, 'dark'],
] as const)(
  'at %i px, %s: what is asked is in sight, nothing moves sideways, and axe finds nothing',
  async (width, scheme) => {
    await wide(width, 800);
    await chart(scheme);
    for (const [path, said] of [
      ['/n/moorgauge.io', 'Its price is US$1,200.'],
      ['/n/kelpkiln.com', 'An auction runs until'],
    ] as const) {
      await visitor.go(path);
      const element = await visitor.see(said);
      const { y } = await element.getRect();
      expect(y).toBeLessThan(560);
      expect(await visitor.driver.executeScript('return document.documentElement.scrollWidth <= innerWidth')).toBe(
        true,
      );
      expect(await visitor.axe()).toEqual([]);
    }
    expect(await visitor.consoleErrors()).toEqual([]);
  },
);

test('in the buyer’s language, with nothing fetched and no cookie', async () => {
  await visitor.tell('Network.enable', {});
  await visitor.tell('Network.setExtraHTTPHeaders', { headers: { 'Accept-Language': 'de' } });
  await visitor.go('/n/moorgauge.io');
  await visitor.see('Der Preis ist');
  expect(
    await visitor.driver.executeScript('return [performance.getEntriesByType("resource").length, document.cookie]'),
  ).toEqual([0, '']);
});
