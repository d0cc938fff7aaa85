import { addDays, instant } from '../time';
import {
  type CheckedListing,
  type ListingColumns,
  type ListingLine,
  type MarketplaceFees,
  type MarketplaceRules,
  NO_PRICES,
} from './index';

export const NOW = instant('2026-11-24T09:12:00Z');
export const FEES: MarketplaceFees = { percent: 15, floorMinor: 2500, steps: [], saleFeeMinor: 0, listingFeeMinor: 0 };
export const MARKETPLACE: MarketplaceRules = {
  currencies: ['USD'],
  wholeUnits: true,
  auctionDays: [7, 14],
  reviewHours: 72,
  payoutSet: true,
  fees: FEES,
};
/** A listing with nothing wrong, for tests. */
export function listing(
  more: Partial<Omit<CheckedListing, 'offered'>> & Partial<CheckedListing['offered']> = {},
): CheckedListing {
  const { kind = 'fixed price, offers too', currency = 'USD', prices = NO_PRICES, auctionDays = 14, ...rest } = more;
  return {
    offered: { kind, currency, prices, auctionDays },
    costMinor: 5000,
    unitMinor: 100,
    marketplace: MARKETPLACE,
    pitch: '',
    description: '',
    now: NOW,
    termEnd: addDays(NOW, 300),
    lockedUntil: null,
    atAccount: true,
    ...rest,
  };
}

export const prices = (more: Partial<typeof NO_PRICES>) => ({ ...NO_PRICES, ...more });

/** Lines put into columns, as the server does from its tables. */
export function listingColumns(lines: readonly ListingLine[]): ListingColumns {
  const numbers = (of: (line: ListingLine) => number | null) =>
    Float64Array.from(lines, (line) => of(line) ?? Number.NaN);
  return {
    ascii: lines.map(({ ascii }) => `${ascii}\n`).join(''),
    unicode: Object.fromEntries(
      lines.flatMap(({ ascii, unicode }, place) => (unicode === ascii ? [] : [[place, unicode]])),
    ),
    id: Int32Array.from(lines, ({ id }) => id),
    nameId: Int32Array.from(lines, ({ nameId }) => nameId),
    listedAs: lines.map(({ marketplace, kind, currency, status }) => ({ marketplace, kind, currency, status })),
    as: Int32Array.from(lines, (_, place) => place),
    asked: numbers(({ askedMinor }) => askedMinor),
    proceeds: numbers(({ proceedsMinor }) => proceedsMinor),
    profit: numbers(({ profitMinor }) => profitMinor),
    best: numbers(({ bestMinor }) => bestMinor),
    visits: Int32Array.from(lines, ({ visits }) => visits),
    termEnd: numbers(({ termEnd }) => termEnd),
  };
}
