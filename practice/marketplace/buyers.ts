import { wholeUnit } from '@/core/money';
import { buyPrice } from '@/core/selling';
import { HOUR_MS } from '@/core/time';
import { chanceOf } from './market';
import type { BuyerAct, Buyers, MarketListing } from './types';

/** How a buyer goes about it. Shares are of what the buyer thinks the name is worth. */
interface Character {
  readonly name: string;
  /** The share of the worth that is offered first. */
  readonly opens: number;
  /** How likely a look on a given day leads to something. */
  readonly eager: number;
  readonly pays: boolean;
}

/** The people and firms who buy in the practice world. */
const CHARACTERS: readonly Character[] = [
  { name: 'Oda Fennimore', opens: 0.55, eager: 0.06, pays: true },
  { name: 'Pilgrave & Sons', opens: 0.8, eager: 0.04, pays: true },
  { name: 'Tessel Weatherglass', opens: 0.15, eager: 0.05, pays: true },
  { name: 'Ketterby Boatyard', opens: 0.65, eager: 0.05, pays: true },
  { name: 'Ivo Marchmain', opens: 0.9, eager: 0.02, pays: false },
];

/** What a buyer thinks a name is worth: from half to one and a third times what is asked. */
function worthTo(listing: MarketListing, buyer: string): number {
  const { asking, buyNow, reserve, start } = listing.prices;
  const asked = asking ?? buyNow ?? (reserve === null ? null : reserve * 1.2) ?? (start ?? 0) * 3;
  return (asked || 100_000) * (0.5 + 0.83 * chanceOf(`${listing.name} ${buyer} worth`));
}

/** The buyers of the demo: seeded, so that a scenario goes the same way each time. */
export const demoBuyers: Buyers = {
  acts(listing, dayStart) {
    const unit = wholeUnit(listing.currency);
    const rounded = (minor: number) => Math.max(unit, Math.round(minor / unit / 5) * 5 * unit);
    return CHARACTERS.flatMap(({ name: buyer, opens, eager }): BuyerAct[] => {
      const chance = chanceOf(`${listing.name} ${buyer} ${dayStart}`);
      // At auctions they look more often: it is over soon.
      if (chance >= (listing.auction ? eager * 5 : eager)) return [];
      const at = dayStart + Math.floor((7 + 14 * chanceOf(`${buyer} ${dayStart} ${listing.name}`)) * HOUR_MS);
      const worth = worthTo(listing, buyer);
      if (listing.auction) return [{ at, buyer, do: 'bid', maxMinor: rounded(worth) }];
      const price = buyPrice(listing);
      if (price !== null && price <= worth && chanceOf(`${listing.name} ${buyer} takes`) < 0.25)
        return [{ at, buyer, do: 'buy' }];
      return listing.kind === 'fixed price' ? [] : [{ at, buyer, do: 'offer', minor: rounded(worth * opens), days: 7 }];
    });
  },
  reply(listing, thread, minor) {
    const worth = listing ? worthTo(listing, thread.buyer) : minor;
    if (minor <= worth) return { do: 'accept' };
    const own = thread.figures.filter(({ by }) => by === 'buyer');
    const last = own.at(-1)?.minor ?? worth / 2;
    const unit = wholeUnit(thread.currency);
    const next = Math.round((last + worth) / 2 / unit / 5) * 5 * unit;
    return own.length >= 3 || next <= last ? { do: 'decline' } : { do: 'offer', minor: next };
  },
  pays: (buyer) => CHARACTERS.find(({ name }) => name === buyer)?.pays ?? true,
};
