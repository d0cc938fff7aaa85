import { describe, expect, test } from 'vitest';
import { GENERIC, TODAY } from '@/core/ledger/sampleLedger';
import {
  lifecycleMarks,
  type NameAction,
  type ObservedPhase,
  type Phase,
  phaseAt,
  refuseAction,
} from '@/core/lifecycle';
import { addDays, type Instant } from '@/core/time';
import { passTo } from '../../practice/world/days';
import { blankDomain } from '../../practice/world/domain';
import * as orders from '../../practice/world/orders';
import { practiceCustomers, practiceRegistrars } from '../../practice/world/registrars';
import type { Customer, Domain, Registrar } from '../../practice/world/types';
import { makeWorld } from '../../practice/world/world';

/**
 * Every action in every phase, in the practice world and in the core: what the one carries out the other allows, and what is
 * refused says from which day or until which day it works.
 */
const NAME = 'copperbuoy.com';
const REGISTERED = addDays(TODAY, -400);
const LIVES: Readonly<Record<Exclude<Phase, 'pending transfer'>, number>> = {
  // Days from the end of the term to the day on which the name is in the phase.
  refundable: -363,
  term: -100,
  late: 20,
  redemption: 60,
  'pending restore': 61,
  'pending delete': 77,
  available: 90,
};

function live(phase: Exclude<Phase, 'pending transfer'>) {
  const registrars = practiceRegistrars(TODAY);
  const registrar = registrars[0] as Registrar;
  const registered = phase === 'refundable' ? addDays(TODAY, -2) : REGISTERED;
  const end = addDays(TODAY, -LIVES[phase]) as Instant;
  const domain: Domain = {
    ...blankDomain(NAME, registrar.id, registered, end),
    authInfo: 'code',
    toldEnd: null,
  };
  const world = makeWorld(addDays(end, -365), registrars, practiceCustomers(TODAY), [domain]);
  const customer = world.customers.get(registrar.id) as Customer;
  customer.balanceMinor = 1e7;
  const order = { world, registrar, customer, clTRID: 'TEST' };
  passTo(world, phase === 'pending restore' ? addDays(TODAY, -1) : TODAY);
  let observed: ObservedPhase | null = null;
  if (phase === 'pending restore') {
    orders.requestRestore(order, NAME, 12_518, null);
    observed = { phase: 'pending restore', at: addDays(TODAY, -1) };
    passTo(world, TODAY);
  }
  const marks = lifecycleMarks(
    { registeredAt: registered, termEnd: { at: end, precision: 'instant' }, observed },
    GENERIC,
    { lateDays: 45, auctionDay: null },
  );
  expect(phaseAt(marks, observed, TODAY)).toBe(phase);
  const act: Readonly<Record<NameAction, () => { code: number }>> = {
    renew: () =>
      orders.renew(order, {
        name: NAME,
        curExpDate: new Date(end).toISOString().slice(0, 10),
        years: 1,
        feeMinor: null,
        promotion: null,
        payBy: null,
      }),
    restore: () => orders.requestRestore(order, NAME, 12_518, null),
    report: () => orders.reportRestore(order, NAME),
    switch: () => orders.change(order, NAME, { auto: 'on' }),
    refund: () => {
      const answer = orders.remove(order, NAME);
      // A deletion that brings no money back is not a refund.
      return answer.amountMinor === undefined ? { code: 2304 } : answer;
    },
  };
  return { act, facts: { phase, marks } as const };
}

const TABLE: Readonly<Record<Exclude<Phase, 'pending transfer'>, Readonly<Record<NameAction, string | null>>>> = {
  refundable: {
    renew: null,
    restore: 'Not deleted: renew it. A restore is for after 6 Jan 2028.',
    report: 'No restore was requested, so there is nothing to report on.',
    switch: null,
    refund: null,
  },
  term: {
    renew: null,
    restore: 'Not deleted: renew it. A restore is for after 18 Apr 2027.',
    report: 'No restore was requested, so there is nothing to report on.',
    switch: null,
    refund: 'It could be deleted for a refund until 25 Oct 2025.',
  },
  late: {
    renew: null,
    restore: 'Not deleted: renew it. A restore is for after 19 Dec 2026.',
    report: 'No restore was requested, so there is nothing to report on.',
    switch: null,
    refund: 'It could be deleted for a refund until 25 Oct 2025.',
  },
  redemption: {
    renew: 'In redemption since 9 Nov 2026: it can only be restored, until 9 Dec 2026.',
    restore: null,
    report: 'No restore was requested, so there is nothing to report on.',
    switch: 'In redemption since 9 Nov 2026: it can only be restored, until 9 Dec 2026.',
    refund: 'It could be deleted for a refund until 25 Oct 2025.',
  },
  'pending restore': {
    renew: 'A restore is pending: wait until it is settled. The report is due by 30 Nov 2026.',
    restore: 'A restore is pending: wait until it is settled. The report is due by 30 Nov 2026.',
    report: null,
    switch: 'A restore is pending: wait until it is settled. The report is due by 30 Nov 2026.',
    refund: 'It could be deleted for a refund until 25 Oct 2025.',
  },
  'pending delete': all('Pending delete: nothing can be done until it is available, on 27 Nov 2026 at the earliest.'),
  available: all('Released on 14 Nov 2026: it would have to be registered anew.'),
};

function all(reason: string): Readonly<Record<NameAction, string>> {
  return { renew: reason, restore: reason, report: reason, switch: reason, refund: reason };
}

describe.each(Object.entries(TABLE))('in %s', (phase, actions) => {
  test.each(Object.entries(actions))('%s: %s', (action, reason) => {
    const { act, facts } = live(phase as Exclude<Phase, 'pending transfer'>);
    const refused = refuseAction(action as NameAction, facts);
    expect(refused?.message ?? null).toBe(reason);
    const { code } = act[action as NameAction]();
    expect([code, code < 2000]).toEqual([code, reason === null]);
  });
});

test('what is moving is left to where it arrives', () => {
  const { facts } = live('term');
  expect(refuseAction('renew', { ...facts, phase: 'pending transfer' })?.code).toBe('pending-transfer');
});
