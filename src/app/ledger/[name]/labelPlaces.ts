/** A label as it wants to stand: at `x` pixels along the bar, so many pixels wide. */
export interface Wanting {
  readonly x: number;
  readonly wide: number;
}

/** Where labels stand: on which side of their lines, and each on which level under the bar, the uppermost 0. */
export interface LabelPlaces {
  readonly side: 'right' | 'left' | 'below';
  readonly levels: readonly number[];
}

/** What keeps a text from its own line. */
export const LABEL_GAP = 5;

/**
 * Places labels so that no line crosses a text. Right of their lines what comes last stands uppermost: a line that leads down to an earlier label runs
 * left of every text above it. Where the texts do not fit there they all stand left, what comes first uppermost, for the same reason; and where they fit on
 * neither side no line leads down to them: they stand below each other in order.
 */
export function placeLabels(labels: readonly Wanting[], width: number): LabelPlaces {
  const places = labels.map((_, place) => place);
  const byX = places.toSorted((a, b) => (labels[a]?.x ?? 0) - (labels[b]?.x ?? 0) || a - b);
  const fitsRight = labels.every(({ x, wide }) => x + LABEL_GAP + wide <= width);
  const fitsLeft = labels.every(({ x, wide }) => x - LABEL_GAP - wide >= 0);
  const side = fitsRight ? 'right' : fitsLeft ? 'left' : 'below';
  const order = side === 'right' ? byX.toReversed() : byX;
  const levels = labels.map(() => 0);
  for (const [level, place] of order.entries()) levels[place] = level;
  return { side, levels };
}
