import { policyFor } from '../lifecycle';
import { cheapestPath, type YearPath } from '../pricing';
import { DAY_MS, dayOf, earliestEnd, type Instant } from '../time';
import type { RuleIndex } from './costs';
import { DAYS_PER_YEAR } from './priceTable';
import type { LedgerRow } from './projection';
import { yearPricesOf, yearTermsOf } from './yearPrices';

/** Over how many years a move is weighed where nobody says otherwise. */
const USUAL_YEARS = 5;

/** What moving a held name to the cheapest account would save, minor units of the office's currency; or why nobody can say. */
export type MoveSaving =
  | {
      readonly kind: 'saves';
      /** Where it would be moved first. */
      readonly accountId: number;
      readonly years: number;
      readonly savedMinor: number;
      readonly stayMinor: number;
      /** All payments after the move is decided, the move first. */
      readonly path: YearPath;
    }
  | {
      readonly kind: 'nothing cheaper' | 'price of its own' | 'not known here' | 'not known elsewhere';
      readonly years: number;
    };

/**
 * Staying, against the cheapest way that begins with a transfer, over the same years and with the same rises. A name with a price of its
 * own is not compared: what it costs elsewhere no list says. Privacy that it has is wanted elsewhere too. `null` out of its term.
 */
export function moveSaving(
  index: RuleIndex,
  { name, phase, termEnd }: Pick<LedgerRow, 'name' | 'phase' | 'termEnd'>,
  asOf: Instant,
  years: number = USUAL_YEARS,
): MoveSaving | null {
  if (termEnd === null || (phase !== 'term' && phase !== 'refundable')) return null;
  if (index.rules.prices.some(({ nameId }) => nameId === name.id)) return { kind: 'price of its own', years };
  const asked = {
    ending: name.ending,
    nameId: null,
    day: dayOf(asOf),
    newAt: new Set<number>(),
    codes: [],
    privacy: name.privacy === true,
  };
  const yearsLeft = Math.max(0, earliestEnd(termEnd) - asOf) / DAY_MS / DAYS_PER_YEAR;
  const prices = index.rules.accounts.map((account) => yearPricesOf(index, account, asked));
  const wanted = {
    held: { kind: 'held', accountId: name.accountId, yearsLeft } as const,
    years,
    terms: yearTermsOf(policyFor(name.ending, index.policies)),
  };
  const stay = cheapestPath({ ...wanted, prices: prices.filter(({ accountId }) => accountId === name.accountId) });
  if (stay === null) return { kind: 'not known here', years };
  const path = cheapestPath({ ...wanted, prices, mustMove: true });
  const [move] = path?.payments ?? [];
  if (!path || !move) return { kind: 'not known elsewhere', years };
  const savedMinor = stay.totalMinor - path.totalMinor;
  if (savedMinor <= 0) return { kind: 'nothing cheaper', years };
  return { kind: 'saves', accountId: move.accountId, years, savedMinor, stayMinor: stay.totalMinor, path };
}
