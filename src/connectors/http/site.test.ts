import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { lookAtSite } from './site';

let server: Server | null = null;
afterEach(() => {
  server?.closeAllConnections();
  server?.close();
});
const serve = async (status: number, headers: Record<string, string> = {}) => {
  const asked: (string | undefined)[] = [];
  server = createServer((request, answer) => {
    asked.push(request.headers.host);
    answer.writeHead(status, headers).end('a page');
  });
  await new Promise<void>((done) => server?.listen(0, '127.0.0.1', done));
  return { port: (server.address() as AddressInfo).port, asked };
};
const allowed = { allowedHosts: ['127.0.0.1'] };

test('a site is asked at its address, by its own name', async () => {
  const { port, asked } = await serve(200);
  expect(await lookAtSite('127.0.0.1', 'kelpkiln.com', allowed, port)).toBe('200');
  expect(asked).toEqual(['kelpkiln.com']);
});

test('where it sends on to is told, not followed', async () => {
  const { port } = await serve(301, { location: 'https://www.kelpkiln.com/' });
  expect(await lookAtSite('127.0.0.1', 'kelpkiln.com', allowed, port)).toBe('301, on to https://www.kelpkiln.com/');
});

test('none that answers, and an address that is not public', async () => {
  const { port } = await serve(200);
  server?.close();
  server?.closeAllConnections();
  expect(await lookAtSite('127.0.0.1', 'kelpkiln.com', allowed, port)).toBe('no answer');
  expect(await lookAtSite('127.0.0.1', 'kelpkiln.com', { allowedHosts: [] }, port)).toBeNull();
  expect(await lookAtSite('192.0.2.7', 'kelpkiln.com', { allowedHosts: [] }, port)).toBeNull();
});
