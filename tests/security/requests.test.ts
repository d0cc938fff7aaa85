import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Program, startProgram } from './program';

let program: Program;
beforeAll(async () => {
  program = await startProgram(true);
}, 60_000);
afterAll(() => program.close());

const code = (text: string) => (JSON.parse(text) as { code?: string }).code;
const names = async () =>
  Number((await program.ledger.database.query<{ n: number }>('select count(*) as n from names')).rows[0]?.n);
const IMPORT = '/api/v1/names/import';
const own = () => `http://127.0.0.1:${program.port}`;

describe('under a foreign name (DNS rebinding) nothing is answered, whatever else a request says', () => {
  const tricks: Record<string, string>[] = [
    {},
    { 'next-router-prefetch': '1' },
    { purpose: 'prefetch', 'sec-purpose': 'prefetch' },
    { rsc: '1', 'next-router-state-tree': 'x' },
    { 'x-middleware-subrequest': 'src/proxy:src/proxy:src/proxy:src/proxy:src/proxy' },
    { 'x-middleware-prefetch': '1' },
    { 'x-forwarded-host': '127.0.0.1' },
    { forwarded: 'host=127.0.0.1' },
  ];
  for (const target of ['/api/v1/backup', '/today', '/ledger/data', '/_next/static/none.js'])
    test.each(tricks)(`${target} with %j`, async (headers) => {
      for (const host of ['evil.test', '127.0.0.1.evil.test', 'localhost.evil.test:80', '[::1].evil.test'])
        expect((await program.ask(target, { headers: { ...headers, host } })).status).toBe(403);
    });

  test('a target that is no path is refused', async () => {
    for (const target of ['http://evil.test/api/v1/backup', '//evil.test/', '*'])
      expect([target, (await program.ask(target)).status]).toEqual([target, 400]);
  });

  test('nobody is believed to have been forwarded: what links to itself names this machine', async () => {
    const page = await program.ask('/setup/mail', { headers: { 'x-forwarded-host': 'evil.test' } });
    expect(page.status).toBe(200);
    expect(page.text).not.toContain('evil.test');
  });
});

describe('pages of other sites neither read nor write', () => {
  test.each<[string, Record<string, string>, number]>([
    ['a sandboxed frame', { origin: 'null' }, 403],
    ['another site', { origin: 'http://evil.test' }, 403],
    ['another port of this machine', { origin: 'http://127.0.0.1:1' }, 403],
    ['an origin that cannot be read', { origin: 'ht!tp:/ /' }, 403],
    ['a site that says so', { 'sec-fetch-site': 'cross-site' }, 403],
    ['a site beside this one', { 'sec-fetch-site': 'same-site' }, 403],
    [
      'a link, but to what programs read',
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' },
      403,
    ],
  ])('%s is turned away from reading', async (_who, headers, status) => {
    expect((await program.ask('/api/v1/names?limit=1', { headers })).status).toBe(status);
  });

  test.each<[string, Record<string, string>]>([
    ['a sandboxed frame', { origin: 'null', 'content-type': 'text/plain' }],
    ['another site', { origin: 'http://evil.test', 'content-type': 'text/csv' }],
    ['a form of an old browser', { 'content-type': 'application/x-www-form-urlencoded' }],
    ['a form with files', { 'content-type': 'multipart/form-data; boundary=x' }],
    ['plain text', { 'content-type': 'text/plain;charset=UTF-8' }],
    ['no type at all', {}],
    ['a frame of another site', { 'sec-fetch-site': 'cross-site', 'content-type': 'text/csv' }],
  ])('%s adds no name', async (_who, headers) => {
    const before = await names();
    const answer = await program.ask(IMPORT, { method: 'POST', headers, body: 'quayattack.com' });
    expect([403, 415]).toContain(answer.status);
    expect(await names()).toBe(before);
  });

  test('programs on this machine and our own pages go on working', async () => {
    const dry = `${IMPORT}?dryRun=yes`;
    const list = { method: 'POST', body: 'quayfriend.com' };
    expect((await program.ask(dry, { ...list, headers: { 'content-type': 'text/csv' } })).status).toBe(200);
    const page = { origin: own(), 'sec-fetch-site': 'same-origin', 'content-type': 'text/plain' };
    expect((await program.ask(dry, { ...list, headers: page })).status).toBe(200);
    expect((await program.ask('/api/v1/names?limit=1')).status).toBe(200);
    expect((await program.ask('/today', { headers: { 'sec-fetch-site': 'none' } })).status).toBe(200);
  });

  test('a link in a mail that is read in a browser leads to its page', async () => {
    const headers = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };
    expect((await program.ask('/today', { headers })).status).toBe(200);
    // But not into a frame, and not to write.
    expect((await program.ask('/today', { headers: { ...headers, 'sec-fetch-dest': 'iframe' } })).status).toBe(403);
    expect((await program.ask('/today', { method: 'POST', headers })).status).toBe(403);
  });

  test('methods that nobody needs are refused', async () => {
    for (const method of ['TRACE', 'OPTIONS', 'PROPFIND'])
      expect([method, (await program.ask('/today', { method })).status]).toEqual([method, 405]);
  });
});

