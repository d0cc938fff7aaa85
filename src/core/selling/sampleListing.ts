import { addDays, instant } from '../time';
import { type CheckedListing, type MarketplaceFees, type MarketplaceRules, NO_PRICES } from './index';

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
