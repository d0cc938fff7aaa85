import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fundingOf } from '../ledger';
import { nameWith, QUAYMARK, RENEWAL, TODAY } from '../ledger/sampleLedger';
import { type Assumptions, USUAL_ASSUMPTIONS } from '../odds';
import { addDays } from '../time';
import {
  courseOf,
  expectedProfit,
  forecast,
  monthAt,
  monthScale,
  NO_OFFER_FACTS,
  type Outcome,
  type Strategy,
  schedulesOf,
} from './index';
import { ledgerOf, play, portfolio, STANDING } from './samplePlay';

describe('as it stands', () => {
  test('without any chance of a sale it is the cash line of the projection, to the cent', () => {
    for (const balanceMinor of [0, 9000, 40_000, 1e9]) {
      const today = ledgerOf(portfolio(60), { accounts: [{ ...QUAYMARK, balanceMinor, retryDays: [2, 1] }] });
      const { told } = play(today, { paths: 3 }, { chance: 0 });
      const scale = monthScale(TODAY);
      // The projection of the ledger itself, as far as it goes: three years.
      const [funding] = fundingOf(today.projection, addDays(TODAY, 3 * 365));
      let balance = balanceMinor;
      for (let month = 0; month < 35; month += 1) {
        for (const charge of funding?.charges ?? [])
          if (charge.outcome === 'pass' && monthAt(scale, charge.at) === month) balance -= charge.cost?.minor ?? 0;
        for (const line of told.fans[0]?.lines ?? []) expect(line[month]).toBe(balance);
      }
      expect(told.fans[0]?.carries).toBe(balance === balanceMinor ? 1 : 0);
    }
  });

  test('prices rise by the year as the office expects, each charge rounded once', () => {
    const rises = [{ accountId: 1, ending: 'com', yearly: 0.07 }];
    const today = ledgerOf([nameWith('one.com', '2027-03-01T00:00:00Z', { setting: 'on' })], {
      rises,
      accounts: [{ ...QUAYMARK, balanceMinor: 1e9 }],
    });
    const { standing, kept } = schedulesOf(today, USUAL_ASSUMPTIONS);
    const expected = Array.from({ length: 10 }, (_, year) => Math.round(RENEWAL.yearMinor * 1.07 ** year));
    expect([...standing.minor]).toEqual(expected);
    expect([...kept.minor]).toEqual(expected);
  });

  test('an account that charges years before a term ends is played too, however many charges that makes at first', () => {
    const accounts = [{ ...QUAYMARK, leadDays: 1500, balanceMinor: 1e9 }];
    const early = ledgerOf(
      [nameWith('one.com', '2027-03-01T00:00:00Z', { setting: 'on' }), nameWith('two.com', '2027-03-01T00:00:00Z')],
      { accounts },
    );
    const { standing, kept } = schedulesOf(early, USUAL_ASSUMPTIONS);
    const months = [...kept.month.slice(0, kept.first[1])];
    expect(months.length).toBeGreaterThan(12);
    expect([...standing.month]).toEqual(months);
    expect([...kept.month.slice(kept.first[1])]).toEqual(months);
  });

  test('a month on which no charge falls costs nothing, and no name is charged once its term has ended for good', () => {
    const today = ledgerOf([
      nameWith('off.com', '2027-03-01T00:00:00Z'),
      nameWith('on.com', '2027-03-01T00:00:00Z', { setting: 'on' }),
    ]);
    const { standing, kept } = schedulesOf(today, USUAL_ASSUMPTIONS);
    expect(standing.first[1]).toBe(0);
    expect(kept.first[1]).toBe(10);
  });
});

