import { type RunningPractice, runPractice } from '@practice/run';
import { linkDemo, pointRecordsAt } from '@practice/scenario/links';
import { seedDemo } from '@practice/scenario/seed';
import { seedSelling } from '@practice/scenario/selling';
import { demoWorld } from '@practice/scenario/world';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { OPERATIONS } from '@/app/api/operations';
import { call } from './callApi';
import { emptyLedger, type TestLedger, TODAY } from './ledger';

let ledger: TestLedger;
let practice: RunningPractice;

beforeAll(async () => {
  ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  practice = await runPractice({ world: demoWorld(TODAY), store: null });
  await linkDemo(
    ledger,
    Object.fromEntries(Object.entries(practice.ports).map(([id, port]) => [`harbour-${id}`, port])),
  );
  await pointRecordsAt(ledger.database, practice.records);
  await seedSelling(ledger, practice.marketplacePort);
  (globalThis as { nameLedgerDeps?: unknown }).nameLedgerDeps = ledger;
}, 60_000);
afterAll(async () => {
  await ledger.close();
  await practice.stop();
});

/** The first of each kind, whose address is asked for. */
async function placesOf(path: string): Promise<string | null> {
  const first = async (list: string, member: string, key = 'id') => {
    const { json } = await call('GET', list);
    const [one] = json[member] as Record<string, unknown>[];
    return one ? String(one[key]) : null;
  };
  const id = await (path.startsWith('/accounts') || path.startsWith('/links')
    ? first('/accounts', 'accounts')
    : path.startsWith('/listings')
      ? first('/listings', 'listings')
      : path.startsWith('/offers')
        ? first('/offers', 'offers')
        : path.startsWith('/auctions')
          ? first('/auctions', 'auctions')
          : path.startsWith('/sales')
            ? first('/sales', 'sales')
            : path.startsWith('/marketplaces')
              ? first('/marketplaces', 'marketplaces')
              : path.startsWith('/runs')
                ? call('POST', '/runs', { items: [{ name: 'kelpkiln.com', years: 1 }] }).then(
                    ({ json }) => json.run.id as string,
                  )
                : Promise.resolve('1'));
  return id;
}

/** What a query cannot do without, by the end of its address. */
const WANTED: Readonly<Record<string, string>> = {
  '/terms': '?years=2',
  '/hanging': '?names=kelpkiln.com',
  '/over-years': '?ending=com',
};

describe('what is asked', () => {
  test.each(OPERATIONS.filter(({ method }) => method === 'GET').map(({ path }) => path))(
    'GET %s answers as it is described, and the same again with its ETag is 304',
    async (path) => {
      const id = path.includes('{') ? await placesOf(path) : '';
      const query = WANTED[path.slice(path.lastIndexOf('/'))] ?? '';
      const address = path.replace('{name}', 'kelpkiln.com').replace(/\{\w+\}/, String(id)) + query;
      const { status, json, headers } = await call('GET', address);
      expect([200, 404, 422], `${address}: ${JSON.stringify(json)}`).toContain(status);
      const etag = headers.get('etag');
      if (status !== 200 || etag === null) return;
      const again = await call('GET', address, undefined, { 'if-none-match': etag });
      // What says how long ago something was may differ.
      expect([304, 200]).toContain(again.status);
    },
  );

  test('what has no such number is not found', async () => {
    for (const path of [
      '/accounts/9999',
      '/listings/9999',
      '/offers/9999',
      '/sales/0',
      '/auctions/x',
      '/marketplaces/-1',
    ])
      expect((await call('GET', path)).status, path).toBe(404);
  });

  test('an address that is none, and a method that it does not take', async () => {
    expect((await call('GET', '/nothing/here')).json).toMatchObject({ code: 'address-unknown', status: 404 });
    expect((await call('DELETE', '/listings')).json).toMatchObject({ code: 'method-unknown', status: 405 });
  });
});

