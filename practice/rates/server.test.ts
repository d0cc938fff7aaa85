import type { AddressInfo } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import type { Day } from '@/core/time';
import { readRates } from '@/formats/rates/readRates';
import type { World } from '../world/types';
import { dailyRates, ratesServer } from './server';

const RULES = { into: 'USD', base: 'EUR', today: '2026-12-31' as Day };
const at = (text: string) => Date.parse(text);

test.each([
  ['2026-11-24T09:00:00Z', '2026-11-24', 'a Tuesday'],
  ['2026-11-27T23:59:59Z', '2026-11-27', 'a Friday'],
  ['2026-11-28T00:00:00Z', '2026-11-27', 'a Saturday'],
  ['2026-11-29T12:00:00Z', '2026-11-27', 'a Sunday'],
  ['2026-11-30T00:00:00Z', '2026-11-30', 'a Monday'],
])('at %s the rates are those of %s: %s', (now, day) => {
  const read = readRates(dailyRates(at(now)), RULES);
  if (isRefusal(read)) throw new Error(read.message);
  expect(new Set(read.map(({ from }) => from))).toEqual(new Set([day]));
  expect(read.map(({ currency, into }) => `${currency} ${into}`)).toEqual([
    'EUR USD',
    'EUR GBP',
    'EUR JPY',
    'EUR CHF',
    'EUR SEK',
  ]);
});

test('they sway by a few in a thousand, and are the same whenever they are asked for', () => {
  const dollars = (day: number) => {
    const read = readRates(dailyRates(at('2026-11-02T00:00:00Z') + day * 7 * 86_400_000), RULES);
    return isRefusal(read) ? Number.NaN : (read[0]?.factor ?? Number.NaN);
  };
  const weeks = Array.from({ length: 8 }, (_, week) => dollars(week));
  expect(new Set(weeks).size).toBeGreaterThan(4);
  for (const rate of weeks) expect(Math.abs(rate / 1.0865 - 1)).toBeLessThan(0.005);
  expect(dollars(3)).toBe(weeks[3]);
});

const closing: (() => void)[] = [];
afterEach(() => {
  for (const close of closing.splice(0)) close();
});

test('nothing but the daily rates is told, and only when it is asked for', async () => {
  const server = ratesServer({ now: at('2026-11-24T09:00:00Z') } as World);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  closing.push(() => server.close());
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const asked = await fetch(`${base}/daily.xml`);
  expect([asked.status, asked.headers.get('content-type')]).toEqual([200, 'application/xml']);
  expect(await asked.text()).toContain('<Cube time="2026-11-24">');
  expect((await fetch(`${base}/`)).status).toBe(404);
  expect((await fetch(`${base}/daily.xml`, { method: 'POST' })).status).toBe(404);
});
