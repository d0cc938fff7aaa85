import { afterEach, describe, expect, test } from 'vitest';
import { amount } from '@/core/money';
import type { FaultKind } from '../../../practice/epp/faults';
import { type RunningPractice, runPractice } from '../../../practice/run';
import { blankDomain } from '../../../practice/world/domain';
import { practiceCustomers, practiceRegistrars } from '../../../practice/world/registrars';
import { askedToRegister, unregistered } from '../../../practice/world/unregistered';
import { makeWorld } from '../../../practice/world/world';
import { eppLink } from './eppLink';
import type { RegistrarLink } from './port';

const NOW = Date.parse('2026-11-24T09:12:00Z');
let practice: RunningPractice;
let link: RegistrarLink;
afterEach(async () => {
  await link.close();
  await practice.stop();
});

async function begin(balanceMinor = 18_640) {
  const registrars = practiceRegistrars(NOW);
  const customers = practiceCustomers(NOW);
  for (const customer of customers) if (customer.registrar === 'quaymark') customer.balanceMinor = balanceMinor;
  const taken = { ...blankDomain('kelpkiln.com', 'larkhythe', NOW - 4e10, NOW + 4e9), owner: 'stranger' as const };
  const world = makeWorld(NOW, registrars, customers, [taken]);
  practice = await runPractice({ world, store: null });
  const address = {
    host: '127.0.0.1',
    login: 'harbour-quaymark',
    password: 'quaymark-practice-pw',
    allowedHosts: ['127.0.0.1'],
  };
  link = eppLink({ ...address, port: practice.ports.quaymark ?? 0 }, { timeoutMs: 400, sessions: 2 });
  return world;
}

const wanted = {
  name: 'ternloft.com',
  years: 1,
  fee: amount(1138, 'USD'),
  authInfo: 'a-code-of-our-own',
  nameServers: [],
  promotion: null,
  payBy: null,
};

test('names are checked in one question, each as its registry keeps it', async () => {
  const world = await begin();
  const names = ['kelpkiln.com', 'www.com', ...Array.from({ length: 200 }, (_, i) => `loft${i}tern.com`)];
  const asked = await link.check(names, 1, 'USD');
  if (asked.kind !== 'done') throw new Error(asked.kind);
  expect(asked.value.map(({ name }) => name)).toEqual(names);
  const [quaymark] = practiceRegistrars(NOW);
  if (!quaymark) throw new Error('no registrar');
  for (const { name, avail, premium, register } of asked.value) {
    const { reserved, own } = unregistered(name);
    expect(avail).toBe(!world.domains.has(name) && !reserved);
    if (!avail) continue;
    expect(premium).toBe(own !== null);
    expect(register?.minor).toBe(askedToRegister(quaymark, name, 1));
  }
  expect(asked.value.filter(({ premium, avail }) => premium && avail).length).toBeGreaterThan(2);
});

describe('a name is registered once, and only for what was agreed to', () => {
  test('it is ours from then on, and paid', async () => {
    const world = await begin();
    const made = await link.create(wanted, 'NL-1');
    expect(made).toMatchObject({
      kind: 'done',
      value: { taken: amount(1138, 'USD'), balance: amount(17_502, 'USD'), paymentMethod: 'balance' },
    });
    expect(await link.info('ternloft.com')).toMatchObject({
      kind: 'done',
      value: { sponsor: 'harbour-quaymark', receipt: { clTRID: 'NL-1' } },
    });
    expect(await link.create(wanted, 'NL-1')).toMatchObject({ kind: 'refused', code: 2302 });
    expect(world.receipts).toHaveLength(1);
  });

  test.each([
    ['somebody has it', { ...wanted, name: 'kelpkiln.com' }, 2302],
    ['reserved', { ...wanted, name: 'www.com' }, 2306],
    ['less than it costs', { ...wanted, fee: amount(1137, 'USD') }, 2004],
    ['not sold here', { ...wanted, name: 'ternloft.de' }, 2306],
    ['eleven years', { ...wanted, years: 11, fee: amount(99_999, 'USD') }, 2306],
  ])('%s', async (_why, order, code) => {
    await begin();
    expect(await link.create(order, 'NL-1')).toMatchObject({ kind: 'refused', code });
  });

  test('a balance that is too small takes nothing', async () => {
    const world = await begin(100);
    expect(await link.create(wanted, 'NL-1')).toMatchObject({ kind: 'refused', code: 2104 });
    expect(world.domains.has('ternloft.com')).toBe(false);
  });

  test.each(['cut', 'garbage', 'result lost', 'slow', 'busy'] as readonly FaultKind[])(
    '%s: what may have been sent is unknown, and is found by its receipt',
    async (kind) => {
      const world = await begin();
      practice.faults.set('quaymark', kind, 1);
      const made = await link.create(wanted, 'NL-1');
      expect(made.kind).toBe('unknown');
      const there = await link.info('ternloft.com');
      if (kind === 'busy') expect(there).toMatchObject({ kind: 'refused', code: 2303 });
      else expect(there).toMatchObject({ kind: 'done', value: { receipt: { clTRID: 'NL-1' } } });
      expect(world.receipts.length).toBe(kind === 'busy' ? 0 : 1);
    },
  );

  test('taken for later: told as pending, the name says so, a message settles it', async () => {
    await begin();
    practice.faults.set('quaymark', 'finished later', 1);
    expect(await link.create(wanted, 'NL-1')).toMatchObject({ kind: 'pending' });
    expect(await link.info('ternloft.com')).toMatchObject({
      kind: 'done',
      value: { statuses: expect.arrayContaining(['pendingCreate']) },
    });
    const settled: unknown[] = [];
    await link.poll(async ({ settled: one }) => void settled.push(one));
    expect(settled).toContainEqual(expect.objectContaining({ clTRID: 'NL-1', isDone: true }));
  });

  test('somebody else is faster', async () => {
    const world = await begin();
    practice.faults.set('quaymark', 'somebody faster', 1);
    expect(await link.create(wanted, 'NL-1')).toMatchObject({ kind: 'refused', code: 2302 });
    expect(await link.info('ternloft.com')).toMatchObject({ kind: 'refused', code: 2201 });
    expect(world.receipts).toHaveLength(0);
  });
});
