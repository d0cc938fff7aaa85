import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { seedDemo } from '@practice/scenario/seed';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { OPENAPI } from '@/app/api/openapi';
import { OPERATIONS } from '@/app/api/operations';
import { addDays } from '@/core/time';
import { makeCalendarFeed, withdrawCalendarFeed } from '@/usecases/calendar/feed';
import { call, ROUTES } from './callApi';
import { emptyLedger, type TestLedger, TODAY } from './ledger';

let ledger: TestLedger;

beforeAll(async () => {
  ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  // The routes find their world where the application keeps it.
  (globalThis as { nameLedgerDeps?: unknown }).nameLedgerDeps = ledger;
});
afterAll(() => ledger.close());

describe('the description and the code say the same', () => {
  test('every route is described, and every description has its route', () => {
    const found: string[] = [];
    const walk = (directory: string) => {
      for (const entry of readdirSync(directory)) {
        const path = join(directory, entry);
        if (statSync(path).isDirectory()) walk(path);
        else if (entry === 'route.ts') {
          const route = directory.slice(ROUTES.length).replace('[name]', '{name}');
          for (const method of readFileSync(path, 'utf8').matchAll(
            /export (?:async )?function (GET|POST|PATCH|PUT|DELETE)/g,
          ))
            found.push(`${method[1]} ${route}`);
        }
      }
    };
    walk(ROUTES);
    for (const { method, path } of OPERATIONS) found.push(`${method} ${path}`);
    const described = Object.entries(OPENAPI.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
    );
    expect(found.sort()).toEqual(described.sort());
  });
});

describe('names', () => {
  test('pages neither skip nor repeat a name, whatever the order', async () => {
    for (const sort of ['deadline', 'name', '-asking', 'account']) {
      const seen: string[] = [];
      let cursor = '';
      do {
        const { json } = await call('GET', `/names?limit=150&sort=${sort}${cursor && `&cursor=${cursor}`}`);
        seen.push(...json.names.map((name: { name: string }) => name.name));
        cursor = json.next ?? '';
      } while (cursor);
      expect(seen).toHaveLength(412);
      expect(new Set(seen).size).toBe(412);
    }
  });

  test('filters are those of the screen', async () => {
    const { json } = await call('GET', '/names?phase=late&account=Quaymark&limit=1000');
    expect(json.names.map((name: { name: string }) => name.name)).toEqual(['petrelworks.net', 'kelpkiln.com']);
    expect(
      (await call('GET', '/names?forSale=yes&askingFrom=500000&limit=1000')).json.names.every(
        (n: { asking: { amount: string } }) => Number(n.asking.amount) >= 5000,
      ),
    ).toBe(true);
  });

  test('one name, today and looking ahead', async () => {
    const today = await call('GET', '/names/kelpkiln.com');
    expect(today.json).toMatchObject({
      name: 'kelpkiln.com',
      phase: 'late',
      projected: false,
      deadline: { kind: 'restore', now: { amount: '11.38' }, then: { amount: '125.18' } },
    });
    const ahead = await call('GET', '/names/kelpkiln.com?asOf=2027-01-01');
    expect(ahead.json).toMatchObject({ phase: 'redemption', projected: true, asOf: '2027-01-01T00:00:00Z' });
    expect((await call('GET', '/names/möwenspeicher.de')).json.name).toBe('xn--mwenspeicher-4ib.de');
  });

  test('the whole view as CSV', async () => {
    const { text, type } = await call('GET', '/names?format=csv&columns=name,phase&phase=redemption');
    expect(type).toContain('text/csv');
    expect(text.split('\r\n')[0]).toBe('Name,Phase');
    expect(JSON.parse((await call('GET', '/names/export?format=json&phase=late')).text).names.length).toBeGreaterThan(
      1,
    );
  });

  test('a change, and what is refused', async () => {
    const changed = await call('PATCH', '/names/kelpkiln.com', {
      purpose: 'use',
      tags: ['craft'],
      asking: { amount: '4100', currency: 'USD' },
      notes: 'Fire.',
      autoRenew: { requested: 'on' },
    });
    expect(changed.json).toMatchObject({
      purpose: 'use',
      tags: ['craft'],
      asking: { amount: '4100.00' },
      autoRenew: { setting: 'stalled', standing: 'requested', requested: 'on' },
    });
    expect(
      (await call('PATCH', '/names/kelpkiln.com', { asking: null, notes: '', account: 'wrackgate' })).json,
    ).toMatchObject({ asking: null, notes: '', account: 'Wrackgate' });
    for (const [body, code] of [
      [{ purpose: 'sell it' }, 'request-invalid'],
      [{ colour: 'red' }, 'request-invalid'],
      [{ account: 'Nowhere' }, 'account-unknown'],
      [{ expiresAt: '2027-02-30' }, 'request-invalid'],
      [{ expiresAt: '1969-12-31' }, 'date-out-of-range'],
      [[], 'request-not-object'],
    ] as const) {
      expect((await call('PATCH', '/names/kelpkiln.com', body)).json.code).toBe(code);
    }
  });

  test.each([
    ['GET', '/names?limit=0', 400],
    ['GET', '/names?limit=1001', 400],
    ['GET', '/names?cursor=nonsense', 400],
    ['GET', '/names?asOf=soon', 400],
    ['GET', '/names?asOf=2040-01-01', 400],
    ['GET', '/names/nosuchname.com', 404],
    ['GET', '/names/mail.kelpkiln.com', 404],
  ] as const)('%s %s is %i', async (method, path, status) => {
    expect((await call(method, path)).status).toBe(status);
  });
});

