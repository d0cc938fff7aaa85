import { policyFor } from '../lifecycle';
import { type Amount, minorFactor, roundHalfAway } from '../money';
import { cheapestPath, type Held, type YearPath, type YearPrices } from '../pricing';
import { DAY_MS, dayOf, earliestEnd, type Instant } from '../time';
import type { RuleIndex } from './costs';
import type { LedgerName } from './data';
import { DAYS_PER_YEAR } from './priceTable';
import type { LedgerRow } from './projection';
import { riseOf } from './rises';
import { yearPricesOf, yearTermsOf } from './yearPrices';

/** Over how many years a move is weighed where nobody says otherwise. */
export const USUAL_YEARS = 5;

/** What a move is weighed over, and where it may go. */
export interface MoveWish {
  readonly years: number;
  /** The account that it is to go to; `null` for whichever is cheapest. */
  readonly targetId: number | null;
}

/** Staying, against the cheapest way that begins with a transfer: minor units of the office's currency. */
export interface ComparedMove {
  readonly kind: 'saves' | 'nothing cheaper';
  /** Where it would be moved first. */
  readonly accountId: number;
  readonly years: number;
  /** Less than nothing where moving is dearer. */
  readonly savedMinor: number;
  readonly stayMinor: number;
  /** All payments after the move is decided, the move first. */
  readonly path: YearPath;
}

/** What moving a held name would save, or why nobody can say. */
export type MoveSaving =
  | ComparedMove
  | {
      readonly kind: 'price of its own' | 'not known here' | 'not known elsewhere';
      readonly years: number;
    };

type Asked = Pick<LedgerRow, 'name' | 'phase' | 'termEnd'>;

/**
 * Staying, against the cheapest way that begins with a transfer, over the same years and with the same rises. A name with a price of its
 * own is not compared: what it costs elsewhere no list says. Privacy that it has is wanted elsewhere too. `null` out of its term.
 */
export function moveSaving(
  index: RuleIndex,
  row: Asked,
  asOf: Instant,
  wish: MoveWish = { years: USUAL_YEARS, targetId: null },
): MoveSaving | null {
  return moveSavings(index, asOf, wish)(row);
}

/** The same for many names: what is alike is searched once. */
export function moveSavings(index: RuleIndex, asOf: Instant, wish: MoveWish): (row: Asked) => MoveSaving | null {
  const ownPrices = new Set(index.rules.prices.flatMap(({ nameId }) => nameId ?? []));
  const known = new Map<string, MoveSaving>();
  return ({ name, phase, termEnd }) => {
    if (termEnd === null || (phase !== 'term' && phase !== 'refundable')) return null;
    if (ownPrices.has(name.id)) return { kind: 'price of its own', years: wish.years };
    const yearsLeft = wholeOrHalf(Math.max(0, earliestEnd(termEnd) - asOf) / DAY_MS / DAYS_PER_YEAR);
    const key = `${name.ending} ${name.accountId} ${name.privacy === true} ${yearsLeft}`;
    const found = known.get(key) ?? comparedMove(index, name, yearsLeft, asOf, wish);
    known.set(key, found);
    return found;
  };
}

/** Prices go by whole years and the ceiling by how many still fit: between two whole years all is the same. */
function wholeOrHalf(years: number): number {
  return Number.isInteger(years) ? years : Math.floor(years) + 0.5;
}

function comparedMove(
  index: RuleIndex,
  name: Pick<LedgerName, 'ending' | 'accountId' | 'privacy'>,
  yearsLeft: number,
  asOf: Instant,
  { years, targetId }: MoveWish,
): MoveSaving {
  const asked = {
    ending: name.ending,
    nameId: null,
    day: dayOf(asOf),
    newAt: new Set<number>(),
    codes: [],
    privacy: name.privacy === true,
  };
  const prices = index.rules.accounts.map((account) => yearPricesOf(index, account, asked));
  const held: Held = { kind: 'held', accountId: name.accountId, yearsLeft };
  const wanted = { held, years, terms: yearTermsOf(policyFor(name.ending, index.policies)) };
  const at = (accountId: number): YearPrices[] => prices.filter((one) => one.accountId === accountId);
  const stay = cheapestPath({ ...wanted, prices: at(name.accountId) });
  if (stay === null) return { kind: 'not known here', years };
  const path = cheapestPath({ ...wanted, prices: targetId === null ? prices : at(targetId), mustMove: true });
  const [move] = path?.payments ?? [];
  if (!path || !move) return { kind: 'not known elsewhere', years };
  const savedMinor = stay.totalMinor - path.totalMinor;
  const kind = savedMinor > 0 ? 'saves' : 'nothing cheaper';
  return { kind, accountId: move.accountId, years, savedMinor, stayMinor: stay.totalMinor, path };
}

/** An offer of the old registrar to keep a name, against moving it: minor units of the office's currency over the same years. */
export interface WeighedOffer {
  readonly years: number;
  readonly stayMinor: number;
  readonly moveMinor: number;
}

/**
 * Weighs what a losing side offers for staying, a sum for each year, against moving to an account: the same years, and the rise that its
 * renewals have had. `null` where one of the two is not known, or the offer cannot be told in the office's currency.
 */
export function weighOffer(
  index: RuleIndex,
  row: Asked,
  asOf: Instant,
  { offer, targetId, years }: { readonly offer: Amount; readonly targetId: number; readonly years: number },
): WeighedOffer | null {
  const { rates, homeCurrency } = index.rules;
  const factor = minorFactor(offer.currency, homeCurrency, rates, dayOf(asOf));
  const move = moveSaving(index, row, asOf, { years, targetId });
  if (factor === null || move === null || !('path' in move) || row.termEnd === null) return null;
  const rise = riseOf(index, row.name.accountId, row.name.ending);
  const left = Math.floor(Math.max(0, earliestEnd(row.termEnd) - asOf) / DAY_MS / DAYS_PER_YEAR);
  const yearly = Array.from({ length: years }, (_, i) => offer.minor * factor * (1 + rise.yearly) ** (left + i));
  const stayMinor = yearly.reduce((sum, one) => sum + roundHalfAway(one), 0);
  return { years, stayMinor, moveMinor: move.path.totalMinor };
}
