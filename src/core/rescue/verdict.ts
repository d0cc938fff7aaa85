import type { LedgerRow } from '../ledger';
import { type Amount, amount, convert, roundHalfAway } from '../money';
import type { Valuing } from '../prospects';
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
  | { readonly kind: 'being sold' }
  | { readonly kind: 'decided' }
  | {
      readonly kind: 'worth it' | 'not worth it';
      /** How likely it sells within its next year, and what a sale is expected to leave. */
      readonly chance: number;
      readonly proceeds: Amount;
      readonly cost: Amount;
      /** What the next years may bring, over what they cost. */
      readonly value: Amount;
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
  /** What keeping it is worth over its cost, in the home currency: below nothing where it costs more than it may bring; `null` where nobody can say. */
  readonly value: Amount | null;
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

/**
 * What to do with a row that needs rescue, or with any other at its next renewal. What the owner decided counts; else a name in use, never to be lost or
 * being sold is always kept; any other when keeping it is worth its cost (`core/odds/keepValue.ts`), or an offer that was made covers it.
 * Where nothing is asked for it, or its cost or a rate is not known, it is undecided: never dropped for want of a figure.
 */
export function judge(row: LedgerRow, valuing: Valuing): Judgement {
  const { name, phase, costs } = row;
  const { homeCurrency } = valuing.today.projection.index.rules;
  if (phase === 'pending restore')
    return { verdict: 'send the report', reason: { kind: 'restore is paid' }, always: true, cost: null, value: null };
  const keep: Verdict = phase === 'redemption' ? 'restore' : phase === 'late' ? 'renew late' : 'renew';
  const cost = row.deadline?.before ?? (keep === 'restore' ? costs.restore : costs.renewal);
  const worth = valuing.worthOf(row.place);
  const offered = offerOver(row, valuing);
  const value = bestOf(worth && amount(roundHalfAway(worth.keep.value), homeCurrency), offered?.value ?? null);
  const judged = (verdict: Verdict, reason: VerdictReason, always = false): Judgement => ({
    verdict,
    reason,
    always,
    cost,
    value,
  });
  if (name.rescue === 'drop') return judged('drop', { kind: 'decided' });
  if (name.rescue === 'keep') return judged(keep, { kind: 'decided' }, true);
  if (name.neverLost) return judged(keep, { kind: 'never to be lost' }, true);
  if (name.purpose === 'in use') return judged(keep, { kind: 'in use' }, true);
  if (valuing.book.selling.has(row.place)) return judged(keep, { kind: 'being sold' }, true);
  if (name.asking === null && name.bestOffer === null) return judged('undecided', { kind: 'no price asked' });
  if (cost === null) return judged('undecided', { kind: 'cost not known' });
  if (!value) return judged('undecided', { kind: 'other currency' });
  const byOffer = offered !== null && value === offered.value;
  const reason = {
    chance: byOffer || !worth ? 1 : worth.keep.chance,
    proceeds: byOffer || !worth ? (offered?.left as Amount) : amount(roundHalfAway(worth.proceeds), homeCurrency),
    cost,
    value,
    ruleOfThumb: keep === 'restore' && costs.restoreRuleOfThumb,
  };
  return value.minor >= 0
    ? judged(keep, { kind: 'worth it', ...reason })
    : judged('drop', { kind: 'not worth it', ...reason });
}

const bestOf = (one: Amount | null, other: Amount | null) =>
  one && other && other.minor > one.minor ? other : (one ?? other);

/** What the best offer that was made would leave, and by how much that is more than keeping the name costs now; `null` without one. */
function offerOver(
  { name, place }: LedgerRow,
  { book, today, costsOf }: Valuing,
): { left: Amount; value: Amount } | null {
  const { homeCurrency, rates } = today.projection.index.rules;
  const offer = name.bestOffer && convert(name.bestOffer, homeCurrency, rates, dayOf(today.projection.asOf));
  const costs = offer && costsOf(place)?.costs;
  if (!offer || !costs) return null;
  const left = amount(roundHalfAway(offer.minor * (1 - (book.feeList[0]?.percent ?? 0) / 100)), homeCurrency);
  return { left, value: amount(left.minor - roundHalfAway(costs[0] ?? 0), homeCurrency) };
}
