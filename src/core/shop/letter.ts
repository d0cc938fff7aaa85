import { type Amount, amount, convert, type Rate } from '../money';
import type { WindowTerms } from '../selling';
import { addDays, dayOf, type Instant } from '../time';

/** What a buyer sends from a window. A purchase is an offer of the price. */
export const LETTER_KINDS = ['offer', 'purchase', 'bid'] as const;
export type LetterKind = (typeof LETTER_KINDS)[number];

/** So long a letter may be confirmed; it is forgotten then. */
export const CONFIRM_DAYS = 7;

/** Until when a letter may be confirmed. */
export function confirmUntil(askedAt: Instant): Instant {
  return addDays(askedAt, CONFIRM_DAYS);
}

/**
 * A mail address as one person has it: whatever its case, and without what many servers take after a plus sign (RFC 5233), by which one
 * mailbox could be written to as many.
 */
export function mailboxOf(mail: string): string {
  const at = mail.lastIndexOf('@');
  return `${mail.slice(0, at).replace(/\+.*$/, '')}${mail.slice(at)}`.toLowerCase();
}

/** By what the sender of a mail address may be blocked: his mailbox, and `@host` for everybody there. */
export function sendersOf(mail: string): readonly string[] {
  const mailbox = mailboxOf(mail);
  return [mailbox, mailbox.slice(mailbox.lastIndexOf('@'))];
}

/** What may be sent from a window as it is now; none where nothing is taken. */
export function lettersTaken({ priceMinor, takesOffers, auction }: WindowTerms): readonly LetterKind[] {
  return [
    ...(priceMinor === null ? [] : (['purchase'] as const)),
    ...(takesOffers ? (['offer'] as const) : []),
    ...(auction === null ? [] : (['bid'] as const)),
  ];
}

/**
 * The least that a letter may say, in the buyer's currency; `null` where none is said, or no rate tells what it comes to: then the office
 * judges. A bid is made in the auction's own currency.
 */
export function leastOf(
  kind: LetterKind,
  terms: WindowTerms,
  currency: string,
  rates: readonly Rate[],
  now: Instant,
): Amount | null {
  const minor = kind === 'bid' ? (terms.auction?.leastMinor ?? null) : kind === 'offer' ? terms.minimumMinor : null;
  return minor === null ? null : convert(amount(minor, terms.currency), currency, rates, dayOf(now));
}

/** When a bid wants money first: from an amount on, a share of the most that is bid. The office takes it down by hand. */
export interface DepositRule {
  readonly fromMinor: number;
  readonly currency: string;
  /** Above 0, up to 100. */
  readonly percent: number;
}

/** The deposit that a bid wants, in minor units of the bid's currency, rounded up; 0 where it wants none or no rate tells. */
export function depositFor(
  rule: DepositRule | null,
  maxMinor: number,
  currency: string,
  rates: readonly Rate[],
  now: Instant,
): number {
  const from = depositFrom(rule, currency, rates, now);
  return rule === null || from === null || maxMinor < from ? 0 : Math.ceil((maxMinor * rule.percent) / 100);
}

/** From which bid on a deposit is wanted, in a currency; `null` where none is, or no rate is known. */
export function depositFrom(
  rule: DepositRule | null,
  currency: string,
  rates: readonly Rate[],
  now: Instant,
): number | null {
  return rule && (convert(amount(rule.fromMinor, rule.currency), currency, rates, dayOf(now))?.minor ?? null);
}
