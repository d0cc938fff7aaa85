import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { PaymentMethod } from '@/core/funding';
import { indexRules, type LedgerName, projectLedger, rowsOn } from '@/core/ledger';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import type { Policy } from '@/core/lifecycle';
import { addDays, formatInstant, type Instant } from '@/core/time';
import { DAY } from '../../practice/world/calendar';
import { letDaysPass, schedule } from '../../practice/world/days';
import { blankDomain } from '../../practice/world/domain';
import { endingRules } from '../../practice/world/endings';
import { practiceCustomers, practiceRegistrars } from '../../practice/world/registrars';
import type { Customer, Domain, Registrar } from '../../practice/world/types';
import { makeWorld } from '../../practice/world/world';

/**
 * The core against the practice world, which was written from the trade rules alone and reads none of the core: for
 * generated accounts and names, what the core projects for a day is what the world comes to when its days pass.
 */
const ENDINGS = ['com', 'uk', 'de', 'nl', 'ai'] as const;

const policyOf = (ending: string): Policy => {
  const rules = endingRules(ending);
  return {
    ...GENERIC,
    ending,
    lateDays: rules.lateDays,
    redemptionDays: rules.redemptionDays,
    pendingDeleteDays: rules.pendingDeleteDays,
    pendingRestoreDays: rules.restoreReportDays,
    refundableDays: 0,
    yearlyFee: false,
    terms: { ...GENERIC.terms, renew: { least: rules.leastYears, greatest: 10, step: rules.stepYears } },
  };
};

const account = fc.record({
  leadDays: fc.constantFrom(0, 5, 15, 30),
  lateDays: fc.constantFrom(45, 30, 10, 0),
  yearsPerCharge: fc.constantFrom(1, 1, 2),
  retryDays: fc.constantFrom([], [2], [10, 5], [20, 12, 3]),
  balanceMinor: fc.integer({ min: 0, max: 400_000 }),
  paymentMethods: fc.constantFrom<readonly (readonly [PaymentMethod['kind'], string | null])[]>(
    [['balance', null]],
    [['card', '2027-03']],
    [
      ['balance', null],
      ['card', '2027-08'],
    ],
    [
      ['card', '2026-12'],
      ['balance', null],
    ],
    [
      ['balance', null],
      ['wallet', null],
    ],
  ),
  prices: fc.record(Object.fromEntries(ENDINGS.map((ending) => [ending, fc.integer({ min: 300, max: 9000 })]))),
});
const name = fc.record({
  account: fc.integer({ min: 0, max: 5 }),
  ending: fc.constantFrom(...ENDINGS),
  endMinutes: fc.integer({ min: -100 * 1440, max: 730 * 1440 }),
  setting: fc.constantFrom<Domain['auto']>('on', 'on', 'on', 'off', 'stalled'),
});

type Account = typeof account extends fc.Arbitrary<infer T> ? T : never;
type Name = typeof name extends fc.Arbitrary<infer T> ? T : never;

function core(accounts: readonly Account[], names: readonly Name[]) {
  const rules = rulesWith({
    policies: [GENERIC, ...ENDINGS.map(policyOf)],
    fees: [],
    accounts: accounts.map((one, i) => ({
      ...QUAYMARK,
      id: i + 1,
      label: `a${i}`,
      leadDays: one.leadDays,
      lateDays: one.lateDays,
      lateFeeMinor: 0,
      auctionDay: null,
      yearsPerCharge: one.yearsPerCharge,
      retryDays: one.retryDays,
      balanceMinor: one.balanceMinor,
      paymentMethods: one.paymentMethods.map(([kind, endsMonth]) => ({ kind, label: kind, endsMonth })),
    })),
    prices: accounts.flatMap((one, i) =>
      ENDINGS.map((ending) => ({ ...RENEWAL, accountId: i + 1, ending, yearMinor: one.prices[ending] ?? 0 })),
    ),
  });
  const ledger: LedgerName[] = names.map((one, i) =>
    nameWith(asciiOf(one, i), formatInstant((TODAY + one.endMinutes * 60_000) as Instant), {
      accountId: one.account + 1,
      ending: one.ending,
      setting: one.setting,
      registered: null,
    }),
  );
  return projectLedger(indexRules(rules), ledger, TODAY);
}

const asciiOf = (one: Name, i: number) => `n${String(i).padStart(4, '0')}.${one.ending}`;

