import { wholeUnit } from '@/core/money';
import { type ListingKind, type ListingPrices, NO_PRICES } from '@/core/selling';
import { addDays, type Instant } from '@/core/time';
import { list, prove } from '../marketplace/market';
import { marketPasses } from '../marketplace/passing';
import { DAY } from '../world/calendar';
import type { World } from '../world/types';
import { demoNames } from './names';

/** A name that the office has on offer at the marketplace when the demo begins. */
export interface DemoListing {
  readonly ascii: string;
  readonly kind: ListingKind;
  readonly currency: string;
  readonly prices: ListingPrices;
  readonly auctionDays: number;
  readonly pitch: string;
}

const NAMES = 412;
const LISTED = 26;
/** Days before the demo begins on which the names were listed. */
const LISTED_AGO = 12;
const HEALTHY_DAYS = 150;
const LINKED = ['Quaymark', 'Wrackgate', 'Fernhithe', 'Bollard'];
const KINDS: readonly ListingKind[] = [
  'fixed price, offers too',
  'auction',
  'fixed price, offers too',
  'open to offers',
  'fixed price',
  'fixed price, offers too',
  'auction',
];
const PITCHES = [
  'Short, easy to say over a bad line.',
  'For a workshop that stays.',
  'Two plain words from the coast.',
  'Spelt as it is heard.',
  '',
] as const;

/** What the demo has on offer: sound names with an asking price, in every kind of listing. */
export function demoListings(now: number): DemoListing[] {
  const fine = demoNames(NAMES, now as Instant)
    .filter(
      ({ fields, account }) =>
        LINKED.includes(account) &&
        fields.asking_currency === 'USD' &&
        Date.parse(String(fields.term_end)) > addDays(now as Instant, HEALTHY_DAYS) &&
        fields.observed === undefined,
    )
    .slice(0, LISTED);
  return fine.map(({ ascii, fields }, i) => {
    const unit = wholeUnit('USD');
    const asking = Math.max(100 * unit, Math.round((fields.asking_minor as number) / unit) * unit);
    const share = (of: number) => Math.max(unit, Math.round((asking * of) / unit / 10) * 10 * unit);
    const kind = KINDS[i % KINDS.length] as ListingKind;
    return {
      ascii,
      kind,
      currency: 'USD',
      prices:
        kind === 'auction'
          ? { ...NO_PRICES, start: share(0.1), reserve: share(0.55), buyNow: share(1.2) }
          : {
              ...NO_PRICES,
              minimum: share(0.4),
              asking,
              buyNow: kind === 'fixed price, offers too' ? share(1.1) : null,
            },
      auctionDays: i % 2 === 0 ? 10 : 4,
      pitch: PITCHES[i % PITCHES.length] as string,
    };
  });
}

/** The days at the marketplace before the demo begins: names were listed, proved and reviewed, and buyers have been. */
export function openMarket(world: World, now: number): void {
  const listings = demoListings(now);
  // The buyers of those days have not been asked yet.
  world.market.plannedDay = 0;
  for (let day = LISTED_AGO; day >= 0; day -= 1) {
    world.now = now - day * DAY;
    if (day === LISTED_AGO)
      for (const { ascii, ...offered } of listings) {
        list(world, {
          name: ascii,
          ...offered,
          reserveShown: false,
          withSite: false,
          categories: [],
          description: '',
          attributes: {},
        });
        prove(world, ascii, 'txt');
      }
    marketPasses(world, world.buyers, world.now);
  }
}
