import { afterEach, expect, test } from 'vitest';
import type { MarketplaceLink } from '@/connectors/marketplace/port';
import type { RegistrarLink } from '@/connectors/registrar/port';
import { isRefusal } from '@/core/refusal';
import { instant } from '@/core/time';
import { selectMarketplaces } from '@/database/marketplaces';
import { doJob, health } from '@/usecases/health/health';
import { link, saveLink } from '@/usecases/links/links';
import { pollAccount } from '@/usecases/links/poll';
import { carryOnRuns } from '@/usecases/orders/carryOut';
import { leaveItem, startRun } from '@/usecases/orders/start';
import { eachPartner } from '@/usecases/partners';
import { askRecords } from '@/usecases/records/ask';
import { drainChecks, queueChecks } from '@/usecases/records/check';
import { RateLimiter } from '@/usecases/records/rateLimiter';
import { followSelling } from '@/usecases/selling/follow';
import { TODAY } from './ledger';
import { sellingLedger } from './marketplace';
import { type LinkedLedger, linkedLedger } from './practice';

const closing: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0)) await close();
});

const END = instant('2026-12-09T10:15:00Z');

async function linked(...names: string[]): Promise<LinkedLedger> {
  const made = await linkedLedger(names, END);
  closing.push(made.close);
  return made;
}

test('a marketplace that repeats its events is not followed without end, and says so', async () => {
  const made = await sellingLedger(['brinebell.com']);
  closing.push(made.close);
  let asked = 0;
  const event = (id: number) => ({ id, at: TODAY, kind: 'unread' }) as const;
  const marketplace: MarketplaceLink = {
    ...made.ledger.marketplace({ url: 'http://127.0.0.1:1', key: 'k', allowedHosts: ['127.0.0.1'] }),
    events: async () => {
      asked += 1;
      return { kind: 'done', value: [event(7), event(7)] };
    },
  };
  await followSelling({ ...made.ledger, marketplace: () => marketplace });
  expect(asked).toBe(1);
  const [row] = await selectMarketplaces(made.ledger.database);
  expect(row?.linkProblem).toContain('repeats itself: event 7 came again');
});

test('a registrar whose message comes again though it was acknowledged is not polled without end', async () => {
  const made = await linked('copperbuoy.com');
  let polls = 0;
  const repeating: RegistrarLink = {
    ...made.ledger.connect({ host: '127.0.0.1', port: 1, login: '', password: '', allowedHosts: [] }),
    poll: async () => {
      polls += 1;
      return { kind: 'unknown', cause: 'message 1 comes again though it was acknowledged', sent: true };
    },
  };
  const answer = await pollAccount({ ...made.ledger, connect: () => repeating, links: new Map() }, made.accountId);
  expect(isRefusal(answer) && answer.message).toContain('comes again');
  expect(polls).toBe(1);
});

