import { createSocket, type Socket } from 'node:dgram';
import type { AddressInfo } from 'node:net';
import packet, { type Answer } from 'dns-packet';
import { afterEach, expect, test } from 'vitest';
import { lookAtOwnZone } from './dnsClient';

const NAME = 'kelpkiln.com';
let servers: Socket[] = [];
afterEach(() => {
  for (const one of servers) one.close();
  servers = [];
});

/** A name server on an address of this machine that answers from a list, and remembers nothing. Answers its port. */
function serve(address: string, answers: readonly Answer[], port = 0): Promise<number> {
  const socket = createSocket('udp4');
  servers.push(socket);
  socket.on('message', (message, from) => {
    const query = packet.decode(message);
    const [question] = query.questions ?? [];
    const own = answers.filter(({ name, type }) => name === question?.name && type === question?.type);
    socket.send(
      packet.encode({ type: 'response', id: query.id ?? 0, questions: question ? [question] : [], answers: own }),
      from.port,
      from.address,
    );
  });
  return new Promise((done) => socket.bind(port, address, () => done((socket.address() as AddressInfo).port)));
}

const record = (name: string, type: string, data: unknown) => ({ name, type, ttl: 60, class: 'IN', data }) as Answer;
const NS = record(NAME, 'NS', 'ns1.quaymark.test');
const A = (name: string, address: string) => record(name, 'A', address);
const seen = async (port: number, may: (address: string) => boolean = () => true, direct = port) => {
  const { records, from } = await lookAtOwnZone({ host: '127.0.0.1', port }, NAME, may, direct);
  return [from, ...records.map(({ name, type, data }) => `${name} ${type} ${data}`)];
};

test('a name’s own server is asked directly: what a resolver has kept may be old', async () => {
  const port = await serve('127.0.0.1', [NS, A('ns1.quaymark.test', '127.0.0.2'), A(NAME, '192.0.2.1')]);
  await serve('127.0.0.2', [NS, A(NAME, '192.0.2.9')], port);
  expect(await seen(port)).toEqual(['ns1.quaymark.test', '@ NS ns1.quaymark.test.', '@ A 192.0.2.9']);
});

test('signers are asked of the parent’s side, since its own servers do not have them', async () => {
  const ds = record(NAME, 'DS', { keyTag: 60485, algorithm: 5, digestType: 1, digest: Buffer.from('2BB183AF', 'hex') });
  const port = await serve('127.0.0.1', [NS, A('ns1.quaymark.test', '127.0.0.2'), ds]);
  await serve('127.0.0.2', [NS], port);
  expect((await seen(port)).at(-1)).toMatch(/^@ DS 60485 5 1 2BB183AF$/i);
});

test('an address that may not be asked, and a server that says nothing, are passed over', async () => {
  const port = await serve('127.0.0.1', [NS, A('ns1.quaymark.test', '127.0.0.2'), A(NAME, '192.0.2.1')]);
  expect((await seen(port, () => false))[0]).toBeNull();
  // Nothing listens there.
  expect(await seen(port)).toEqual([null, '@ NS ns1.quaymark.test.', '@ A 192.0.2.1']);
});
