import type { AutoRenewSetting, FailureCause } from '@/core/funding';
import type { LedgerAccount, Outlook } from '@/core/ledger';
import type { Phase } from '@/core/lifecycle';
import type { Amount } from '@/core/money';
import type { CostsToKeep, Deadline } from '@/core/pricing';
import {
  type Day,
  dayIn,
  daysUntil,
  endDay,
  formatDay,
  formatMonth,
  type Instant,
  type Month,
  type TermEnd,
  untilDay,
} from '@/core/time';
import { formatAmount, formatFigure } from './figures';

/** How days are shown: the user's zone, and the day whose year goes without saying. */
export interface DayStyle {
  readonly zone: string;
  readonly today: Day;
}

/** `3 Jan 2027`, without the year when it is this one. */
export function dayWords(at: Instant, style: DayStyle): string {
  return formatDay(dayIn(at, style.zone), style.today);
}

/** The day a term ends, as it was given when only a date is known. */
export function termEndWords(end: TermEnd, style: DayStyle): string {
  return formatDay(endDay(end, style.zone), style.today);
}

/** The last whole day on which what ends at `mark` still works. */
export function untilWords(mark: Instant, style: DayStyle): string {
  return formatDay(untilDay(mark, style.zone), style.today);
}

/** By when the holder's mail address has to be confirmed, or that the name is on hold since it was not. */
export function mailWords(by: Instant, day: Instant, style: DayStyle): string {
  return by <= day
    ? 'On hold: the holder’s mail address was not confirmed. Follow the link in the registrar’s mail.'
    : `The holder’s mail address has to be confirmed by ${untilWords(by, style)}, or the name stops working.`;
}

/** Days to the end of a term. */
export function daysToEnd(end: TermEnd, asOf: Instant, style: DayStyle): number {
  return daysUntil(endDay(end, style.zone), asOf, style.zone);
}

/** Days to the last whole day before `mark`. */
export function daysLeft(mark: Instant, asOf: Instant, style: DayStyle): number {
  return daysUntil(untilDay(mark, style.zone), asOf, style.zone);
}

/** What is due: the day as it is written, the days to it (below nothing once it is over), and by how much it is over. */
export interface Due {
  readonly day: string;
  readonly days: string;
  /** `47 days over`; `null` while it is not over. */
  readonly over: string | null;
}

/**
 * The day by which something is due, as every list writes it: the last whole day before `by`, as long as there is one; on the day of `by`
 * itself that day; once it is over the day on which it was due. Without `by` nothing is written.
 */
export function dueWords(by: Instant | null, asOf: Instant, style: DayStyle): Due {
  if (by === null) return { day: '', days: '', over: null };
  const left = daysLeft(by, asOf, style);
  if (by > asOf && left >= 0) return { day: untilWords(by, style), days: String(left), over: null };
  const since = Math.max(0, -daysUntil(dayIn(by, style.zone), asOf, style.zone));
  const over = since === 0 ? 'over since today' : since === 1 ? '1 day over' : `${since} days over`;
  return { day: dayWords(by, style), days: String(since === 0 ? 0 : -since), over: by > asOf ? null : over };
}

/** Days to a deadline: to the day of a charge, else to the last whole day before it. */
export function daysToDeadline(deadline: Pick<Deadline, 'at' | 'kind'>, asOf: Instant, style: DayStyle): number {
  return deadline.kind === 'charge'
    ? daysUntil(dayIn(deadline.at, style.zone), asOf, style.zone)
    : daysLeft(deadline.at, asOf, style);
}

/** The words of each phase, with the trade's other word for it where there is one. */
export const PHASE_WORDS: Readonly<Record<Phase, { readonly word: string; readonly trade: string | null }>> = {
  refundable: { word: 'refundable', trade: 'add grace' },
  term: { word: 'in term', trade: 'active' },
  late: { word: 'grace period', trade: 'auto-renew grace' },
  redemption: { word: 'redemption', trade: 'redemption grace' },
  'pending restore': { word: 'pending restore', trade: null },
  'pending delete': { word: 'pending delete', trade: null },
  available: { word: 'available', trade: null },
  'pending transfer': { word: 'pending transfer', trade: null },
};

export const SETTING_WORDS: Readonly<Record<AutoRenewSetting, string>> = {
  on: 'on',
  off: 'off',
  stalled: 'stalled',
  unknown: '?',
};