describe('accounts with funding', () => {
  test('the charges to come, what fails first, and what a top-up would mend; nothing is written', async () => {
    const { json: before } = await call('GET', '/accounts');
    const failing = [];
    for (const { id, label } of before.accounts as { id: number; label: string }[]) {
      const { json } = await call('GET', `/accounts/${id}/funding?until=2027-06-01`);
      expect(json.account).toBe(label);
      expect(json.restsOn.length).toBeGreaterThan(0);
      if (json.leastTopUp) failing.push({ id, by: json.leastTopUp.by, amount: json.leastTopUp.amount.amount });
    }
    expect(failing.length).toBeGreaterThan(0);
    const [{ id, amount } = { id: 0, amount: '' }] = failing;
    const minor = Math.round(Number(amount) * 100);
    const mended = await call('GET', `/accounts/${id}/what-if?topUpMinor=${minor}&until=2027-06-01`);
    expect(mended.json.leastTopUp).toBeNull();
    // A cent less leaves it open.
    const less = await call('GET', `/accounts/${id}/what-if?topUpMinor=${minor - 1}&until=2027-06-01`);
    expect(less.json.leastTopUp.amount.amount).toBe('0.01');
    expect((await call('GET', '/accounts')).json).toEqual(before);
  });
});

describe('what a person would decide by', () => {
  test('Today: who is lost and by when, as the demo’s screen says it', async () => {
    const { json } = await call('GET', '/today');
    expect(json).toMatchObject({ lost: 5, failing: 7 });
    expect(json.lostNames.map(({ name }: { name: string }) => name)).toContain('brinelantern.com');
    expect(json.charges.length).toBeGreaterThan(10);
  });

  test('Rescue: a verdict for each name in danger, with its cost and what it may bring', async () => {
    const { json } = await call('GET', '/rescue');
    const of = (name: string) =>
      json.names.find((one: { name: { name: string } }) => one.name.name === name) as Record<string, unknown>;
    expect(of('kelpkiln.com')).toMatchObject({ verdict: 'renew late', cost: { amount: '11.38', currency: 'USD' } });
    expect(json.restsOn[0].what).toContain('the chance of selling');
  });

  test('a plan of transfers within a budget spends no more than it', async () => {
    const free = (await call('GET', '/transfers/plan?years=3')).json;
    const bound = (await call('GET', '/transfers/plan?years=3&budgetMinor=5000')).json;
    const moves = (plan: { waves: { moves: unknown[] }[] }) =>
      plan.waves.reduce((n, { moves: all }) => n + all.length, 0);
    expect(Number(bound.cost.amount)).toBeLessThanOrEqual(50);
    expect(moves(bound)).toBeLessThan(moves(free));
    expect(bound.left.some(({ why }: { why: string }) => why === 'over the budget')).toBe(true);
    expect((await call('GET', '/transfers/plan?years=11')).json.code).toBe('query-invalid');
    expect((await call('GET', '/transfers/plan?budgetMinor=a')).json.code).toBe('query-invalid');
  });
});

