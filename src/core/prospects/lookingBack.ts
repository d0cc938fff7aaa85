/** What was said of a name, and whether it came true. */
export interface Said {
  /** 0 to 1. */
  readonly chance: number;
  readonly happened: boolean;
}

/** Things of which about the same was said: how likely on average, and how many of them came true. */
export interface HitRate {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly said: number;
  readonly seen: number;
  /** Between these the true share lies with nine chances in ten, by what was seen. */
  readonly low: number;
  readonly high: number;
}

/** The bounds of what counts as about the same. */
const BOUNDS = [0, 0.01, 0.02, 0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1] as const;
/** The normal quantile of 95 of a hundred. */
const Z = 1.6448536269514722;

/** Of all that was said to be about so likely, how many came true. Intervals: Wilson 1927. */
export function hitRates(all: readonly Said[]): HitRate[] {
  return BOUNDS.slice(1).flatMap((to, i) => {
    const from = BOUNDS[i] as number;
    const those = all.filter(({ chance }) => chance > from && chance <= to);
    if (those.length === 0) return [];
    const count = those.length;
    const said = those.reduce((sum, { chance }) => sum + chance, 0) / count;
    const seen = those.filter(({ happened }) => happened).length / count;
    const [low, high] = wilson(seen, count);
    return [{ from, to, count, said, seen, low, high }];
  });
}

function wilson(seen: number, count: number): readonly [number, number] {
  const z2 = (Z * Z) / count;
  const middle = (seen + z2 / 2) / (1 + z2);
  const half = (Z / (1 + z2)) * Math.sqrt((seen * (1 - seen)) / count + z2 / (4 * count));
  return [Math.max(0, middle - half), Math.min(1, middle + half)];
}

/** How many were said to come true in all, and how many did. */
export interface SaidInAll {
  readonly said: number;
  readonly seen: number;
}

export function saidInAll(all: readonly Said[]): SaidInAll {
  return {
    said: all.reduce((sum, { chance }) => sum + chance, 0),
    seen: all.filter(({ happened }) => happened).length,
  };
}
