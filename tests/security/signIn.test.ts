import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { OPERATIONS } from '@/app/api/operations';
import { addProgram } from '@/usecases/people/members';
import { type Inside, letIn, timed } from '../database/people';
import { unrefused } from '../database/unrefused';
import { type Program, startProgram } from './program';

let program: Program;
let owner: Inside;
let viewer: Inside;
let reader: string;
beforeAll(async () => {
  program = await startProgram(true);
  const ledger = timed(program.ledger);
  ledger.machine.now = Date.now();
  owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
  viewer = await letIn(ledger, 'Una Fell', 'viewer', owner.deps);
  reader = unrefused(
    await addProgram(owner.deps, { name: 'Reader', role: 'trader', scope: ['selling'], days: 7 }),
  ).token;
}, 60_000);
afterAll(() => program.close());

const cookie = (token: string) => ({ cookie: `name-ledger=${token}` });
const bearer = (token: string) => ({ authorization: `Bearer ${token}` });
const code = (text: string) => (JSON.parse(text) as { code?: string }).code;
const JSON_BODY = { 'content-type': 'application/json' };

/** An address with something in each of its places. */
const filled = (path: string) => `/api/v1${path.replace(/\{\w+\}/g, '1')}`;

describe('once somebody can sign in, a stranger gets nothing', () => {
  test.each(OPERATIONS.map(({ method, path }) => [method, path] as const))('%s %s', async (method, path) => {
    const answer = await program.ask(filled(path), {
      method,
      headers: { ...JSON_BODY, 'idempotency-key': 'a' },
      ...(method === 'GET' ? {} : { body: '{}' }),
    });
    expect([answer.status, code(answer.text)]).toEqual([401, 'sign-in-needed']);
    expect(answer.headers['www-authenticate']).toBe('Bearer');
  });

  test.each([
    '/api/v1/backup',
    '/api/v1/names?limit=1',
    '/api/v1/names/export?format=csv',
    '/api/v1/events',
    '/ledger/data',
    '/selling/data',
    '/prospects/data',
    '/setup/mail/calendar',
    '/acquire/data?set=1',
  ])('%s', async (target) => {
    const answer = await program.ask(target);
    expect(answer.status).toBe(401);
    expect(answer.text).not.toMatch(/tarbarrel|seaholly/);
  });

  test.each(['/today', '/ledger', '/setup/people', '/you', '/selling/sales/1', '/sign-in/../today', '//sign-in'])(
    'the page %s leads to the way in, and tells nothing',
    async (target) => {
      const answer = await program.ask(target, { headers: { accept: 'text/html' } });
      expect([303, 400, 401]).toContain(answer.status);
      if (answer.status === 303) expect(answer.headers.location).toMatch(/^\/sign-in\?back=%2F/);
    },
  );

  test('whether the program is well is told, and not how each part is', async () => {
    const { ledger } = program;
    await ledger.database.query(
      "insert into job_results (job, failed_at, problem) values ('mailbox', now(), 'mail.office.example refuses') on conflict do nothing",
    );
    const strange = await program.ask('/api/v1/health');
    expect(JSON.parse(strange.text)).toMatchObject({ revision: null, parts: [], failedJobs: [] });
    const known = await program.ask('/api/v1/health', { headers: cookie(viewer.token) });
    expect(known.text).toContain('mail.office.example');
  });

  test('the way in itself names nobody and nothing', async () => {
    const page = await program.ask('/sign-in?back=%2Ftoday', { headers: { accept: 'text/html' } });
    expect(page.status).toBe(200);
    for (const told of ['Ilsa', 'Una', 'Harbour', 'USD']) expect(page.text).not.toContain(told);
  });

  test('no function of a page can be called through the way in', async () => {
    for (const target of ['/sign-in', '/invited/x', '/today'])
      for (const action of ['40', '7f0b7f0b7f0b7f0b7f0b7f0b7f0b7f0b7f0b7f0b7f'])
        expect(
          (
            await program.ask(target, {
              method: 'POST',
              headers: { 'next-action': action, 'content-type': 'text/plain;charset=UTF-8', origin: own() },
              body: '[]',
            })
          ).headers['x-action-redirect'],
        ).toBe('/sign-in;replace');
  });

  test('what follows the sign-in is a page of our own', async () => {
    for (const back of ['https://evil.test/', '//evil.test', '/\\evil.test', '/sign-in']) {
      const page = await program.ask(`/sign-in?back=${encodeURIComponent(back)}`, {
        headers: { accept: 'text/html', ...cookie(owner.token) },
      });
      expect([page.status, page.headers.location]).toEqual([307, '/today']);
    }
  });
});

