import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { solve } from 'yalps';
import { indexRules, LedgerDay, type LedgerName, type LedgerRules, projectLedger, rowsOn } from '@/core/ledger';
import { nameWith, QUAYMARK, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { amount } from '@/core/money';
import { chanceOfSale, meanShare, USUAL_ASSUMPTIONS, USUAL_SHARE } from '@/core/odds';
import { NO_OFFER_FACTS, type OfferFacts, valuing } from '@/core/prospects';
import { bestUnderBudget, judge, judgeAll, needsRescue } from '@/core/rescue';
import { addDays, type Day, formatInstant } from '@/core/time';

/** Source: yalps, a general-purpose solver of mixed integer linear programs. */
function solved(choices: readonly { cost: number; worth: number; always: boolean }[], budget: number): number {
  const { result } = solve(
    {
      direction: 'maximize',
      objective: 'worth',
      constraints: { cost: { max: budget }, ...Object.fromEntries(choices.map((_, i) => [`one${i}`, { max: 1 }])) },
      variables: choices.map(({ cost, worth, always }, i) => [
        `x${i}`,
        { cost, worth: worth + (always ? 1e7 : 0), [`one${i}`]: 1 },
      ]),
      integers: true,
    },
    { tolerance: 0, precision: 1e-9, maxIterations: 1e6, timeout: 10_000 },
  );
  return Math.round(result) + 0;
}

const choice = fc.record({
  cost: fc.constantFrom(1138, 1310, 1220, 12_518, 14_410, 99, 4800),
  worth: fc.oneof(fc.integer({ min: -5000, max: 60_000 }), fc.constantFrom(2400, 3100)),
  always: fc.boolean(),
});

test('the best set under a budget is as good as a general-purpose solver finds, and within the budget', () => {
  fc.assert(
    fc.property(
      fc.array(choice, { minLength: 1, maxLength: 14 }),
      fc.integer({ min: 0, max: 60_000 }),
      (choices, budget) => {
        const taken = bestUnderBudget(choices, budget).map((place) => choices[place] as (typeof choices)[number]);
        expect(taken.reduce((sum, { cost }) => sum + cost, 0)).toBeLessThanOrEqual(budget);
        expect(taken.reduce((sum, { worth, always }) => sum + worth + (always ? 1e7 : 0), 0)).toBe(
          solved(choices, budget),
        );
      },
    ),
    { numRuns: 150 },
  );
});

test('five thousand names under a budget take no time that anybody would notice', () => {
  const choices = Array.from({ length: 5000 }, (_, i) => ({
    cost: i % 7 === 0 ? 12_518 : 1138 + (i % 5) * 86,
    worth: ((i * 7919) % 60_000) - 5000,
    always: i % 50 === 0,
  }));
  const start = performance.now();
  const taken = bestUnderBudget(choices, 4_000_000);
  expect(performance.now() - start).toBeLessThan(2000);
  expect(taken.length).toBeGreaterThan(500);
});

const rowOf = (days: number, more: Partial<LedgerName> = {}, balanceMinor = 0) => {
  const name = nameWith('one.com', formatInstant(addDays(TODAY, days)), { registered: null, ...more });
  const projection = projectLedger(indexRules(rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor }] })), [name], TODAY);
  return rowsOn(projection, TODAY)(0);
};

describe('what needs rescue', () => {
  test.each([
    [-10, {}, true],
    [-60, {}, true],
    [-78, {}, false],
    [30, {}, true],
    [70, {}, false],
    [30, { setting: 'on' as const }, true],
    [-10, { purpose: 'drop' as const }, false],
    [-60, { observed: { phase: 'pending restore' as const, at: addDays(TODAY, -2) } }, true],
  ])('%i days to the end, %j: %s', (days, more, wanted) => {
    expect(needsRescue(rowOf(days, more), TODAY)).toBe(wanted);
  });

  test('a name whose charge will pass needs none', () => {
    expect(needsRescue(rowOf(30, { setting: 'on' }, 5000), TODAY)).toBe(false);
  });
});

/** A ledger of names with so many days to the end of each, and what its names are judged by. */
function judging(
  names: readonly (readonly [days: number, more: Partial<LedgerName>])[],
  rules: Partial<LedgerRules> = {},
  facts: OfferFacts = NO_OFFER_FACTS,
) {
  const all = names.map(([days, more], i) =>
    nameWith(`name${i}.com`, formatInstant(addDays(TODAY, days)), { registered: null, ...more }),
  );
  const index = indexRules(rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 0 }], ...rules }));
  const today = new LedgerDay(projectLedger(index, all, TODAY), TODAY);
  return {
    today,
    rows: today.everyRow(),
    judge: valuing(today, { facts, assumptions: index.rules.assumptions, view: null }),
  };
}

function verdictOn(days: number, more: Partial<LedgerName>, rules: Partial<LedgerRules> = {}) {
  const { rows, judge: by } = judging([[days, more]], rules);
  return judge(rows[0] as (typeof rows)[number], by);
}