describe('nothing is cut: a body arrives whole, or is refused with how much is taken', () => {
  test('a list of 60,000 rows over 12 MB arrives with every row', async () => {
    const rows = Array.from({ length: 60_000 }, (_, i) => `quaylong${i}.com,2027-05-13,${'n'.repeat(180)}`);
    const body = `Name,Expires,Notes\n${rows.join('\n')}`;
    expect(body.length).toBeGreaterThan(12_000_000);
    const answer = await program.ask(`${IMPORT}?dryRun=yes`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body,
    });
    expect(JSON.parse(answer.text)).toMatchObject({ new: 60_000, refusedTotal: 0 });
  }, 60_000);

  test.each([
    ['/api/v1/renewals', 1],
    ['/today', 4],
    ['/api/v1/names/copperbuoy.com', 1],
  ])('%s takes %i MB', async (target, mb) => {
    const headers = { 'content-type': 'application/json', origin: own() };
    const answer = await program.ask(target, {
      method: 'POST',
      headers,
      body: Buffer.alloc(mb * 1024 * 1024 + 1, 0x20),
    });
    expect(answer.status).toBe(413);
    expect(answer.text).toContain(`larger than ${mb} MB`);
  });

  test('a body without a length is asked for one, where it is not read piece by piece', async () => {
    async function* endless() {
      for (let i = 0; i < 70; i += 1) yield Buffer.alloc(1024 * 1024, 'a.com\n');
    }
    const headers = { 'content-type': 'text/csv', 'transfer-encoding': 'chunked' };
    expect((await program.ask('/api/v1/renewals', { method: 'POST', headers, body: endless() })).status).toBe(411);
    const list = await program.ask(IMPORT, { method: 'POST', headers, body: endless() });
    expect([list.status, code(list.text)]).toEqual([413, 'body-too-large']);
  }, 60_000);

  test('a text of millions of words is refused before any of them is kept', async () => {
    const kept = async () =>
      (
        await program.ledger.database.query(
          'select (select count(*) from imports) + (select count(*) from import_rows) as n',
        )
      ).rows;
    const before = await kept();
    const answer = await program.ask(IMPORT, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: 'a '.repeat(4_900_000),
    });
    expect([answer.status, code(answer.text)]).toEqual([422, 'too-many-rows']);
    expect(await kept()).toEqual(before);
  }, 60_000);

  test('what is refused of a list is summed, its answer stays small', async () => {
    const body = `name,notes\n${Array.from({ length: 20_000 }, (_, i) => `-bad-${i},"${'""'.repeat(300)}"`).join('\n')}`;
    const answer = await program.ask(`${IMPORT}?dryRun=yes`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body,
    });
    const told = JSON.parse(answer.text) as { refused: unknown[]; refusedTotal: number };
    expect([answer.status, told.refused.length, told.refusedTotal]).toEqual([200, 1000, 20_000]);
    expect(answer.text.length).toBeLessThan(2_000_000);
  }, 60_000);
});

