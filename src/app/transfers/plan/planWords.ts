import type { LeftReason } from '@/core/moving';
import { dayOf, type Instant } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { type DayStyle, dayWords, namesWords, yearsWords } from '@/ui/text/words';
import type { MoveView, PlanView } from '../../frame/views';

/** Why names are left where they are. */
export const LEFT_WORDS: Readonly<Record<LeftReason, string>> = {
  'nothing cheaper': 'no account is cheaper for them',
  'price of its own': 'they have prices of their own, and what they would cost elsewhere no list says',
  'not known here': 'what they cost where they are is not known',
  'not known elsewhere': 'what they would cost elsewhere is not known',
  'over the budget': 'the sum to spend does not reach so far',
  'cannot be transferred': 'they cannot be transferred within a year as they stand',
  'out of its term': 'they are not in their term',
  'there already': 'they are there already',
  'on its way already': 'they are on their way already, or sold',
};

type Money = (minor: number) => string;

/** The whole plan in one sentence. */
export function planSentence({ waves, costMinor, savedMinor }: PlanView, years: number, money: Money): string {
  const names = waves.reduce((sum, { moves }) => sum + moves.length, 0);
  if (names === 0) return 'No transfer saves anything here.';
  const days = waves.length === 1 ? 'on one day' : `on ${waves.length} days`;
  return `Move ${namesWords(names)} ${days} for ${money(costMinor)}: ${savedWords(savedMinor, years, money)}.`;
}

/** What is saved over the years, and on the average in each; what is paid more, where moving is dearer. */
export function savedWords(savedMinor: number, years: number, money: Money): string {
  const verb = savedMinor < 0 ? 'costs more by' : 'saves';
  const sum = `${verb} ${money(Math.abs(savedMinor))} over ${yearsWords(years)}`;
  return years === 1 ? sum : `${sum}, ${money(Math.round(Math.abs(savedMinor) / years))} a year`;
}

/** The day of a wave: today, or its date. */
export function waveDay(at: Instant, style: DayStyle): string {
  return dayOf(at) <= style.today ? 'Today' : dayWords(at, style);
}

/** What is to be known of a move before it is requested. */
export function moveNotes({ isLocked, chargedBefore, by }: MoveView, style: DayStyle): string {
  return [
    isLocked && 'its lock comes off first',
    chargedBefore && `charged ${formatAmount(chargedBefore)} before`,
    by !== null && `by ${dayWords(by, style)}`,
  ]
    .filter(Boolean)
    .join('; ');
}