test('a name whose record cannot be read ends for itself; the others are checked', async () => {
  const made = await linked('copperbuoy.com', 'quaygone.com');
  const { createServer } = await import('node:http');
  const server = createServer((request, response) => {
    const name = request.url?.split('/').at(-1) ?? '';
    if (name === 'quaygone.com') response.writeHead(302, { location: 'http://[' }).end();
    else
      response.writeHead(200, { 'content-type': 'application/rdap+json' }).end(
        JSON.stringify({
          objectClassName: 'domain',
          ldhName: name,
          links: [{ rel: 'related', type: 'application/rdap+json', href: 'http://[' }],
          events: [{ eventAction: 'expiration', eventDate: '2026-12-09T10:15:00Z' }],
        }),
      );
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  closing.push(() => new Promise((closed) => server.close(() => closed())));
  const { port } = server.address() as { port: number };
  await made.ledger.database.query(
    `insert into settings (key, value) values ('records', $1) on conflict (key) do update set value = excluded.value`,
    [
      JSON.stringify({
        bootstrap: { version: '1.0', services: [[['com'], [`http://127.0.0.1:${port}/`]]] },
        whois: {},
        dns: null,
        allowedHosts: ['127.0.0.1'],
      }),
    ],
  );
  await queueChecks(made.ledger, ['copperbuoy.com', 'quaygone.com']);
  expect(await drainChecks(made.ledger)).toBe(2);
  const { rows } = await made.ledger.database.query<{ ascii: string }>('select ascii from records order by ascii');
  expect(rows).toEqual([{ ascii: 'copperbuoy.com' }]);
});

test('what a person leaves is what is in doubt: a paid or done item stays as it is', async () => {
  const made = await linked('copperbuoy.com');
  const id = await made.plan(['copperbuoy.com']);
  const nameId = made.ids.get('copperbuoy.com') ?? 0;
  const state = async () =>
    (await made.ledger.database.query('select state from renewal_items where renewal_id = $1', [id])).rows[0]?.state;
  for (const kept of ['done', 'reporting', 'sending', 'waiting']) {
    await made.ledger.database.query('update renewal_items set state = $2 where renewal_id = $1', [id, kept]);
    expect(await leaveItem(made.ledger, id, nameId)).toMatchObject({ code: 'item-not-in-doubt' });
    expect(await state()).toBe(kept);
  }
  await made.ledger.database.query("update renewal_items set state = 'doubt' where renewal_id = $1", [id]);
  expect(await leaveItem(made.ledger, id, nameId)).toBe(true);
  expect(await state()).toBe('refused');
});

test('a registrar that is left alone says why on its account, and is asked again as soon as its link is set anew', async () => {
  const made = await linked('copperbuoy.com');
  const { ledger, accountId } = made;
  await eachPartner(ledger, 'account', 'messages', [accountId], async () => 'It took longer than 45 seconds.');
  expect((await link(ledger, accountId))?.problem).toBe('It took longer than 45 seconds.');
  let asked = 0;
  const poll = async () => {
    asked += 1;
    return null;
  };
  await eachPartner(ledger, 'account', 'messages', [accountId], poll, 'with pauses');
  expect(asked).toBe(0);
  const row = await link(ledger, accountId);
  const password = 'quaymark-practice-pw';
  expect(await saveLink(ledger, { accountId, host: row?.host, port: row?.port, login: row?.login, password })).toBe(
    true,
  );
  await eachPartner(ledger, 'account', 'messages', [accountId], poll, 'with pauses');
  expect([asked, (await link(ledger, accountId))?.problem]).toEqual([1, null]);
});

test('one run that cannot go on leaves the others alone, and the job is told as failed', async () => {
  const made = await linked('copperbuoy.com', 'quayrun.com');
  const { ledger } = made;
  const ids = [await made.plan(['copperbuoy.com']), await made.plan(['quayrun.com'])];
  for (const id of ids) expect(await startRun(ledger, id)).toBe(1);
  const registrar = ledger.connect({
    host: '127.0.0.1',
    port: made.practice.ports.quaymark ?? 0,
    login: 'harbour-quaymark',
    password: 'quaymark-practice-pw',
    allowedHosts: ['127.0.0.1'],
  });
  const broken: RegistrarLink = {
    ...registrar,
    info: (name) => {
      if (name === 'copperbuoy.com') throw new Error('an answer that nobody understands');
      return registrar.info(name);
    },
  };
  const deps = { ...ledger, connect: () => broken, links: new Map() };
  await expect(doJob(deps, 'carry-on-runs', carryOnRuns)).rejects.toThrow('1 of 2 runs could not go on');
  expect((await health(ledger)).failedJobs).toMatchObject([
    { job: 'carry-on-runs', problem: '1 of 2 runs could not go on' },
  ]);
  const { rows } = await ledger.database.query<{ state: string }>(
    'select i.state from renewal_items i join names n on n.id = i.name_id order by n.ascii',
  );
  expect(rows.map(({ state }) => state)).toEqual(['waiting', 'done']);
  await registrar.close();
});

test('a server that stays silent is not waited for with every name, and is said to be silent, not to have asked for a pause', async () => {
  const { createServer } = await import('node:net');
  let connections = 0;
  const server = createServer((socket) => {
    connections += 1;
    socket.destroy();
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  closing.push(() => new Promise((closed) => server.close(() => closed())));
  const { port } = server.address() as { port: number };
  const rateLimiter = new RateLimiter({ atOnce: 1, gapMs: 0 });
  const servers = {
    bootstrap: { version: '1.0', services: [[['com'], [`http://127.0.0.1:${port}/`]]] },
    whois: { uk: `127.0.0.1:${port}` },
    dns: null,
    allowedHosts: ['127.0.0.1'],
  };
  const ask = (name: string) => askRecords(servers, rateLimiter, name, []);
  for (const name of ['a.com', 'b.com', 'c.com', 'd.com']) expect((await ask(name)).kind).toBe('failed');
  expect(await ask('e.com')).toMatchObject({ kind: 'later', problem: expect.stringContaining('has not answered') });
  expect(connections).toBe(4);
});
