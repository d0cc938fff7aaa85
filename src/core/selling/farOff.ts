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
