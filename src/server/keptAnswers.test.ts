import { once } from 'node:events';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { type AddressInfo, connect } from 'node:net';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { KeptAnswers } from './keptAnswers';

let close: () => Promise<void> = async () => undefined;
afterEach(() => close());

/** A server with kept answers before `make`, on a ledger whose state the test moves. */
async function serve(make: (request: IncomingMessage, response: ServerResponse) => void) {
  const state = { version: '1', isBehind: false, made: 0, asked: 0, closed: 0, ready: Promise.resolve() };
  const kept = new KeptAnswers(async () => {
    state.asked += 1;
    await state.ready;
    return { version: state.version, isBehind: state.isBehind };
  });
  const server = createServer((request, response) => {
    response.once('close', () => {
      state.closed += 1;
    });
    void kept.answer(request, response).then((done) => {
      if (done) return;
      state.made += 1;
      make(request, response);
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  close = async () => {
    server.closeAllConnections();
    await new Promise((closed) => server.close(closed));
  };
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const get = async (headers: Record<string, string> = {}, signal: AbortSignal | null = null) => {
    const answer = await fetch(`${base}/ledger/data`, { headers, signal });
    return {
      status: answer.status,
      text: await answer.text(),
      type: answer.headers.get('content-type'),
      etag: answer.headers.get('etag'),
      isBehind: answer.headers.has('ledger-behind'),
    };
  };
  return { state, get, port: (server.address() as AddressInfo).port };
}

const inPieces = (text: string) => (_request: IncomingMessage, response: ServerResponse) => {
  response.setHeader('content-type', 'application/json');
  response.write(text.slice(0, 3));
  response.end(text.slice(3));
};

describe('an answer that only the state of the ledger decides', () => {
  test('is made once for each state, and goes out as it was', async () => {
    const { state, get } = await serve(inPieces('{"a":1}'));
    for (let i = 0; i < 3; i += 1)
      expect(await get()).toEqual({
        status: 200,
        text: '{"a":1}',
        type: 'application/json',
        etag: '"1"',
        isBehind: false,
      });
    expect(state.made).toBe(1);
    state.version = '2';
    await get();
    expect(state.made).toBe(2);
  });

  test('who knows the state already is told so, and nothing is made (RFC 9110 sections 8.8.3 and 13.1.2)', async () => {
    const { state, get } = await serve(inPieces('{"a":1}'));
    expect(await get({ 'if-none-match': '"1"' })).toMatchObject({ status: 304, text: '', etag: '"1"' });
    expect(state.made).toBe(0);
    expect(await get({ 'if-none-match': '"0"' })).toMatchObject({ status: 200, etag: '"1"' });
    state.version = '2';
    expect(await get({ 'if-none-match': '"1"' })).toMatchObject({ status: 200, etag: '"2"' });
    expect(state.made).toBe(2);
  });

  test('whoever asked first and does not read it keeps nobody else waiting', async () => {
    const piece = Buffer.alloc(256 * 1024, 'n');
    const { state, get, port } = await serve(async (_request, response) => {
      for (let i = 0; i < 64; i += 1) if (!response.write(piece)) await once(response, 'drain');
      response.end();
    });
    const first = connect(port, '127.0.0.1');
    first.pause();
    first.write('GET /ledger/data HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n');
    await vi.waitFor(() => expect(state.made).toBe(1));
    expect((await get({}, AbortSignal.timeout(5000))).text).toHaveLength(64 * piece.length);
    expect(state.made).toBe(1);
    first.destroy();
  });

  test('that it is of an earlier state is told as long as it is, with what was kept and to who has it already', async () => {
    const { state, get } = await serve(inPieces('{"a":1}'));
    state.isBehind = true;
    for (let i = 0; i < 2; i += 1) expect(await get()).toMatchObject({ status: 200, isBehind: true });
    expect(await get({ 'if-none-match': '"1"' })).toMatchObject({ status: 304, isBehind: true });
    state.isBehind = false;
    expect(await get()).toMatchObject({ status: 200, isBehind: false });
    expect(state.made).toBe(1);
  });

  test('asked by many at once it is made once, even when the ledger moves on meanwhile', async () => {
    const release: (() => void)[] = [];
    const { state, get } = await serve((request, response) => {
      release.push(() => inPieces('{"a":1}')(request, response));
    });
    const many = Array.from({ length: 20 }, () => get());
    await expect.poll(() => release.length).toBe(1);
    await new Promise((soon) => setTimeout(soon, 20));
    state.version = '2';
    const later = get();
    // Of the new state another answer is made, once the one that is on its way is out.
    await new Promise((soon) => setTimeout(soon, 20));
    expect(release.length).toBe(1);
    release[0]?.();
    await expect.poll(() => release.length).toBe(2);
    release[1]?.();
    for (const one of [...(await Promise.all(many)), await later]) expect(one.text).toBe('{"a":1}');
    expect(state.made).toBe(2);
  });

  test('who has gone before the state was known holds up nobody: the next one is answered', async () => {
    // As a framework does: nothing is written to who has gone.
    const { state, get } = await serve((request, response) => {
      if (!response.closed) inPieces('{"a":1}')(request, response);
    });
    let go: () => void = () => undefined;
    state.ready = new Promise((open) => {
      go = open;
    });
    const leaving = new AbortController();
    const left = get({}, leaving.signal).catch((cause: Error) => cause.name);
    await expect.poll(() => state.asked).toBe(1);
    leaving.abort();
    expect(await left).toBe('AbortError');
    await expect.poll(() => state.closed).toBe(1);
    go();
    expect((await get({}, AbortSignal.timeout(3000))).text).toBe('{"a":1}');
    expect(state.made).toBe(1);
  });

  test('who has gone while he waited for the answer of another holds up nobody either', async () => {
    const release: (() => void)[] = [];
    const { state, get } = await serve((request, response) => {
      release.push(() => inPieces('{"a":1}')(request, response));
    });
    const leaving = new AbortController();
    const first = get({}, leaving.signal).catch(() => 'gone');
    await expect.poll(() => release.length).toBe(1);
    const second = get({}, leaving.signal).catch(() => 'gone');
    await expect.poll(() => state.asked).toBe(2);
    leaving.abort();
    expect(await Promise.all([first, second])).toEqual(['gone', 'gone']);
    const third = get({}, AbortSignal.timeout(3000));
    await expect.poll(() => release.length).toBe(2);
    release[1]?.();
    expect((await third).text).toBe('{"a":1}');
  });

  test('what is refused or breaks off is not kept: the next one asks for himself', async () => {
    let status = 500;
    const { state, get } = await serve((_request, response) => {
      if (status === 0) response.destroy();
      else response.writeHead(status).end('no');
    });
    expect((await get()).status).toBe(500);
    status = 0;
    await expect(get()).rejects.toThrow();
    status = 200;
    expect((await get()).text).toBe('no');
    expect(state.made).toBe(3);
  });

  test.each([
    ['GET', '/api/v1/names', true],
    // It has an ETag of its own, by which it is changed.
    ['GET', '/api/v1/names/copperbuoy.com', false],
    ['GET', '/ledger/data', true],
    ['POST', '/api/v1/names/import', false],
    ['PATCH', '/api/v1/names/copperbuoy.com', false],
    ['GET', '/api/v1/health', false],
    ['GET', '/api/v1/backup', false],
    ['GET', '/today', false],
  ])('%s %s: %s', (method, path, may) => expect(KeptAnswers.mayKeep(method, path)).toBe(may));
});
