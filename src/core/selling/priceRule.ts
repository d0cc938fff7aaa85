import { roundHalfAway } from '../money';

/** How a price that was worked out is rounded. */
export const ROUNDINGS = ['whole', '50s', '99s'] as const;
export type Rounding = (typeof ROUNDINGS)[number];

/** What a price is worked out from. */
export const RULE_BASES = ['cost', 'comparable', 'asking'] as const;
export type RuleBase = (typeof RULE_BASES)[number];

export interface PriceRule {
  readonly base: RuleBase;
  /** Greater than 0. */
  readonly factor: number;
  readonly rounding: Rounding;
}

/** Rounds to whole units, to fifties, or to a price that ends in 99; never to nothing. `unitMinor` is one whole unit. */
export function roundPrice(minor: number, rounding: Rounding, unitMinor: number): number {
  const units = minor / unitMinor;
  switch (rounding) {
    case 'whole':
      return Math.max(1, roundHalfAway(units)) * unitMinor;
    case '50s':
      return Math.max(50, roundHalfAway(units / 50) * 50) * unitMinor;
    case '99s':
      return Math.max(99, roundHalfAway((units + 1) / 100) * 100 - 1) * unitMinor;
  }
}

/** The price by a rule, or `null` where its base is not known. */
export function priceByRule(baseMinor: number | null, rule: PriceRule, unitMinor: number): number | null {
  return baseMinor === null || baseMinor <= 0 ? null : roundPrice(baseMinor * rule.factor, rule.rounding, unitMinor);
}
