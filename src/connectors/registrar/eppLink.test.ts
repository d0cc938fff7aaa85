import { type AddressInfo, connect, createServer } from 'node:net';
import { afterEach, describe, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { frame, frameReader } from '@/formats/epp/frames';
import { FAULTS } from '../../../practice/epp/faults';
import { type RunningPractice, runPractice } from '../../../practice/run';
import { schedule } from '../../../practice/world/days';
import { blankDomain } from '../../../practice/world/domain';
import { practiceCustomers, practiceRegistrars } from '../../../practice/world/registrars';
import type { Domain, World } from '../../../practice/world/types';
import { makeWorld } from '../../../practice/world/world';
import { eppLink } from './eppLink';
import type { RegistrarLink, RegistrarMessage } from './port';

const NOW = Date.parse('2026-11-24T09:12:00Z');
const END = Date.parse('2026-12-09T10:15:00Z');

let practice: RunningPractice;
let link: RegistrarLink;
afterEach(async () => {
  await link.close();
  await practice.stop();
});

/** A practice world with some names at Quaymark, and a link to it. */
async function begin(more: Partial<Domain> = {}, options = { timeoutMs: 400, sessions: 2 }): Promise<World> {
  const registrars = practiceRegistrars(NOW);
  const names = ['copperbuoy.com', 'larchpilot.com', 'tidewick.net'].map((name) => {
    const domain: Domain = { ...blankDomain(name, 'quaymark', NOW - 4e10, END), auto: 'on', ...more };
    const registrar = registrars[0];
    if (registrar) schedule(registrar, domain, NOW);
    return domain;
  });
  const world = makeWorld(NOW, registrars, practiceCustomers(NOW), names);
  practice = await runPractice({ world, store: null });
  link = eppLink(
    {
      host: '127.0.0.1',
      port: practice.ports.quaymark ?? 0,
      login: 'harbour-quaymark',
      password: 'quaymark-practice-pw',
      allowedHosts: ['127.0.0.1'],
    },
    options,
  );
  return world;
}

const order = (name = 'copperbuoy.com') => ({ name, curExpDate: '2026-12-09', years: 1, fee: amount(1138, 'USD') });

describe('a link at work', () => {
  test('logs in, and is told when it may not', async () => {
    await begin();
    expect(await link.test()).toMatchObject({ kind: 'done', value: 'Quaymark Names BV' });
    const wrong = eppLink({
      host: '127.0.0.1',
      port: practice.ports.quaymark ?? 0,
      login: 'harbour-quaymark',
      password: 'guess',
      allowedHosts: ['127.0.0.1'],
    });
    expect(await wrong.test()).toMatchObject({ kind: 'refused', code: 2501 });
    await wrong.close();
  });

  test('reads everything the login holds: names, balance, paymentMethod and rules', async () => {
    await begin({ lock: true });
    const holding = await link.holding();
    if (holding.kind !== 'done') throw new Error(holding.kind);
    expect(holding.value.balance).toEqual(amount(18_640, 'USD'));
    expect(holding.value.paymentMethods.map(({ kind, endsMonth }) => [kind, endsMonth])).toEqual([
      ['balance', null],
      ['card', '2026-10'],
    ]);
    expect(holding.value.rules).toMatchObject({ leadDays: 5, lateDays: 45, retryDays: [2], taxPercent: 0 });
    expect(holding.value.names).toHaveLength(3);
    expect(holding.value.names[0]).toMatchObject({
      name: 'copperbuoy.com',
      paidThrough: END,
      setting: 'on',
      lock: true,
    });
  });

  test('asks for prices live, with a promotion, and renews for no more than was agreed', async () => {
    await begin();
    const fees = async (code: string | null) => {
      const quote = await link.fees('renew', ['copperbuoy.com', 'tidewick.net'], 2, 'USD', code);
      return quote.kind === 'done' ? quote.value.map((one) => one.fees[0]?.total?.minor) : quote.kind;
    };
    expect(await fees(null)).toEqual([2276, 2620]);
    expect(await fees('HARBOUR10')).toEqual([2048, 2358]);
    expect(await link.renew({ ...order(), fee: amount(1000, 'USD') }, 'NL-cap')).toMatchObject({
      kind: 'refused',
      code: 2004,
    });
    expect(await link.renew(order(), 'NL-1')).toMatchObject({
      kind: 'done',
      value: {
        paidThrough: Date.parse('2027-12-09T10:15:00Z'),
        taken: amount(1138, 'USD'),
        balance: amount(17_502, 'USD'),
      },
    });
    // RFC 5731 section 3.2.3: the date guards against renewing twice.
    expect(await link.renew(order(), 'NL-1')).toMatchObject({ kind: 'refused', code: 2306 });
    expect(await link.info('copperbuoy.com')).toMatchObject({
      value: { receipt: { clTRID: 'NL-1', amount: amount(1138, 'USD') } },
    });
  });

  test('refusals carry the registrar’s reason', async () => {
    const world = await begin({ premiumMinor: 6200 });
    expect(await link.renew({ ...order(), fee: null }, 'NL-1')).toMatchObject({ kind: 'refused', code: 2003 });
    expect(await link.renew(order('nowhere.com'), 'NL-2')).toMatchObject({ kind: 'refused', code: 2303 });
    const customer = world.customers.get('quaymark');
    if (customer) customer.balanceMinor = 100;
    expect(await link.renew({ ...order(), fee: amount(6200, 'USD') }, 'NL-3')).toMatchObject({
      kind: 'refused',
      code: 2104,
      reason: 'card ended 2026-10',
    });
    expect(await link.topUp(amount(10_000, 'USD'), 'key-1')).toMatchObject({ kind: 'done' });
    expect(await link.topUp(amount(10_000, 'USD'), 'key-1')).toMatchObject({ kind: 'done' });
    expect(customer?.balanceMinor).toBe(10_100);
  });

  test('values are set: auto-renew, lock, privacy', async () => {
    const world = await begin();
    await link.change('copperbuoy.com', { auto: 'off', lock: true, privacy: true }, 'NL-1');
    expect(world.domains.get('copperbuoy.com')).toMatchObject({
      auto: 'off',
      lock: true,
      privacy: true,
      attemptAt: null,
    });
  });

  test('messages are stored, then acknowledged; one that could not be stored comes again', async () => {
    await begin();
    await practice.passTo(Date.parse('2026-12-20T00:00:00Z'));
    const seen: RegistrarMessage[] = [];
    await expect(
      link.poll(async () => {
        throw new Error('the database is away');
      }),
    ).rejects.toThrow('the database is away');
    expect(await link.poll(async (message) => void seen.push(message))).toMatchObject({ kind: 'done', value: 3 });
    expect(seen.map(({ event }) => [event?.kind, event?.name, event?.amount?.minor])).toEqual([
      ['charged', 'copperbuoy.com', 1138],
      ['charged', 'larchpilot.com', 1138],
      ['charged', 'tidewick.net', 1310],
    ]);
    expect(await link.poll(async () => undefined)).toMatchObject({ value: 0 });
  });
});

describe('whatever goes wrong on the way, what was ordered happens once or not at all, and the next order works', () => {
  test.each(FAULTS)(
    '%s',
    async (kind) => {
      const world = await begin();
      practice.faults.set('quaymark', kind, 1);
      const outcome = await link.renew(order(), 'NL-1');
      const expected = {
        refused: 'unknown',
        slow: 'unknown',
        cut: 'unknown',
        garbage: 'unknown',
        duplicate: 'done',
        busy: 'unknown',
        'result lost': 'unknown',
        // Strikes reports only.
        'report refused': 'done',
        'finished later': 'pending',
        // Strike transfers only.
        'code wrong': 'done',
        'transfer rejected': 'done',
        'approval lost': 'done',
        'zone not loaded': 'done',
        // Strike registrations only.
        'somebody faster': 'done',
        dearer: 'done',
      };
      expect(outcome.kind).toBe(expected[kind]);
      if (outcome.kind === 'unknown') expect(outcome.sent).toBe(kind !== 'refused');
      // The guard makes sending again safe: either the first was done, or this one is.
      await link.renew(order(), 'NL-1');
      expect(world.domains.get('copperbuoy.com')?.paidThrough).toBe(Date.parse('2027-12-09T10:15:00Z'));
      expect(world.receipts).toHaveLength(1);
      expect(await link.renew(order('larchpilot.com'), 'NL-2')).toMatchObject({ kind: 'done' });
    },
    15_000,
  );
});

test('on any address but loopback the session is encrypted, or there is none (RFC 5734 section 9)', async () => {
  await begin();
  const first: number[] = [];
  const server = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.once('data', (piece: Buffer) => {
      first.push(piece[0] ?? 0);
      socket.destroy();
    });
  });
  await new Promise<void>((ready) => server.listen(0, '0.0.0.0', ready));
  const away = eppLink(
    {
      host: '0.0.0.0',
      port: (server.address() as AddressInfo).port,
      login: 'harbour',
      password: 'kept-to-itself',
      allowedHosts: ['0.0.0.0'],
    },
    { timeoutMs: 1000 },
  );
  expect(await away.test()).toMatchObject({ kind: 'unknown' });
  // 22 is a TLS handshake record (RFC 8446 section 5.1): nothing was said in the clear.
  expect(first).toEqual([22]);
  await away.close();
  await new Promise((closed) => server.close(closed));
});