describe('strategies', () => {
  const today = ledgerOf(portfolio(120), { accounts: [{ ...QUAYMARK, balanceMinor: 1e9 }] });
  const all: Strategy[] = [
    { kind: 'as it stands' },
    { kind: 'keep all' },
    { kind: 'drop what is not worth it' },
    { kind: 'budget', yearlyMinor: 40_000 },
    { kind: 'lower prices', share: 0.3 },
    {
      kind: 'thought',
      dropped: [today.projection.names.columns.id[5] as number],
      asked: [{ nameId: today.projection.names.columns.id[0] as number, minor: 90_000 }],
    },
  ];
  const strategies = all.map((strategy) => ({ label: strategy.kind, strategy }));
  const assumptions = { ...USUAL_ASSUMPTIONS, chance: 0.08, elasticity: 2 };
  const scale = monthScale(TODAY);

  test('the mean of the paths is what the closed form says, of every strategy, alone and beside others', () => {
    const paths = 3000;
    const together = play(today, { strategies, paths }, assumptions);
    for (const [i, named] of strategies.entries()) {
      const steps = forecast(today, {
        assumptions,
        view: null,
        facts: NO_OFFER_FACTS,
        strategies: [named],
        months: 120,
        seed: 11,
        paths,
      });
      let step = steps.next();
      while (!step.done) step = steps.next();
      const ground = { valuing: step.value.valuing, ...schedulesOf(today, assumptions) };
      const course = courseOf(named.strategy, named.label, ground);
      const expected = expectedProfit(step.value.valuing.book, course, scale, 120);
      for (const fan of [together.told.fans[i], step.value.told.fans[0]]) {
        const error = (fan?.profit.spread ?? 0) / Math.sqrt(paths);
        expect(Math.abs((fan?.profit.mean ?? 0) - expected)).toBeLessThan(4 * error);
      }
    }
  });

  test('a budget is never overspent, and what is always kept comes first', () => {
    const { standing, kept } = schedulesOf(today, assumptions);
    const steps = forecast(today, {
      assumptions,
      view: null,
      facts: NO_OFFER_FACTS,
      strategies: [STANDING],
      months: 12,
      seed: 1,
      paths: 1,
    });
    let step = steps.next();
    while (!step.done) step = steps.next();
    const ground = { valuing: step.value.valuing, standing, kept };
    const yearlyMinor = 12_000;
    const { paid } = courseOf({ kind: 'budget', yearlyMinor }, 'budget', ground);
    for (let year = 0; year < 10; year += 1) {
      let sum = 0;
      for (let place = 0; place < paid.length; place += 1)
        for (let i = kept.first[place] as number; i < (paid[place] as number); i += 1)
          if (Math.floor((kept.month[i] as number) / 12) === year) sum += kept.minor[i] as number;
      expect(sum).toBeLessThanOrEqual(yearlyMinor);
    }
    const inUse = today.projection.names.all().flatMap(({ purpose }, place) => (purpose === 'in use' ? [place] : []));
    for (const place of inUse) expect(paid[place]).toBe(kept.first[place + 1]);
  });

  test('at no answer of the chance to the price, lowering prices can only lose', () => {
    const { told, outcomes } = play(
      today,
      { strategies: [STANDING, { label: 'lower', strategy: { kind: 'lower prices', share: 0.2 } }] },
      { ...assumptions, elasticity: 0 },
    );
    const [standing, lower] = outcomes as [Outcome, Outcome];
    for (let i = 0; i < standing.balances.length; i += 1)
      expect(lower.balances[i] as number).toBeLessThanOrEqual(standing.balances[i] as number);
    expect(told.compared[0]?.better).toBe(0);
  });

  test('a name that nobody asked anything for is on offer only where that is thought of', () => {
    const id = nameWith('quiet.com', '2027-06-01T00:00:00Z', { setting: 'on' });
    const quiet = ledgerOf([id], { accounts: [{ ...QUAYMARK, balanceMinor: 1e9 }] });
    const thought: Strategy = { kind: 'thought', dropped: [], asked: [{ nameId: id.id, minor: 500_000 }] };
    const { told } = play(
      quiet,
      { strategies: [STANDING, { label: 'thought', strategy: thought }] },
      { chance: 0.5, nameYears: 1e9 },
    );
    expect(told.fans[0]?.namesSold).toBe(0);
    expect(told.fans[1]?.namesSold).toBeGreaterThan(0.9);
    expect(told.offered).toBe(0);
  });

  test('dropping names pays none of their charges, and saves just these where nothing sells', () => {
    const dropped = [...today.projection.names.columns.id].slice(0, 10);
    const { told } = play(
      today,
      { strategies: [STANDING, { label: 'thought', strategy: { kind: 'thought', dropped, asked: [] } }], paths: 2 },
      { chance: 0 },
    );
    const { standing } = schedulesOf(today, USUAL_ASSUMPTIONS);
    const saved = standing.minor.slice(0, standing.first[10]).reduce((sum, minor) => sum + minor, 0);
    expect(told.compared[0]).toMatchObject({ difference: saved, standardError: 0, better: 1 });
  });
});

