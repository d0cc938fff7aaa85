import { type Offered, PRICE_NAMES, type PriceName, usedPrices } from './listing';

/** A price is asked about from so many times what like names were sold for, and from so small a part of it. */
export const FAR_OFF = 20;

/** A price beside what like names were sold for. */
export interface FarOff {
  readonly likeMinor: number;
  /** How many times as much, or as little, whole. */
  readonly times: number;
  readonly isMore: boolean;
}

/**
 * Whether a price is far from what like names were sold for (both minor units of one currency): a zero too many or too few. `null` where it is not, or
 * where nothing is known to hold it against.
 */
export function farOff(minor: number | null, likeMinor: number | null): FarOff | null {
  if (minor === null || likeMinor === null || minor <= 0 || likeMinor <= 0) return null;
  const isMore = minor >= likeMinor;
  const times = isMore ? minor / likeMinor : likeMinor / minor;
  return times >= FAR_OFF ? { likeMinor, times: Math.floor(times), isMore } : null;
}

/** A price of a listing that stands far off, and by how much. */
export interface FarOffPrice extends FarOff {
  readonly price: PriceName;
  readonly minor: number;
}

/**
 * Every price of a listing that is asked about before it is listed: those at which a buyer may have the name, or that are asked. A least offer may be as
 * low as one likes, and so may the start of an auction with a reserve: neither sells anything.
 */
export function pricesFarOff(offered: Pick<Offered, 'kind' | 'prices'>, likeMinor: number | null): FarOffPrice[] {
  const used = usedPrices(offered);
  return PRICE_NAMES.flatMap((price) => {
    const minor = used[price];
    if (minor === null || price === 'minimum' || (price === 'start' && used.reserve !== null)) return [];
    const off = farOff(minor, likeMinor);
    return off ? [{ ...off, price, minor }] : [];
  });
}
