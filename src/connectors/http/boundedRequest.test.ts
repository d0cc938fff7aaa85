import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, test } from 'vitest';
import { httpMarketplace } from '../marketplace/httpMarketplace';
import { boundedRequest } from './boundedRequest';

const closing: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0)) await close();
});

async function web(answer: (response: ServerResponse) => void): Promise<string> {
  const server = createServer((_request, response) => answer(response));
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  closing.push(async () => {
    server.closeAllConnections();
    await new Promise((closed) => server.close(closed));
  });
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

const limits = { allowedHosts: ['127.0.0.1'], timeoutMs: 500, mostBytes: 10_000 };
/** Sends without end, as fast as it is read or drop by drop. */
const endless = (everyMs: number) => (response: ServerResponse) => {
  response.writeHead(200);
  const drip = setInterval(() => response.write(everyMs > 20 ? ' ' : 'x'.repeat(5000)), everyMs);
  response.on('close', () => clearInterval(drip));
};

describe('a question over HTTP', () => {
  test('an answer comes whole, and redirects are told, not followed', async () => {
    // However long a machine takes that does much else: deadlines are looked at below.
    const patient = { ...limits, timeoutMs: 20_000 };
    const there = await web((response) => response.writeHead(200, { 'x-one': '1' }).end('{"a":1}'));
    expect(await boundedRequest(there, {}, patient)).toMatchObject({ status: 200, body: '{"a":1}' });
    const away = await web((response) => response.writeHead(302, { location: there }).end());
    expect(await boundedRequest(away, {}, patient)).toMatchObject({ status: 302, headers: { location: there } });
  });

  test('an answer that is too long is cut off while it is read', async () => {
    await expect(boundedRequest(await web(endless(1)), {}, limits)).rejects.toThrow('longer than 10000 bytes');
  });

  test('the deadline holds for the whole answer, however steadily it drips', async () => {
    const since = Date.now();
    await expect(boundedRequest(await web(endless(50)), {}, limits)).rejects.toThrow('no answer in time');
    expect(Date.now() - since).toBeLessThan(2000);
  });

  test.each([
    ['http://[', 'cannot be read'],
    ['file:///etc/passwd', 'is not asked'],
    ['http://169.254.169.254/latest', 'not at a public address'],
    ['http://[::ffff:10.0.0.1]/', 'not at a public address'],
    ['http://localhost:1/', 'not at a public address'],
  ])('%s is not asked', async (address, why) => {
    await expect(boundedRequest(address, {}, limits)).rejects.toThrow(why);
  });
});

test('a marketplace whose answer does not end is one that did not answer: its key goes nowhere else', async () => {
  const marketplace = (url: string) => httpMarketplace({ url, key: 'k', allowedHosts: ['127.0.0.1'] });
  expect(await marketplace(await web(endless(1))).events(0)).toMatchObject({
    kind: 'unknown',
    cause: expect.stringContaining('longer than'),
  });
  const away = await web((response) => response.writeHead(307, { location: 'http://127.0.0.1:1/' }).end());
  expect(await marketplace(away).test()).toEqual({
    kind: 'unknown',
    cause: 'the marketplace sends on to another address',
  });
});
