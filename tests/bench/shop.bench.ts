import { Worker } from 'node:worker_threads';
import { seedDemo } from '@practice/scenario/seed';
import autocannon from 'autocannon';
import { afterAll, expect, test } from 'vitest';
import { saveListings } from '@/usecases/selling/listings';
import { emptyLedger, TODAY } from '../database/ledger';
import { LISTING, must } from '../database/marketplace';
import { type ShopProcess, startShop } from '../security/shopProcess';

const report: string[] = [];
afterAll(() => console.log(`\n${report.join('\n')}\n`));

/** Asks one address over so many connections for some seconds. Answers requests a second, and how long the slowest hundredth took. */
async function load(url: string, headers: Record<string, string> = {}): Promise<{ perSecond: number; p99: number }> {
  const done = await autocannon({ url, headers, connections: 50, duration: 6, workers: 1 });
  expect(done.non2xx).toBe(0);
  return { perSecond: Math.round(done.requests.average), p99: done.latency.p99 };
}

/** The same page from a bare server in a thread of its own: the floor. */
async function bareServer(body: string): Promise<{ url: string; stop(): Promise<number> }> {
  const source = `
    const { createServer } = require('node:http'); const { parentPort, workerData } = require('node:worker_threads');
    const server = createServer((_, response) => { response.writeHead(200, { 'content-type': 'text/html', 'content-length': Buffer.byteLength(workerData) }); response.end(workerData); });
    server.listen(0, '127.0.0.1', () => parentPort.postMessage(server.address().port));`;
  const worker = new Worker(source, { eval: true, workerData: body });
  const port = await new Promise<number>((ready) => worker.once('message', ready));
  return { url: `http://127.0.0.1:${port}/`, stop: () => worker.terminate() };
}

test('the shop window under load, beside a bare server that sends the same page', async () => {
  const ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  const { rows } = await ledger.database.query<{ id: number; ascii: string }>(
    'select id, ascii from names where gone_at is null order by id limit 300',
  );
  must(await saveListings(ledger, { send: true, listings: rows.map(({ id }) => ({ ...LISTING, nameId: id })) }));
  let shop: ShopProcess | null = null;
  try {
    shop = await startShop(ledger);
    const host = rows[0]?.ascii ?? '';
    const url = `http://127.0.0.1:${shop.port}/`;
    const answer = await fetch(`http://127.0.0.1:${shop.port}/n/${host}`);
    const body = await answer.text();
    const bare = await bareServer(body);
    const floor = await load(bare.url);
    await bare.stop();
    const one = await load(url, { host });
    const nobody = await load(`${url}robots.txt`, { host });
    // Every name in turn: each is made anew every two seconds, from the database.
    const many = await autocannon({
      url,
      connections: 50,
      duration: 6,
      workers: 1,
      requests: rows.map(({ ascii }) => ({ method: 'GET' as const, path: `/n/${ascii}` })),
    });
    expect(many.non2xx).toBe(0);
    report.push(
      `shop window, ${body.length.toLocaleString('en')} bytes: one name ${one.perSecond}/s (p99 ${one.p99} ms), ${rows.length} names in turn ${Math.round(many.requests.average)}/s (p99 ${many.latency.p99} ms), robots.txt ${nobody.perSecond}/s; a bare server ${floor.perSecond}/s (p99 ${floor.p99} ms): ${(one.perSecond / floor.perSecond).toFixed(2)} of it`,
    );
    expect(one.perSecond).toBeGreaterThan(1000);
    expect(many.requests.average).toBeGreaterThan(1000);
  } finally {
    await shop?.stop();
    await ledger.close();
  }
}, 120_000);