describe('changes', () => {
  const form = {
    label: 'Saltmarsh',
    currency: 'EUR',
    leadDays: 3,
    lateDays: 30,
    yearsPerCharge: 1,
    paymentMethods: [],
  };

  test('what was changed by another is not written over', async () => {
    const added = await call('POST', '/accounts', form);
    expect(added.status).toBe(201);
    const path = `/accounts/${added.json.id}`;
    const etag = (await call('GET', path)).headers.get('etag') as string;
    expect((await call('PUT', path, { ...form, leadDays: 4 }, { 'if-match': etag })).status).toBe(200);
    const stale = await call('PUT', path, { ...form, leadDays: 9 }, { 'if-match': etag });
    expect(stale.json).toMatchObject({ status: 412, code: 'changed-meanwhile' });
    expect((await call('GET', path)).json.leadDays).toBe(4);
    expect((await call('PUT', path, { ...form, leadDays: 5 }, { 'if-match': '*' })).status).toBe(200);
  });

  test('of forty that change the same at once, one is carried out, and none waits for a connection', async () => {
    const { json } = await call('POST', '/accounts', { ...form, label: 'Marram' });
    const path = `/accounts/${json.id}`;
    const etag = (await call('GET', path)).headers.get('etag') as string;
    const answers = await Promise.all(
      Array.from({ length: 40 }, (_, i) =>
        call('PUT', path, { ...form, label: 'Marram', leadDays: 10 + i }, { 'if-match': etag }),
      ),
    );
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 412)).toHaveLength(39);
  });

  test('what spends money wants a key; the same key is carried out once', async () => {
    const [account] = (await call('GET', '/accounts')).json.accounts.filter((one: { linked: boolean }) => !one.linked);
    const funds = { topUpMinor: 1234 };
    const path = `/accounts/${account.id}/funds`;
    expect((await call('POST', path, funds)).json.code).toBe('idempotency-key-missing');
    const key = { 'idempotency-key': 'top-up-1' };
    const first = await call('POST', path, funds, key);
    expect(first.status).toBe(200);
    const balance = (await call('GET', `/accounts/${account.id}`)).json.balance;
    const again = await call('POST', path, funds, key);
    expect([again.status, again.text]).toEqual([first.status, first.text]);
    expect((await call('GET', `/accounts/${account.id}`)).json.balance).toEqual(balance);
    expect((await call('POST', path, { topUpMinor: 99 }, key)).json.code).toBe('idempotency-key-reused');
  });

  test('a secret that is shown once does not lie about with its key', async () => {
    const key = { 'idempotency-key': 'secret-1' };
    const body = { label: 'a trial', url: 'http://127.0.0.1:9/hook' };
    const { json } = await call('POST', '/webhooks', body, key);
    expect(json.secret).toMatch(/^whsec_/);
    expect((await call('POST', '/webhooks', body, key)).json.code).toBe('request-under-way');
    const { rows } = await ledger.database.query('select answer from keyed_requests');
    expect(JSON.stringify(rows)).not.toContain(json.secret);
    expect((await call('GET', '/webhooks')).json.webhooks).toHaveLength(1);
    await call('DELETE', `/webhooks/${json.webhook.id}`);
  });

  test('a refused request may be mended and sent with its key', async () => {
    const key = { 'idempotency-key': 'mended-1' };
    expect((await call('POST', '/accounts', { ...form, label: '' }, key)).status).toBe(422);
    expect((await call('POST', '/accounts', { ...form, label: 'Samphire' }, key)).status).toBe(201);
    expect((await call('POST', '/accounts', { ...form, label: 'Samphire' }, key)).status).toBe(201);
    const { json } = await call('GET', '/accounts');
    expect(json.accounts.filter((one: { label: string }) => one.label === 'Samphire')).toHaveLength(1);
  });

  test('ten with one key at once: one is carried out, the others hear that it is under way or what it was answered', async () => {
    const key = { 'idempotency-key': 'at-once' };
    const answers = await Promise.all(
      Array.from({ length: 10 }, () => call('POST', '/accounts', { ...form, label: 'Thrift' }, key)),
    );
    expect(answers.every(({ status }) => status === 201 || status === 409)).toBe(true);
    const { json } = await call('GET', '/accounts');
    expect(json.accounts.filter((one: { label: string }) => one.label === 'Thrift')).toHaveLength(1);
  });

  test('names are named, in either form; one that is not there is told', async () => {
    const edit = { addTags: ['reeds'] };
    expect((await call('POST', '/edits', { names: ['möwenspeicher.de', 'KELPKILN.com'], edit })).json.changed).toBe(2);
    expect((await call('POST', '/edits', { names: ['notours.com'], edit })).json).toMatchObject({
      status: 404,
      code: 'name-not-in-ledger',
    });
    const { json } = await call('GET', '/history?limit=1');
    expect(json.history[0]).toMatchObject({ by: 'office', names: 2 });
    expect((await call('POST', `/history/${json.history[0].id}/undo`)).status).toBe(200);
  });
});
