import type { RankedName, Stand } from '@/core/prospects';
import { formatAmount } from '@/ui/text/figures';
import { roughly, shareWords } from '@/ui/text/prospectWords';
import { type DayStyle, dayWords } from '@/ui/text/words';

export const STAND_WORDS: Readonly<Record<Stand, string>> = {
  'not worth it': 'Not worth it',
  underpriced: 'Underpriced',
  undecided: 'Undecided',
  'worth it': 'Worth it',
  'always kept': 'Always kept',
};

/** At what asking price it would be worth another year; nothing where it is, or where no price would do. */
export function leastWords({ worth, leastAskingMinor }: RankedName, currency: string): string {
  if (!worth || worth.keep.value >= 0) return '';
  return leastAskingMinor === null ? 'at no price' : `from ${roughly(leastAskingMinor, currency)} asked`;
}

/** Why a name stands as it does, in a sentence with its figures. */
export function whyWords(
  { stand, worth, next, likeMinor, factor, offers }: RankedName,
  currency: string,
  style: DayStyle,
): string {
  const money = (minor: number) => formatAmount({ minor: Math.round(minor), currency });
  const whole = (minor: number) => roughly(minor, currency);
  if (!next) return 'When its term ends, or what it costs, is not known.';
  const costs = `Costs ${money(next.costs[0] ?? 0)} on ${dayWords(next.firstAt, style)}`;
  if (!worth)
    return stand === 'always kept'
      ? `${costs}; it is in use, or never to be lost.`
      : `${costs}; nothing is asked for it.`;
  const { value, chance, years } = worth.keep;
  const signs = [
    offers > 0 && `${offers} ${offers === 1 ? 'offer or bidder' : 'offers and bidders'} within a year`,
    factor !== 1 && `× ${Math.round(factor * 100) / 100}`,
  ]
    .filter(Boolean)
    .join(', ');
  const sells = `${shareWords(chance)} a year${signs ? ` (${signs})` : ''} to sell for about ${whole(worth.proceeds)} after fees`;
  const less = `${costs}; ${sells}: ${money(-value)} less than it costs.`;
  if (stand === 'underpriced') return `${less} Names like it were sold for ${whole(likeMinor ?? 0)}.`;
  if (value < 0) return less;
  return `${costs}; ${sells}: worth ${money(value)} over its cost, for ${years === 10 ? 'ten years and more' : `${years} ${years === 1 ? 'year' : 'years'}`}.`;
}
