import { describe, expect, test, vi } from 'vitest';
import { indexRules, LedgerDay, projectLedger } from '@/core/ledger';
import { nameWith, QUAYMARK, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { amount } from '@/core/money';
import { USUAL_ASSUMPTIONS } from '@/core/odds';
import { NO_OFFER_FACTS } from '@/core/prospects';
import { addDays, formatInstant, type Instant } from '@/core/time';
import { type ForecastWish, ProspectsWork } from './prospectsWork';
import type { RowView } from './views';

const names = Array.from({ length: 80 }, (_, i) =>
  nameWith(`name${String(i).padStart(2, '0')}.com`, formatInstant(addDays(TODAY, 10 + i * 8) as Instant), {
    setting: i % 4 === 0 ? 'off' : 'on',
    asking: amount(4000 + 9000 * i, 'USD'),
  }),
);
const rules = rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 1e8 }] });
const today = new LedgerDay(projectLedger(indexRules(rules), names, TODAY), TODAY);
const WISH: ForecastWish = {
  assumptions: USUAL_ASSUMPTIONS,
  view: null,
  months: 24,
  seed: 3,
  paths: 400,
  strategies: [{ label: 'as it stands', strategy: { kind: 'as it stands' } }],
};
const JUDGING = { assumptions: USUAL_ASSUMPTIONS, view: null };

describe('forecasts beside the page', () => {
  test('are worked out in slices, and are the same however they are cut', async () => {
    const onProgress = vi.fn();
    const told = await new ProspectsWork().forecast(today, NO_OFFER_FACTS, { ...WISH, paths: 30_000 }, onProgress);
    expect(told?.fans[0]?.paths).toBe(30_000);
    const done = onProgress.mock.calls.map(([paths]) => paths as number);
    expect(done).toEqual([...done].sort((a, b) => a - b));
    expect(done.length).toBeGreaterThan(0);
    const again = await new ProspectsWork().forecast(
      today,
      NO_OFFER_FACTS,
      { ...WISH, paths: 30_000 },
      () => undefined,
    );
    expect(again).toEqual(told);
  });

  test('one that is overtaken or cancelled answers nothing', async () => {
    const work = new ProspectsWork();
    const first = work.forecast(today, NO_OFFER_FACTS, { ...WISH, paths: 60_000 }, () => undefined);
    const second = work.forecast(today, NO_OFFER_FACTS, WISH, () => undefined);
    expect(await first).toBeNull();
    expect(await second).not.toBeNull();
    const third = work.forecast(today, NO_OFFER_FACTS, { ...WISH, paths: 60_000 }, () => work.cancel());
    expect(await third).toBeNull();
  });

  test('what is charged in a month is what the fan’s costs are', async () => {
    const work = new ProspectsWork();
    const told = await work.forecast(today, NO_OFFER_FACTS, WISH, () => undefined);
    for (const month of [0, 3, 11]) {
      const charges = work.monthCharges(today, USUAL_ASSUMPTIONS, month, 2);
      expect(charges.minor).toBe(told?.costs[month]);
      expect(charges.names.length).toBeLessThanOrEqual(2);
    }
  });
});

describe('the ranking beside the page', () => {
  const view = (row: object) => row as RowView;
  test('pages of it are its order, and one way of standing alone is filtered', () => {
    const work = new ProspectsWork();
    const all = work.ranked(today, NO_OFFER_FACTS, JUDGING, null, 0, 200, view);
    expect(all).toHaveLength(80);
    expect(work.ranked(today, NO_OFFER_FACTS, JUDGING, null, 10, 20, view)).toEqual(all.slice(10, 20));
    const sums = work.ranking(today, NO_OFFER_FACTS, JUDGING, 'not worth it');
    const alone = work.ranked(today, NO_OFFER_FACTS, JUDGING, 'not worth it', 0, 200, view);
    expect(alone).toHaveLength(sums.total);
    expect(alone.every(({ ranked }) => ranked.stand === 'not worth it')).toBe(true);
    expect(sums.counts.reduce((sum, count) => sum + count, 0)).toBe(80);
  });

  test('the drop list holds each of them once, and tells the first of a month', () => {
    const work = new ProspectsWork();
    const months = work.dropPlan(today, NO_OFFER_FACTS, JUDGING, 1);
    const ids = months.flatMap(({ nameIds }) => nameIds);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toHaveLength(work.ranking(today, NO_OFFER_FACTS, JUDGING, 'not worth it').total);
    for (const { lines } of months) expect(lines.length).toBeLessThanOrEqual(1);
  });
});