test('a server that always has more names, the same ones again, is not read without end', async () => {
  await begin();
  // Between the link and the registrar somebody takes away where the next page begins, and says that there is more.
  let pages = 0;
  const between = createServer((near) => {
    const far = connect(practice.ports.quaymark ?? 0, '127.0.0.1');
    for (const [from, onto, change] of [
      [near, far, (xml: string) => xml.replace(/<holding:after>[^<]*<\/holding:after>/, '')],
      [
        far,
        near,
        (xml: string) => {
          if (xml.includes('</holding:infData>')) pages += 1;
          return xml.replace('</holding:infData>', '<holding:more/></holding:infData>');
        },
      ],
    ] as const) {
      const read = frameReader();
      from.on('data', (piece: Buffer) => {
        for (const xml of read(piece)) onto.write(frame(change(xml)));
      });
      from.on('error', () => undefined);
      from.on('close', () => onto.destroy());
    }
  });
  await new Promise<void>((ready) => between.listen(0, '127.0.0.1', ready));
  const followed = eppLink({
    host: '127.0.0.1',
    port: (between.address() as AddressInfo).port,
    login: 'harbour-quaymark',
    password: 'quaymark-practice-pw',
    allowedHosts: ['127.0.0.1'],
  });
  expect(await followed.holding()).toMatchObject({ kind: 'unknown', cause: 'its list of names repeats itself' });
  expect(pages).toBe(2);
  await followed.close();
  await new Promise((closed) => between.close(closed));
});
