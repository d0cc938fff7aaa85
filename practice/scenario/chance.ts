/** A stream of chance that is the same for the same seed (mulberry32). */
export interface Chance {
  /** A number from 0 up to, not including, 1. */
  next(): number;
  /** A whole number from 0 up to, not including, `below`. */
  whole(below: number): number;
  pick<T>(of: readonly T[]): T;
}

export function chanceFrom(seed: number): Chance {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const whole = (below: number) => Math.floor(next() * below);
  return {
    next,
    whole,
    pick: (of) => {
      const picked = of[whole(of.length)];
      if (picked === undefined) throw new Error('nothing to pick from');
      return picked;
    },
  };
}
