import { indexRules, LedgerDay, type LedgerName, type LedgerRules, projectLedger } from '../ledger';
import { nameWith, rulesWith, TODAY } from '../ledger/sampleLedger';
import { amount } from '../money';
import { type Assumptions, USUAL_ASSUMPTIONS } from '../odds';
import { addDays, formatInstant, type Instant } from '../time';
import { type Forecast, type ForecastAsked, forecast, type NamedStrategy, NO_OFFER_FACTS, type Outcome } from './index';

export const STANDING: NamedStrategy = { label: 'as it stands', strategy: { kind: 'as it stands' } };

/** A ledger of some names, by the rules of the trade and those given. */
export function ledgerOf(names: readonly LedgerName[], rules: Partial<LedgerRules> = {}): LedgerDay {
  const sorted = [...names].sort((a, b) => (a.ascii < b.ascii ? -1 : 1));
  return new LedgerDay(projectLedger(indexRules(rulesWith(rules)), sorted, TODAY), TODAY);
}

/** Names with ends all over the coming years, some renewed by themselves, most asked something for. */
export function portfolio(count: number): LedgerName[] {
  return Array.from({ length: count }, (_, i) =>
    nameWith(`name${String(i).padStart(4, '0')}.com`, formatInstant(addDays(TODAY, 3 + ((i * 97) % 700)) as Instant), {
      setting: i % 3 === 0 ? 'off' : 'on',
      asking: i % 7 === 0 ? null : amount(20_000 + 9000 * (i % 11), 'USD'),
      purpose: i % 19 === 0 ? 'in use' : 'for sale',
    }),
  );
}

interface Told {
  readonly told: Forecast;
  readonly outcomes: readonly Outcome[];
}

/** Plays a forecast to its end; what is not given is as it stands, by the usual assumptions, over ten years. */
export function play(
  today: LedgerDay,
  more: Partial<ForecastAsked> = {},
  assumptions: Partial<Assumptions> = {},
): Told {
  const steps = forecast(today, {
    assumptions: { ...USUAL_ASSUMPTIONS, ...assumptions },
    view: null,
    facts: NO_OFFER_FACTS,
    strategies: [STANDING],
    months: 120,
    seed: 5,
    paths: 400,
    ...more,
  });
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
