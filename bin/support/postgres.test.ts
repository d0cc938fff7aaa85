import { createServer } from 'node:net';
import { expect, test } from 'vitest';
import { freePort, portTaken } from './postgres';

test('a free port is one that no outgoing connection is given before somebody listens on it (RFC 6335 section 6; Linux from 32768)', async () => {
  const ports = await Promise.all(Array.from({ length: 50 }, freePort));
  expect(ports.filter((port) => port < 12_000 || port >= 32_768)).toEqual([]);
});

test('a port is taken while somebody listens on it', async () => {
  const port = await freePort();
  const server = createServer();
  await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
  expect(await portTaken(port)).toBe(true);
  await new Promise((done) => server.close(done));
  expect(await portTaken(port)).toBe(false);
});