describe('whatever is assumed', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });
  const money = fc.integer({ min: -1e12, max: 1e12 });
  const assumptions: fc.Arbitrary<Partial<Assumptions>> = fc.record({
    grouping: fc.constantFrom('ending', 'tag', 'asking'),
    chance: fc.oneof(share, fc.constantFrom(0, 1e-9, 1)),
    nameYears: fc.constantFrom(1, 100, 1e6),
    countOwnSales: fc.boolean(),
    medianShare: maybe(fc.double({ min: 0.01, max: 5, noNaN: true })),
    shareSigma: maybe(fc.double({ min: 0, max: 3, noNaN: true })),
    commission: share,
    offerFactor: fc.double({ min: 0, max: 100, noNaN: true }),
    interest: share,
    elasticity: fc.double({ min: 0, max: 10, noNaN: true }),
    cashMinor: money,
    floorMinor: money,
    unknownPriceMinor: fc.integer({ min: 0, max: 1e12 }),
    unknownBalanceMinor: fc.integer({ min: 0, max: 1e12 }),
  });
  const names = portfolio(25).map((name, i) => ({ ...name, saleChance: [null, 0, 0.4, 0.999][i % 4] ?? null }));
  const today = ledgerOf(names, { accounts: [{ ...QUAYMARK, balanceMinor: null }], prices: [] });
  const offers = { nameId: Int32Array.of(names[2]?.id ?? 0), count: Int32Array.of(3) };
  const strategies = (
    [
      { kind: 'as it stands' },
      { kind: 'keep all' },
      { kind: 'drop what is not worth it' },
      { kind: 'budget', yearlyMinor: 0 },
      { kind: 'lower prices', share: 0.99 },
    ] satisfies Strategy[]
  ).map((strategy) => ({ label: strategy.kind, strategy }));

  test('the paths come to an end, every figure is a number, and the lines of a fan never cross', () => {
    fc.assert(
      fc.property(assumptions, (assumed) => {
        const { told } = play(
          today,
          { paths: 20, months: 60, strategies, facts: { ...NO_OFFER_FACTS, offers } },
          assumed,
        );
        expect(told.fans).toHaveLength(strategies.length);
        for (const { lines, profit, carries, namesSold } of told.fans) {
          for (const value of [...lines.flat(), profit.mean, profit.spread, profit.worstTenth, carries, namesSold])
            expect(Number.isFinite(value)).toBe(true);
          for (let i = 1; i < lines.length; i += 1)
            for (const [month, value] of (lines[i] ?? []).entries())
              expect(value).toBeGreaterThanOrEqual(lines[i - 1]?.[month] ?? 0);
          expect(namesSold).toBeLessThanOrEqual(names.length);
        }
        for (const { profitLow, profitHigh } of told.movers) expect(Number.isFinite(profitLow + profitHigh)).toBe(true);
      }),
      // The ends of what may be typed, all at once.
      {
        numRuns: process.env.SOAK ? 2000 : 40,
        examples: [
          [
            {
              ...USUAL_ASSUMPTIONS,
              chance: 1,
              nameYears: 1e6,
              elasticity: 10,
              offerFactor: 100,
              unknownPriceMinor: 1,
              unknownBalanceMinor: 1e12,
            },
          ],
        ],
      },
    );
  }, 600_000);
});
