import type { LedgerName, LedgerRow, SaleOdds } from '../ledger';
import { type Amount, amount, convert, type Rate, roundHalfAway } from '../money';
import { addDays, dayOf, type Instant } from '../time';

/** `undecided`: nobody has said enough of the name to judge it, and nothing is recommended. */
export const VERDICTS = ['renew', 'renew late', 'restore', 'send the report', 'drop', 'undecided'] as const;
export type Verdict = (typeof VERDICTS)[number];

export type VerdictReason =
  | { readonly kind: 'in use' }
  | { readonly kind: 'never to be lost' }
  | { readonly kind: 'restore is paid' }
  | { readonly kind: 'no price asked' }
  | { readonly kind: 'cost not known' }
  | { readonly kind: 'other currency' }
  | { readonly kind: 'decided' }
  | {
      readonly kind: 'worth it' | 'not worth it';
      readonly expected: Amount;
      readonly cost: Amount;
      /** The cost is ten times the renewal, for want of a known price. */
      readonly ruleOfThumb: boolean;
    };

/** What a name is worth doing, and why. */
export interface Judgement {
  readonly verdict: Verdict;
  readonly reason: VerdictReason;
  /** A name that is always kept, whatever it costs. */
  readonly always: boolean;
  /** What keeping it costs now; `null` when it is not known or paid already. */
  readonly cost: Amount | null;
  /** What it is expected to bring, after commission; `null` without an asking price or an offer. */
  readonly expected: Amount | null;
}

/** How far ahead names that nothing keeps are looked for, in days. */
export const RESCUE_DAYS = 60;

/** True when a row is past its term, or going there because nothing is set to keep it. What is dropped is not. */
export function needsRescue(row: LedgerRow, asOf: Instant): boolean {
  const { phase, outlook, marks, name } = row;
  if (name.purpose === 'drop' || phase === null || marks === null) return false;
  if (phase === 'late' || phase === 'redemption' || phase === 'pending restore') return row.coming?.outcome !== 'pass';
  if (phase !== 'term' && phase !== 'refundable') return false;
  const unkept = outlook.kind === 'lapses' || outlook.kind === 'charge fails';
  return unkept && marks.termEnd < addDays(asOf, RESCUE_DAYS);
}

/** An amount in another currency; `null` where no rate is known. */
export type Into = (money: Amount, currency: string) => Amount | null;

/** Amounts in other currencies by the rates of a day. */
export function intoBy(rates: readonly Rate[], asOf: Instant): Into {
  return (money, currency) => convert(money, currency, rates, dayOf(asOf));
}

const SAME_CURRENCY: Into = (money, currency) => (money.currency === currency ? money : null);

/**
 * What to do with a row that needs rescue, or with any other at its next renewal. What the owner decided counts; else a name in use or never to be lost is always kept; any other when what it is
 * expected to bring (asking × chance × (1 − commission), or a better offer) covers what keeping it costs now. Where nothing is asked for it, or its
 * cost or a rate is not known, it is undecided: never dropped for want of a figure.
 */
export function judge(row: LedgerRow, odds: SaleOdds, into: Into = SAME_CURRENCY): Judgement {
  const { name, phase, costs } = row;
  if (phase === 'pending restore')
    return {
      verdict: 'send the report',
      reason: { kind: 'restore is paid' },
      always: true,
      cost: null,
      expected: null,
    };
  const keep: Verdict = phase === 'redemption' ? 'restore' : phase === 'late' ? 'renew late' : 'renew';
  const cost = row.deadline?.before ?? (keep === 'restore' ? costs.restore : costs.renewal);
  const ruleOfThumb = keep === 'restore' && costs.restoreRuleOfThumb;
  const hoped = expectedOf(name, odds);
  const expected = hoped && cost ? (into(hoped, cost.currency) ?? hoped) : hoped;
  const judged = (verdict: Verdict, reason: VerdictReason, always = false): Judgement => ({
    verdict,
    reason,
    always,
    cost,
    expected,
  });
  if (name.rescue === 'drop') return judged('drop', { kind: 'decided' });
  if (name.rescue === 'keep') return judged(keep, { kind: 'decided' }, true);
  if (name.neverLost) return judged(keep, { kind: 'never to be lost' }, true);
  if (name.purpose === 'in use') return judged(keep, { kind: 'in use' }, true);
  if (expected === null) return judged('undecided', { kind: 'no price asked' });
  if (cost === null) return judged('undecided', { kind: 'cost not known' });
  if (expected.currency !== cost.currency) return judged('undecided', { kind: 'other currency' });
  return expected.minor >= cost.minor
    ? judged(keep, { kind: 'worth it', expected, cost, ruleOfThumb })
    : judged('drop', { kind: 'not worth it', expected, cost, ruleOfThumb });
}

/**
 * What a name is expected to bring after commission: its asking price as likely as it sells, or the best offer there is, whichever
 * is more. An offer in another currency than the asking price stands back.
 */
function expectedOf({ asking, bestOffer, saleChance }: LedgerName, { chance, commission }: SaleOdds): Amount | null {
  const left = (minor: number, currency: string) => amount(roundHalfAway(minor * (1 - commission)), currency);
  const hoped = asking && left(asking.minor * (saleChance ?? chance), asking.currency);
  const offered = bestOffer && left(bestOffer.minor, bestOffer.currency);
  if (hoped === null || offered === null) return hoped ?? offered;
  return offered.currency === hoped.currency && offered.minor > hoped.minor ? offered : hoped;
}
