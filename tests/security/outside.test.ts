import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { freePort } from '../../bin/support/postgres';
import { letIn, timed } from '../database/people';
import { ask, type Program, startProgram } from './program';

const HOST = 'names.example.test';
let folder: string;
let port: number;
let program: Program;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'name-ledger-tls-'));
  // A certificate that signs itself, for this one run.
  execFileSync('openssl', [
    ...['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1', '-nodes', '-days', '2'],
    ...['-keyout', join(folder, 'key.pem'), '-out', join(folder, 'cert.pem'), '-subj', `/CN=${HOST}`],
  ]);
  port = await freePort();
  program = await startProgram(true, {
    NAME_LEDGER_LISTEN: '127.0.0.1',
    NAME_LEDGER_LISTEN_PORT: String(port),
    NAME_LEDGER_ORIGIN: `https://${HOST}:${port}`,
    NAME_LEDGER_CERTIFICATE: join(folder, 'cert.pem'),
    NAME_LEDGER_CERTIFICATE_KEY: join(folder, 'key.pem'),
  });
}, 60_000);
afterAll(async () => {
  await program.close();
  rmSync(folder, { recursive: true });
});

interface Answered {
  readonly status: number;
  readonly headers: Record<string, unknown>;
  readonly text: string;
}

/** Asks over TLS, under a name. */
function askTls(path: string, headers: Record<string, string>, more: { method?: string; body?: string } = {}) {
  return new Promise<Answered>((resolve, reject) => {
    const sent = request(
      { host: '127.0.0.1', port, path, method: more.method ?? 'GET', headers, rejectUnauthorized: false },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8').on('data', (piece: string) => {
          text += piece;
        });
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, text }));
      },
    );
    sent.on('error', reject);
    sent.end(more.body);
  });
}

const named = (): Record<string, string> => ({ host: `${HOST}:${port}` });

describe('beyond this machine, over TLS of its own', () => {
  test('only the name under which it is shown is answered there', async () => {
    for (const host of [`127.0.0.1:${port}`, `localhost:${port}`, HOST, `evil.test:${port}`])
      expect((await askTls('/api/v1/health', { host })).status).toBe(403);
    expect((await askTls('/api/v1/health', named())).status).toBe(200);
  });

  test('whoever signs in has a cookie for TLS and this host alone, and the browser is told to stay with TLS', async () => {
    const ledger = timed(program.ledger);
    ledger.machine.now = Date.now();
    const owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
    const answer = await askTls(
      '/sign-in/recovery-code',
      { ...named(), 'content-type': 'application/json', origin: `https://${HOST}:${port}` },
      { method: 'POST', body: JSON.stringify({ name: 'Ilsa Tarn', recoveryCode: owner.recoveryCodes[0] }) },
    );
    expect(answer.status).toBe(200);
    expect(answer.headers['strict-transport-security']).toBe('max-age=31536000');
    const [cookie] = answer.headers['set-cookie'] as string[];
    expect(cookie).toMatch(/^__Host-name-ledger=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; Max-Age=604800; Secure$/);
    const token = cookie?.split(';')[0] ?? '';
    expect((await askTls('/api/v1/names?limit=1', { ...named(), cookie: token })).status).toBe(200);
    // The cookie of the machine itself is none here.
    expect((await askTls('/api/v1/names?limit=1', { ...named(), cookie: token.replace('__Host-', '') })).status).toBe(
      401,
    );
  });

  test('without TLS nothing is answered on that port', async () => {
    await expect(ask(port, '/api/v1/health', { headers: named() })).rejects.toThrow();
  });

  test('nobody is believed to come from elsewhere', async () => {
    await askTls(
      '/sign-in/recovery-code',
      { ...named(), 'content-type': 'application/json', 'x-forwarded-for': '198.51.100.1' },
      { method: 'POST', body: JSON.stringify({ name: 'Nobody', recoveryCode: 'x' }) },
    );
    const { rows } = await program.ledger.database.query(
      "select detail->>'address' as address from audit where action = 'sign-in refused' order by id desc limit 1",
    );
    expect(rows).toEqual([{ address: '127.0.0.1' }]);
  });
});

describe('behind a proxy', () => {
  test('it is asked by the proxy alone, and what that has added says from where', async () => {
    const proxied = await freePort();
    const env = (proxy: string) => ({
      NAME_LEDGER_LISTEN: '127.0.0.1',
      NAME_LEDGER_LISTEN_PORT: String(proxied),
      NAME_LEDGER_ORIGIN: `https://${HOST}`,
      NAME_LEDGER_PROXY: proxy,
    });
    const step = {
      method: 'POST',
      headers: { host: HOST, 'content-type': 'application/json', 'x-forwarded-for': '203.0.113.5, 198.51.100.1' },
      body: JSON.stringify({ name: 'Nobody', recoveryCode: 'x' }),
    };
    const behind = await startProgram(false, env('127.0.0.1'));
    expect((await ask(proxied, '/sign-in/recovery-code', step)).status).toBe(422);
    const { rows } = await behind.ledger.database.query(
      "select detail->>'address' as address from audit where action = 'sign-in refused'",
    );
    expect(rows).toEqual([{ address: '198.51.100.1' }]);
    await behind.close();
    const elsewhere = await startProgram(false, env('192.0.2.7'));
    await expect(ask(proxied, '/sign-in/recovery-code', step)).rejects.toThrow();
    await elsewhere.close();
  });
});