describe('import', () => {
  test('plain text and CSV, dry or not', async () => {
    expect(
      (await call('POST', '/names/import?dryRun=true&account=Quaymark', 'seaholly.com tarbarrel.org mail.seaholly.com'))
        .json,
    ).toMatchObject({
      new: 2,
      refused: [{ line: 1, input: 'mail.seaholly.com,,', code: 'name-is-host' }],
    });
    expect(
      (await call('POST', '/names/import?account=Quaymark', 'name,expires\nseaholly.com,2027-05-13')).json,
    ).toMatchObject({ new: 1, refused: [] });
    expect((await call('POST', '/names/import', 'name,expires\nseaholly.com,2027-05-13')).json).toMatchObject({
      new: 0,
      unchanged: 1,
    });
    expect((await call('POST', '/names/import', 'name,expires\nseaholly.com,05/06/2027')).json.code).toBe(
      'dates-ambiguous',
    );
    expect((await call('POST', '/names/import', '')).json.code).toBe('nothing-to-read');
  });
});

describe('renewals', () => {
  const body = {
    items: [{ name: 'copperbuoy.com', years: 2, charged: { amount: '23.00', currency: 'USD' } }],
    reference: 'Q-1',
  };

  test('a quote says old end, new end and cost, or why not', async () => {
    expect(
      (
        await call('POST', '/renewals/quote', {
          items: [
            { name: 'copperbuoy.com', years: 2 },
            { name: 'brinelantern.com', years: 1 },
          ],
          taxPercent: 10,
        })
      ).json,
    ).toMatchObject({
      items: [
        { name: 'copperbuoy.com', cost: { amount: '25.04', currency: 'USD' } },
        { name: 'brinelantern.com', refused: { code: 'in-redemption' } },
      ],
      totals: [{ amount: '25.04', currency: 'USD' }],
    });
  });

  test('the same key twice, even at once, renews once', async () => {
    const key = { 'idempotency-key': 'k-1' };
    const both = await Promise.allSettled([call('POST', '/renewals', body, key), call('POST', '/renewals', body, key)]);
    expect(both.some((one) => one.status === 'fulfilled' && one.value.status === 201)).toBe(true);
    const again = await call('POST', '/renewals', body, key);
    expect(again.json).toMatchObject({
      status: 'confirmed',
      items: [{ name: 'copperbuoy.com', charged: { amount: '23.00' }, quoted: { amount: '22.76' } }],
    });
    const { rows } = await ledger.database.query(
      "select count(*) as n from entries e join names n on n.id = e.name_id where n.ascii = 'copperbuoy.com' and e.reference = 'Q-1'",
    );
    expect(rows[0].n).toBe(1);
  });

  test('the same key with another request is refused, whatever the order of its members', async () => {
    const key = { 'idempotency-key': 'k-1' };
    const other = { ...body, items: [{ name: 'stillharbor.net', years: 1 }] };
    expect(await call('POST', '/renewals', other, key)).toMatchObject({
      status: 422,
      json: { code: 'idempotency-key-reused' },
    });
    const turned = Object.fromEntries(Object.entries(body).reverse());
    expect((await call('POST', '/renewals', turned, key)).status).toBe(201);
  });

  test.each([
    [{ ...body, items: [] }, 'k-2', 'request-invalid'],
    [{ items: [{ name: 'copperbuoy.com', years: 11 }] }, 'k-3', 'term-not-sold'],
    [{ items: [{ name: 'nosuchname.com', years: 1 }] }, 'k-4', 'name-not-in-ledger'],
    [body, '', 'idempotency-key-missing'],
    ['not json', 'k-5', 'request-not-json'],
    [{ ...body, items: [{ name: 'stillharbor.net', years: 1 }], chargedOn: '2027-01-01' }, 'k-6', 'date-out-of-range'],
  ])('%j is refused', async (bad, key, code) => {
    expect((await call('POST', '/renewals', bad, key ? { 'idempotency-key': key } : {})).json.code).toBe(code);
  });
});