describe('odd values are refusals, never failures', () => {
  test.each<[string, string, unknown]>([
    ['NUL in a note', '/api/v1/names/copperbuoy.com', { notes: 'a\u0000b' }],
    ['half a letter in a tag', '/api/v1/names/copperbuoy.com', { tags: ['\ud83d'] }],
    ['a tag that turns its direction', '/api/v1/names/copperbuoy.com', { tags: ['\u202egnp.exe'] }],
    ['a tag of two lines', '/api/v1/names/copperbuoy.com', { tags: ['a\nb'] }],
    ['a key that is none', '/api/v1/names/copperbuoy.com', { __proto__x: 1 }],
    ['money that is none', '/api/v1/names/copperbuoy.com', { asking: { amount: '1e400', currency: 'USD' } }],
    ['deep brackets', '/api/v1/names/copperbuoy.com', `${'['.repeat(50_000)}${']'.repeat(50_000)}`],
    ['deep members', '/api/v1/names/copperbuoy.com', `{"notes":${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}}`],
  ])('%s', async (_what, target, body) => {
    const headers = { 'content-type': 'application/json' };
    const answer = await program.ask(target, {
      method: 'PATCH',
      headers,
      body: typeof body === 'string' ? body : JSON.stringify(body),
    });
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(code(answer.text)).toMatch(/^[a-z-]+$/);
  });

  test.each([
    '/api/v1/names/%00',
    '/api/v1/names/%ff%fe',
    '/api/v1/names/%zz',
    '/api/v1/names?limit=1e9',
    '/api/v1/names?asOf=%00',
    '/api/v1/names?cursor=%00%00',
    '/api/v1/names?account=99999999999999999999',
    '/renewals/------------------------------------',
    '/renewals/------------------------------------/run',
    '/ledger/add/not-an-id',
    '/ledger/add/------------------------------------/refused',
    '/ledger/%zz',
    '/record/%ff',
    '/selling/sales/99999999999999',
    '/selling/offers/1e400',
    '/selling/csv/NaN',
    '/setup/accounts/99999999999999999999',
    '/rescue/zone/-1',
    '/today/seen/%00',
  ])('%s', async (target) => {
    const { status, text } = await program.ask(target);
    expect([target, status < 500]).toEqual([target, true]);
    expect(text).not.toMatch(/invalid input syntax|node_modules|at \w+ \(/);
  });

  test.each([
    ['%00', 'text-unreadable'],
    ['a%0Ab', 'request-invalid'],
    ['%E2%80%AEx', 'text-turns-direction'],
    ['x'.repeat(61), 'request-invalid'],
  ])('an account named %s in the address of an import makes no account', async (account, why) => {
    const accounts = async () =>
      (await program.ledger.database.query<{ n: number }>('select count(*) as n from accounts')).rows[0]?.n;
    const before = await accounts();
    const list = { method: 'POST', headers: { 'content-type': 'text/csv' }, body: 'quayodd.com' };
    const told = await program.ask(`${IMPORT}?account=${account}`, list);
    expect([told.status < 500, code(told.text)]).toEqual([true, why]);
    for (const query of [`accountLabel=${account}`, `source=${account}`, 'accountId=99999999999'])
      if (query !== `source=${'x'.repeat(61)}`)
        expect([query, (await program.ask(`/ledger/add/begin?${query}`, list)).status]).toEqual([query, 422]);
    expect(await accounts()).toBe(before);
  });

  test('an address at which nothing stands shows a page of our own', async () => {
    const page = await program.ask('/nowhere');
    expect([page.status, page.text.includes('There is nothing at this address.')]).toEqual([404, true]);
  });
});

describe('headers (ASVS 5 chapter V3.4)', () => {
  test('pages', async () => {
    const { headers } = await program.ask('/today');
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
      'x-frame-options': 'DENY',
    });
    const policy = String(headers['content-security-policy']);
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain("'unsafe-inline';script");
    expect(headers['x-powered-by']).toBeUndefined();
  });

  test.each(['/api/v1/names?limit=1', '/api/v1/backup', '/api/v1/health', '/api/v1/nowhere'])('%s', async (target) => {
    const { headers } = await program.ask(target);
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'cache-control': expect.stringContaining('no-store'),
      'cross-origin-resource-policy': 'same-origin',
    });
    expect(headers['access-control-allow-origin']).toBeUndefined();
  });
});

test('a link in a mail that is looked at acknowledges nothing; the calendar needs its token', async () => {
  const { database } = program.ledger;
  const token = '1b4e28ba-2fa1-41d2-883f-0016d3cca427';
  await database.query(
    `insert into reminders (name_id, step_at, kind, stage, first_at, last_at, token, expires_at)
     select id, '2027-01-01', 'deadline', 7, '2026-11-20', '2026-11-20', $1, '2027-01-20' from names limit 1`,
    [token],
  );
  for (const [method, headers] of [
    ['GET', {}],
    ['HEAD', {}],
    ['GET', { 'next-router-prefetch': '1', rsc: '1' }],
    ['GET', { 'sec-purpose': 'prefetch' }],
  ] as const)
    await program.ask(`/today/seen/${token}`, { method, headers });
  const { rows } = await database.query('select acknowledged_at from reminders where token = $1', [token]);
  expect(rows).toEqual([{ acknowledged_at: null }]);
  for (const target of ['/api/v1/calendar.ics', '/api/v1/calendar.ics?token=guess'])
    expect((await program.ask(target)).status).toBe(403);
});

test('the log tells what was turned away and what failed, and nothing that is private', async () => {
  expect(program.log.some(({ msg, code: why }) => msg === 'a request was turned away' && why === 'foreign-host')).toBe(
    true,
  );
  const text = JSON.stringify(program.log);
  for (const secret of ['a key for tests', 'copperbuoy', 'quayattack', 'evil.test']) expect(text).not.toContain(secret);
});