describe('the verdict', () => {
  const asking = (units: number) => ({ asking: amount(units * 100, 'USD') });
  test.each([
    ['renew', 'worth it', 30, asking(1200)],
    ['drop', 'not worth it', 30, asking(600)],
    ['renew late', 'worth it', -10, asking(1200)],
    ['drop', 'not worth it', -60, asking(1200)],
    ['restore', 'worth it', -60, asking(9000)],
    ['restore', 'never to be lost', -60, { neverLost: true }],
    ['renew', 'worth it', 30, { bestOffer: amount(5000, 'USD') }],
    ['drop', 'not worth it', 30, { ...asking(600), bestOffer: amount(900, 'USD') }],
    ['renew', 'worth it', 30, { ...asking(600), bestOffer: amount(5000, 'USD') }],
    ['renew', 'decided', 30, { rescue: 'keep' as const }],
    ['drop', 'decided', -10, { rescue: 'drop' as const, neverLost: true }],
    ['renew', 'worth it', 30, { ...asking(600), saleChance: 0.9 }],
    ['renew late', 'in use', -10, { purpose: 'in use' as const }],
    // Nobody has said enough: never a reason to let a name go.
    ['undecided', 'no price asked', 30, {}],
    ['undecided', 'no price asked', -60, {}],
    ['undecided', 'other currency', 30, { asking: amount(90_000, 'EUR') }],
    [
      'send the report',
      'restore is paid',
      -60,
      { observed: { phase: 'pending restore' as const, at: addDays(TODAY, -2) } },
    ],
  ] as const)('%s, because %s', (verdict, reason, days, more) => {
    const judged = verdictOn(days, more);
    expect([judged.verdict, judged.reason.kind]).toEqual([verdict, reason]);
  });

  test('another currency is compared by a rate where there is one', () => {
    const rates = [{ from: '2026-01-01' as Day, currency: 'EUR', into: 'USD', factor: 1.1 }];
    expect(verdictOn(30, { asking: amount(150_000, 'EUR') }, { rates }).verdict).toBe('renew');
    expect(verdictOn(30, { asking: amount(30_000, 'EUR') }, { rates }).verdict).toBe('drop');
  });

  test('a name that is being sold is kept, whatever it may bring', () => {
    const { rows, judge: by } = judging([[30, asking(30)]]);
    const selling = Int32Array.of(rows[0]?.name.id ?? 0);
    const sold = judging(
      [[30, asking(30)]],
      {},
      { ...NO_OFFER_FACTS, selling: Int32Array.of((selling[0] as number) + 1) },
    );
    expect(judge(rows[0] as (typeof rows)[number], by).verdict).toBe('drop');
    expect(judge(sold.rows[0] as (typeof rows)[number], sold.judge)).toMatchObject({
      verdict: 'renew',
      reason: { kind: 'being sold' },
      always: true,
    });
  });

  test('all names are judged: what should go first, what nobody can say next, what pays for itself last', () => {
    const { rows, judge: by } = judging([
      [300, asking(9000)],
      [200, {}],
      [250, asking(300)],
      [250, asking(30)],
      [100, { purpose: 'drop' }],
      [-60, asking(30)],
    ]);
    const { names, drop, undecided, keep, saving } = judgeAll(rows, by);
    expect(names.map(({ row, judgement }) => [judgement.verdict, row.name.asking?.minor ?? null])).toEqual([
      ['drop', 3000],
      ['drop', 30_000],
      ['undecided', null],
      ['renew', 900_000],
    ]);
    expect({ drop, undecided, keep }).toEqual({ drop: 2, undecided: 1, keep: 1 });
    expect(saving).toEqual([amount(2276, 'USD')]);
  });

  test.each([
    [200, {}],
    [200, { setting: 'on' as const }],
    [-10, {}],
    [-60, {}],
  ])('%i days to the end, %j: what a year costs is the same to Rescue and to what weighs it', (days, more) => {
    for (const lateFeeMinor of [0, 350]) {
      const accounts = [{ ...QUAYMARK, lateFeeMinor, balanceMinor: 1e9 }];
      const { rows, judge: by } = judging([[days, { ...asking(600), ...more }]], { accounts });
      const [row] = rows as [(typeof rows)[number]];
      const { costs } = by.costsOf(0) ?? { costs: [] };
      expect(costs[0]).toBe(judge(row, by).cost?.minor);
      expect(costs.slice(1)).toEqual(Array.from({ length: 9 }, () => 1138));
    }
  });

  test('it rests on the chance of the coming year, the mean share of what is asked, less commission, and the years after', () => {
    const assumptions = { ...USUAL_ASSUMPTIONS, chance: 0.05, commission: 0.2, interest: 0.1 };
    const { reason } = verdictOn(30, asking(1200), { assumptions });
    // Source: the recursion written out, ten years at a constant cost of 11.38.
    const rate = { sales: 5, nameYears: 100 };
    const n = 1200 * meanShare(USUAL_SHARE, 0) * 0.8;
    let value = 0;
    for (let t = 9; t >= 0; t -= 1) {
      const p = chanceOfSale(rate, 1, t);
      value = Math.max(0, value);
      value = -11.38 + p * n + ((1 - p) * value) / 1.1;
    }
    expect(reason).toMatchObject({
      kind: 'worth it',
      cost: amount(1138, 'USD'),
      proceeds: amount(Math.round(n * 100), 'USD'),
      value: amount(Math.round(value * 100), 'USD'),
    });
  });
});