test('accounts, prices, policies, calendar, health and the description itself', async () => {
  expect((await call('GET', '/accounts')).json.accounts).toHaveLength(5);
  expect((await call('GET', '/prices')).json.prices.length).toBeGreaterThan(40);
  expect((await call('GET', '/policies')).json.policies.length).toBeGreaterThan(10);
  expect((await call('GET', '/health')).json.revision).toBeGreaterThan(1);
  expect((await call('GET', '/calendar.ics')).status).toBe(403);
  const token = await makeCalendarFeed(ledger);
  const calendar = await call('GET', `/calendar.ics?token=${token}`);
  expect(calendar.text).toContain('UID:petrelworks.net-restore-');
  expect(calendar.text).not.toContain('oakumforge.net');
  // A new address takes the place of the old one, ends after a year, and can be withdrawn.
  const second = await makeCalendarFeed(ledger);
  expect((await call('GET', `/calendar.ics?token=${token}`)).json.code).toBe('feed-token-invalid');
  ledger.setClock(addDays(TODAY, 366));
  expect((await call('GET', `/calendar.ics?token=${second}`)).status).toBe(403);
  ledger.setClock(TODAY);
  expect((await call('GET', `/calendar.ics?token=${second}`)).status).toBe(200);
  await withdrawCalendarFeed(ledger);
  expect((await call('GET', `/calendar.ics?token=${second}`)).status).toBe(403);
  expect((await call('GET', '/openapi.json')).json.openapi).toBe('3.1.0');
});

test('while names come, go and change, a walk through all pages tells every other name exactly once', async () => {
  const { rows: all } = await ledger.database.query<{ ascii: string }>(
    'select ascii from names where gone_at is null order by ascii',
  );
  for (const sort of ['name', '-name', 'deadline', '-asking', 'account']) {
    const touched = new Set<string>();
    const seen: string[] = [];
    let cursor = '';
    for (let page = 0; page === 0 || cursor; page += 1) {
      const { json } = await call('GET', `/names?limit=60&sort=${sort}${cursor && `&cursor=${cursor}`}`);
      const names: string[] = json.names.map((name: { name: string }) => name.name);
      seen.push(...names);
      cursor = json.next ?? '';
      // The name that the page ended with is the one that changes its place.
      const last = names.at(-1) ?? '';
      touched.add(last);
      await ledger.database.query(
        `update names set term_end = term_end + interval '400 days', asking_minor = coalesce(asking_minor, 100) * 3, asking_currency = coalesce(asking_currency, 'USD') where ascii = $1`,
        [last],
      );
      await ledger.database.query('update revision set n = n + 1');
    }
    const stayed = all.map(({ ascii }) => ascii).filter((ascii) => !touched.has(ascii));
    const told = seen.filter((ascii) => !touched.has(ascii));
    expect(told.toSorted(), sort).toEqual(stayed.toSorted());
  }
});
