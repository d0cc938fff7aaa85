import { createSocket } from 'node:dgram';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { type AddressInfo, createServer as createTcp, type Socket } from 'node:net';
import packet, { type DecodedPacket, type Packet } from 'dns-packet';
import { afterEach, describe, expect, test } from 'vitest';
import { askDns } from './dnsClient';
import { askRdapAt } from './rdapClient';
import { askWhois } from './whoisClient';

const closing: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0)) await close();
});

/** A web server for one test; answers its address. */
async function web(
  answer: (request: IncomingMessage, response: ServerResponse, base: string) => void,
): Promise<string> {
  let base = '';
  const server = createServer((request, response) => answer(request, response, base));
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  closing.push(async () => {
    server.closeAllConnections();
    await new Promise((closed) => server.close(closed));
  });
  return base;
}

async function tcp(answer: (socket: Socket, asked: string) => void): Promise<string> {
  const server = createTcp((socket) => {
    socket.on('error', () => socket.destroy());
    socket.on('data', (piece) => answer(socket, piece.toString()));
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  closing.push(() => new Promise((closed) => server.close(() => closed())));
  return `127.0.0.1:${(server.address() as AddressInfo).port}`;
}

const limits = { allowedHosts: ['127.0.0.1'], timeoutMs: 400, mostBytes: 2000 };
const domain = '{"objectClassName":"domain","ldhName":"one.example"}';

describe('asking an RDAP server', () => {
  test('an answer with its tag; the same tag again is unchanged', async () => {
    const base = await web((request, response) => {
      if (request.headers['if-none-match'] === '"one"') response.writeHead(304).end();
      else response.writeHead(200, { etag: '"one"' }).end(domain);
    });
    expect(await askRdapAt(base, limits)).toMatchObject({ kind: 'found', etag: '"one"', raw: domain });
    expect(await askRdapAt(base, limits, '"one"')).toEqual({ kind: 'unchanged' });
  });

  test('it asks for RDAP, and for nothing else', async () => {
    const asked: (string | undefined)[] = [];
    const base = await web((request, response) => {
      asked.push(request.headers.accept);
      response.writeHead(404).end();
    });
    expect(await askRdapAt(base, limits)).toEqual({ kind: 'not there' });
    expect(asked).toEqual(['application/rdap+json']);
  });

  test('redirects are followed, five at the most, and never to where nobody may ask', async () => {
    const base = await web((request, response, own) => {
      const hop = Number((request.url ?? '/0').slice(1));
      if (request.url === '/away') response.writeHead(302, { location: 'http://10.0.0.1/domain' }).end();
      else if (hop >= 3) response.writeHead(200).end(domain);
      else response.writeHead(301, { location: `${own}/${hop + 1}` }).end();
    });
    expect(await askRdapAt(`${base}/0`, limits)).toMatchObject({ kind: 'found' });
    expect(await askRdapAt(`${base}/away`, limits)).toMatchObject({
      kind: 'failed',
      cause: expect.stringContaining('public'),
    });
    const round = await web((_request, response, own) => response.writeHead(302, { location: own }).end());
    expect(await askRdapAt(round, limits)).toEqual({ kind: 'failed', cause: 'it was sent on too often' });
  });

  test.each([
    ['7', 7],
    ['999999', 86_400],
    ['soon', 60],
    [undefined, 60],
  ])('asked to wait, Retry-After %s: %i seconds (RFC 9110 section 10.2.3)', async (header, seconds) => {
    const base = await web((_request, response) =>
      response.writeHead(429, header ? { 'retry-after': header } : {}).end(),
    );
    expect(await askRdapAt(base, limits)).toEqual({ kind: 'later', seconds });
  });

  test('a date to wait for', async () => {
    const base = await web((_request, response) =>
      response.writeHead(503, { 'retry-after': new Date(Date.now() + 30_000).toUTCString() }).end(),
    );
    const answer = await askRdapAt(base, limits);
    expect(answer.kind === 'later' && answer.seconds).toBeGreaterThan(25);
  });

  test.each<[string, (response: ServerResponse) => void, string]>([
    ['too long', (response) => response.writeHead(200).end('x'.repeat(5000)), 'longer than 2000 bytes'],
    ['not JSON', (response) => response.writeHead(200).end('<html>'), 'not JSON'],
    ['an error', (response) => response.writeHead(500).end(), 'answered 500'],
    ['never', () => undefined, 'no answer in time'],
    [
      'broken off',
      (response) => {
        response.writeHead(200, { 'content-length': '500' });
        response.write('{');
        setTimeout(() => response.destroy(), 10);
      },
      '',
    ],
  ])('an answer that is %s is a failure with its cause', async (_what, act, cause) => {
    const base = await web((_request, response) => act(response));
    expect(await askRdapAt(base, limits)).toMatchObject({ kind: 'failed', cause: expect.stringContaining(cause) });
  });
});

describe('asking a WHOIS server', () => {
  test('one line goes out, ended as RFC 3912 has it, and all that comes back is the answer', async () => {
    const lines: string[] = [];
    const server = await tcp((socket, asked) => {
      lines.push(asked);
      socket.write('Domain: one.example\r\n');
      socket.end('Status: ok\r\n');
    });
    expect(await askWhois(server, 'one.example', limits)).toBe('Domain: one.example\r\nStatus: ok\r\n');
    expect(lines).toEqual(['one.example\r\n']);
  });

  test('too long, too late, or nobody there: an error that says so', async () => {
    const long = await tcp((socket) => socket.end('x'.repeat(300_000)));
    await expect(askWhois(long, 'one.example', limits)).rejects.toThrow('too long');
    const silent = await tcp(() => undefined);
    await expect(askWhois(silent, 'one.example', limits)).rejects.toThrow('in time');
    await expect(askWhois('127.0.0.1:1', 'one.example', limits)).rejects.toThrow();
  });
});

describe('asking a name server', () => {
  /** A name server for one test: what it answers to a question, over UDP and TCP. */
  async function names(answer: (question: DecodedPacket, reply: (message: Buffer) => void) => void) {
    const udp = createSocket('udp4');
    udp.on('message', (message, from) =>
      answer(packet.decode(message), (reply) => udp.send(reply, from.port, from.address)),
    );
    await new Promise<void>((ready) => udp.bind(0, '127.0.0.1', ready));
    closing.push(() => new Promise((closed) => udp.close(() => closed())));
    return { host: '127.0.0.1', port: udp.address().port, timeoutMs: 400 };
  }
  const reply = (question: DecodedPacket, more: Partial<DecodedPacket> = {}, rcode = 0) => {
    const message = packet.encode({
      type: 'response',
      id: question.id ?? 0,
      questions: question.questions ?? [],
      answers: [{ type: 'A', name: 'one.example', data: '192.0.2.1', ttl: 60 }],
      ...more,
    } as Packet);
    message.writeUInt8((message.readUInt8(3) & 0xf0) | rcode, 3);
    return message;
  };

  test('an answer, and nothing there (NXDOMAIN) is an answer too', async () => {
    const server = await names((question, send) =>
      send(reply(question, {}, question.questions?.[0]?.name === 'gone.example' ? 3 : 0)),
    );
    expect((await askDns(server, 'one.example', 'A')).answers).toHaveLength(1);
    expect((await askDns(server, 'gone.example', 'A')).id).toBeDefined();
  });

  test.each([
    ['SERVFAIL', 2],
    ['REFUSED', 5],
  ])('%s is not known, never nothing there (RFC 1035 section 4.1.1)', async (word, rcode) => {
    const server = await names((question, send) => send(reply(question, { answers: [] }, rcode)));
    await expect(askDns(server, 'one.example', 'A')).rejects.toThrow(word);
  });

  test.each<[string, (question: DecodedPacket) => Buffer]>([
    ['with another number', (question) => reply(question, { id: ((question.id ?? 0) + 1) % 65_536 })],
    ['to another name', (question) => reply(question, { questions: [{ type: 'A', name: 'evil.example' }] })],
    ['to another type', (question) => reply(question, { questions: [{ type: 'AAAA', name: 'one.example' }] })],
    ['to nothing', (question) => reply(question, { questions: [] })],
    ['that is a question', (question) => reply(question, { type: 'query' })],
    ['that is noise', () => Buffer.from('noise')],
  ])('an answer %s is not taken; the right one still is (RFC 5452 section 9)', async (_what, forged) => {
    const server = await names((question, send) => {
      send(forged(question));
      setTimeout(() => send(reply(question)), 50);
    });
    expect((await askDns(server, 'one.example', 'A')).answers).toHaveLength(1);
    const silent = await names((question, send) => send(forged(question)));
    await expect(askDns(silent, 'one.example', 'A')).rejects.toThrow('did not answer');
  });

  test('over TCP the deadline holds for the whole exchange, however slowly it trickles', async () => {
    const tcpServer = createTcp((socket) => {
      socket.on('error', () => undefined);
      const drip = setInterval(() => socket.write(Buffer.from([0x40])), 60);
      socket.on('close', () => clearInterval(drip));
    });
    await new Promise<void>((ready) => tcpServer.listen(0, '127.0.0.1', ready));
    closing.push(() => new Promise((closed) => tcpServer.close(() => closed())));
    const { port } = tcpServer.address() as AddressInfo;
    const udp = createSocket('udp4');
    udp.on('message', (message, from) => {
      const question = packet.decode(message);
      udp.send(reply(question, { flags: packet.TRUNCATED_RESPONSE }), from.port, from.address);
    });
    await new Promise<void>((ready) => udp.bind(port, '127.0.0.1', ready));
    closing.push(() => new Promise((closed) => udp.close(() => closed())));
    const since = Date.now();
    await expect(askDns({ host: '127.0.0.1', port, timeoutMs: 500 }, 'one.example', 'A')).rejects.toThrow();
    expect(Date.now() - since).toBeLessThan(2000);
  });
});

test.each(['http://[', 'http:///', 'ftp://elsewhere.example/'])(
  'sent on to %s, a question ends with its reason',
  async (location) => {
    const base = await web((_request, response) => response.writeHead(302, { location }).end());
    expect(await askRdapAt(base, limits)).toMatchObject({ kind: 'failed', cause: expect.stringMatching(/read|asked/) });
  },
);