function outside(accounts: readonly Account[], names: readonly Name[]) {
  const registrars = accounts.map(
    (one, i): Registrar => ({
      id: `a${i}`,
      title: `a${i}`,
      currency: 'USD',
      leadDays: one.leadDays,
      lateDays: one.lateDays,
      lateFeeMinor: 0,
      auctionDay: null,
      retryDays: one.retryDays,
      yearsPerCharge: one.yearsPerCharge,
      onNeedsPaymentDays: null,
      offTakesHours: 0,
      refundDays: 0,
      taxPercent: 0,
      asksHolderAfterTransfer: false,
      privacyMinor: 0,
      promotions: [],
      prices: Object.fromEntries(
        ENDINGS.map((ending) => {
          const renew = one.prices[ending] ?? 0;
          return [ending, { register: renew, renew, transfer: renew, restore: renew }];
        }),
      ),
    }),
  );
  const customers = accounts.map(
    (one, i): Customer => ({
      registrar: `a${i}`,
      login: `a${i}`,
      password: '',
      balanceMinor: one.balanceMinor,
      paymentMethods: one.paymentMethods.map(([kind, endsMonth]) => ({ kind, label: kind, endsMonth })),
      topUps: [],
    }),
  );
  const domains = names.map((one, i) => {
    const end = TODAY + one.endMinutes * 60_000;
    const domain: Domain = {
      ...blankDomain(asciiOf(one, i), `a${one.account}`, end - 400 * DAY, end),
      auto: one.setting,
    };
    schedule(registrars[one.account] as Registrar, domain, TODAY);
    return domain;
  });
  return makeWorld(TODAY, registrars, customers, domains);
}

test('for a thousand names the projected state of any day is the state of the practice world on that day', async () => {
  const days = [0, 1, 4, 9, 16, 30, 47, 61, 90, 128, 200, 365, 500, 729];
  await fc.assert(
    fc.asyncProperty(
      fc.array(account, { minLength: 6, maxLength: 6 }),
      fc.array(name, { minLength: 1000, maxLength: 1000 }),
      async (accounts, names) => {
        const projection = core(accounts, names);
        const world = outside(accounts, names);
        for (const ahead of days) {
          const day = addDays(TODAY, ahead);
          await letDaysPass(world, day);
          // The world has lived through what falls on this very instant; the projection's marks belong to what follows.
          if (ahead === 0) continue;
          const read = rowsOn(projection, day);
          for (const [place, one] of names.entries()) {
            const row = read(place);
            const domain = world.domains.get(asciiOf(one, place));
            const phase =
              domain === undefined
                ? 'available'
                : domain.state !== 'registered'
                  ? domain.state
                  : day < domain.paidThrough
                    ? 'term'
                    : 'late';
            expect([row.name.ascii, ahead, row.phase]).toEqual([row.name.ascii, ahead, phase]);
            if (domain?.state !== 'registered') continue;
            expect([row.name.ascii, ahead, row.termEnd?.at, row.setting]).toEqual([
              row.name.ascii,
              ahead,
              domain.paidThrough,
              domain.auto,
            ]);
          }
        }
        const balances = accounts.map((one, i) =>
          names
            .flatMap((n, place) => (n.account === i ? projection.charges.of(place) : []))
            .filter(
              (charge) =>
                charge.at <= addDays(TODAY, 729) && charge.outcome === 'pass' && charge.paymentMethod === 'balance',
            )
            .reduce((left, charge) => left - (charge.cost?.minor ?? 0), one.balanceMinor),
        );
        expect([...world.customers.values()].map((customer) => customer.balanceMinor)).toEqual(balances);
      },
    ),
    { numRuns: 6, endOnFailure: true },
  );
}, 120_000);

test('a name may be somebody else’s the moment it is free, and lives on as theirs', async () => {
  const registrars = practiceRegistrars(TODAY);
  const end = TODAY - 79 * DAY;
  const lapsed: Domain = { ...blankDomain('kelpkiln.com', 'quaymark', end - 400 * DAY, end), toldEnd: end };
  const world = makeWorld(
    end,
    registrars,
    practiceCustomers(TODAY),
    [lapsed],
    () => false,
    () => true,
  );
  await letDaysPass(world, TODAY + 2 * DAY);
  expect(world.domains.get('kelpkiln.com')).toMatchObject({ owner: 'stranger', createdAt: end + 80 * DAY });
  await letDaysPass(world, TODAY + 500 * DAY);
  // Its new holder has dropped it as well, and the next one has it.
  expect(world.domains.get('kelpkiln.com')?.createdAt).toBeGreaterThan(end + 400 * DAY);
  expect(world.messages.map(({ kind }) => kind)).toEqual(['deleted', 'redemption-ended', 'released']);
});