const own = () => `http://127.0.0.1:${program.port}`;

describe('what somebody shows', () => {
  test.each([
    ['nothing', {}],
    ['a made-up session', cookie('x'.repeat(43))],
    ['the name in place of the token', cookie('Ilsa Tarn')],
    ['the session of another cookie', { cookie: `other=${'x'.repeat(43)}` }],
  ])('%s opens nothing', async (_, headers) => {
    expect((await program.ask('/api/v1/names?limit=1', { headers })).status).toBe(401);
  });

  test.each(['Bearer', 'Bearer ', 'Basic aWxzYTp4', 'Bearer a b', `Bearer ${'x'.repeat(300)}`, 'Bearer made-up'])(
    'the authorization %j is told to be none',
    async (authorization) => {
      const answer = await program.ask('/api/v1/names?limit=1', { headers: { authorization } });
      expect([answer.status, code(answer.text)]).toEqual([401, 'token-invalid']);
      expect(answer.headers['www-authenticate']).toContain('invalid_token');
    },
  );

  test('a session in the place of a token, and a token in that of a session, open nothing', async () => {
    expect((await program.ask('/api/v1/names?limit=1', { headers: bearer(owner.token) })).status).toBe(401);
    expect((await program.ask('/api/v1/names?limit=1', { headers: cookie(reader) })).status).toBe(401);
  });

  test('a session opens pages and programs’ addresses; its cookie is for no script', async () => {
    expect((await program.ask('/api/v1/names?limit=1', { headers: cookie(viewer.token) })).status).toBe(200);
    const page = await program.ask('/setup/people', { headers: { accept: 'text/html', ...cookie(viewer.token) } });
    expect(page.status).toBe(200);
    const refused = await program.ask('/sign-in/recovery-code', {
      method: 'POST',
      headers: JSON_BODY,
      body: JSON.stringify({ name: 'una fell', recoveryCode: viewer.recoveryCodes[0] }),
    });
    expect(refused.status).toBe(200);
    expect(refused.text).not.toContain('token');
    expect(String(refused.headers['set-cookie'])).toMatch(
      /^name-ledger=[\w-]{43}; Path=\/; HttpOnly; SameSite=Lax; Max-Age=604800$/,
    );
  });

  test('a token opens no page', async () => {
    expect((await program.ask('/today', { headers: { accept: 'text/html', ...bearer(reader) } })).status).toBe(403);
    expect((await program.ask('/api/v1/names?limit=1', { headers: bearer(reader) })).status).toBe(200);
  });
});

describe('what somebody may not, he is told with 403', () => {
  test.each([
    ['a viewer edits names', () => cookie(viewer.token), 'POST', '/edits', 'role-lacking'],
    ['a viewer invites himself an owner', () => cookie(viewer.token), 'POST', '/people', 'role-lacking'],
    ['a program acts outside its areas', () => bearer(reader), 'POST', '/edits', 'scope-lacking'],
    ['a program lets another in', () => bearer(reader), 'POST', '/people/programs', 'role-lacking'],
  ] as const)('%s', async (_, headers, method, path, refused) => {
    const answer = await program.ask(filled(path), { method, headers: { ...JSON_BODY, ...headers() }, body: '{}' });
    expect([answer.status, code(answer.text)]).toEqual([403, refused]);
  });

  test('a viewer takes no backup', async () => {
    expect((await program.ask('/api/v1/backup', { headers: cookie(viewer.token) })).status).toBe(403);
    expect((await program.ask('/api/v1/backup', { headers: cookie(owner.token) })).status).toBe(200);
  });

  test('a viewer brings in no list, whichever way and thread it takes', async () => {
    const list = 'name,expires\nviewers-own.com,2027-01-01\n';
    for (const target of ['/api/v1/names/import', '/ledger/add/begin?source=pasted']) {
      const answer = await program.ask(target, {
        method: 'POST',
        headers: { 'content-type': 'text/csv', ...cookie(viewer.token) },
        body: list,
      });
      expect([target, code(answer.text)]).toEqual([target, 'role-lacking']);
    }
    const { rows } = await program.ledger.database.query("select from names where ascii = 'viewers-own.com'");
    expect(rows).toEqual([]);
  });
});