/** What happens next if nothing is done, in a few words for a column. */
export function outlookWords(outlook: Outlook, style: DayStyle): string {
  switch (outlook.kind) {
    case 'charged':
      return `${outlook.charge.assumed ? 'charge due' : 'charged'} ${dayWords(outlook.charge.at, style)}`;
    case 'charge fails':
      return `charge fails ${dayWords(outlook.charge.at, style)}`;
    case 'lapses':
      return outlook.ifOff
        ? `auto-renew not known: lapses ${termEndWords(outlook.end, style)}, if it is off`
        : `lapses ${termEndWords(outlook.end, style)}`;
    case 'late until':
      return `late until ${untilWords(outlook.at, style)}`;
    case 'auctioned':
      return `auctioned ${dayWords(outlook.at, style)}`;
    case 'restore by':
      return `restore by ${untilWords(outlook.at, style)}`;
    case 'report due':
      return `report by ${untilWords(outlook.at, style)}`;
    case 'pending transfer':
      return 'transfer pending';
    case 'available from':
      return `pending delete, available ${dayWords(outlook.at, style)}`;
    case 'available since':
      return `available since ${dayWords(outlook.at, style)}`;
    case 'unknown':
      return 'end of term not known';
  }
}

/** `about $113.80` where the price is ten times the renewal for want of a known one; `a price not known` without any. */
export function restoreWords({
  restore,
  restoreRuleOfThumb,
}: Pick<CostsToKeep, 'restore' | 'restoreRuleOfThumb'>): string {
  return restore ? `${restoreRuleOfThumb ? 'about ' : ''}${formatAmount(restore)}` : 'a price not known';
}

/** `11.38 → 125.18`, `125.18 → lost`, `11.38`; with the currency when it is not the home one. A restore by rule of
 * thumb is marked: `≈125.18`. */
export function deadlineFigures(deadline: Deadline | null, homeCurrency: string): string {
  if (!deadline) return '';
  if (deadline.kind === 'charge') return deadline.before ? figure(deadline.before, homeCurrency) : 'no price';
  if (!deadline.before && !deadline.after) return deadline.kind === 'lost' ? 'lost' : 'no price';
  const about = deadline.ruleOfThumb ? '≈' : '';
  const now = deadline.before
    ? `${deadline.kind === 'lost' ? about : ''}${figure(deadline.before, homeCurrency)}`
    : 'paid';
  const then =
    deadline.kind === 'lost' || deadline.kind === 'auction'
      ? 'lost'
      : deadline.after
        ? `${about}${figure(deadline.after, homeCurrency, deadline.before)}`
        : 'no price';
  return `${now} → ${then}`;
}

function figure(amount: Amount, homeCurrency: string, besides: Amount | null = null): string {
  return amount.currency === homeCurrency || amount.currency === besides?.currency
    ? formatFigure(amount)
    : formatAmount(amount);
}

/** Amounts of several currencies side by side; a dash for none. */
export function amountsWords(amounts: readonly Amount[], whole = false): string {
  return amounts.length === 0 ? '–' : amounts.map((amount) => formatAmount(amount, whole)).join(' + ');
}

/** `one name`, `3 names`. */
export function namesWords(count: number): string {
  return count === 1 ? 'one name' : `${COUNTS.format(count)} names`;
}

const COUNTS = new Intl.NumberFormat('en');

/** So many years, in words. */
export function yearsWords(count: number): string {
  return count === 1 ? 'one year' : `${count} years`;
}

/** `+40`, `-18`: days from now. */
export function daysWords(days: number): string {
  return days > 0 ? `+${days}` : String(days);
}

/** Why a charge fails, in a few words. */
export function causeWords(cause: FailureCause): string {
  switch (cause.kind) {
    case 'balance short':
      return `balance ${formatAmount(cause.missing)} short`;
    case 'card ended':
      return `${cause.label} ended ${formatMonth(cause.endsMonth as Month)}`;
    case 'no payment method':
      return 'no payment method';
  }
}

/** `26 Nov, 09:12`: an instant to the minute, in the office's zone. */
export function hourWords(at: Instant, style: DayStyle): string {
  const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: style.zone }).format(
    at,
  );
  return `${dayWords(at, style)}, ${time}`;
}

/** How long each registrar may take to confirm, as far as it was said. */
export function switchHoursWords(accounts: readonly Pick<LedgerAccount, 'label' | 'switchHours'>[]): string {
  return accounts
    .map(({ label, switchHours }) =>
      switchHours === null ? `how long ${label} takes is not known` : `${label} up to ${switchHours} hours`,
    )
    .join(', ');
}
