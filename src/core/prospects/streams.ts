import { xoroshiro128plusFromState } from 'pure-rand/generator/xoroshiro128plus';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { normalQuantile } from '../odds';

/** The greatest seed: whole numbers from 0 up to it are drawn, typed and kept. */
export const GREATEST_SEED = 2_147_483_647;

/** The seed that is drawn after another. */
export const nextSeed = (seed: number) => (seed * 48_271 + 11) % GREATEST_SEED;

/** The seed in a text; `null` for what is none. */
export function readSeed(text: string): number | null {
  const written = text.replaceAll(/[ ,]/g, '');
  const seed = /^\d{1,10}$/.test(written) ? Number(written) : Number.NaN;
  return seed <= GREATEST_SEED ? seed : null;
}

/** One stream of random numbers: the same for the same seed, path and group, whatever else is drawn. */
export type Stream = RandomGenerator;

/**
 * The stream of a path and a group under a seed (whole numbers of 32 bits). The three are mixed into all four words of the state, so that
 * neighbouring ones have nothing in common; the generator is xoroshiro128+.
 */
export function streamOf(seed: number, path: number, group: number): Stream {
  let word = mixed(seed | 0);
  word = mixed(word ^ path);
  word = mixed(word ^ Math.imul(group + 1, 0x85ebca6b));
  const state = [0, 0, 0, 0].map((_, i) => mixed(word + Math.imul(i + 1, 0x9e3779b9)));
  return xoroshiro128plusFromState(state);
}

/** Stirs every bit into every other. Source: the finaliser of MurmurHash3 (public domain). */
function mixed(word: number): number {
  let h = word + 0x9e3779b9;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}

const STEP = 2 ** -32;

/** Uniform between 0 and 1, neither included. */
export function uniform(stream: Stream): number {
  return ((stream.next() >>> 0) + 0.5) * STEP;
}

/** A gamma variable of shape `a` (above 0) and rate 1. Source: Marsaglia and Tsang 2000; below 1 by Γ(a + 1)·U^(1/a). */
export function gammaDraw(stream: Stream, a: number): number {
  if (a < 1) return gammaDraw(stream, a + 1) * uniform(stream) ** (1 / a);
  const d = a - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normalQuantile(uniform(stream));
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(uniform(stream)) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}
