/** A figure on a number line. `offer` is a buyer's, `ours` what we answered, `asking` and `minimum` are our prices, `cost` what it has cost. */
export interface LinePoint {
  readonly kind: 'offer' | 'ours' | 'asking' | 'minimum' | 'cost' | 'other';
  /** Minor units, all of one currency. */
  readonly minor: number;
  /** Written at the point, where there is room; otherwise told by the label of the whole. */
  readonly text?: string;
}

/** A figure's text as it is laid: its left edge and width in pixels, and the row above the line, 0 the nearest. */
export interface LineText extends LinePoint {
  readonly text: string;
  readonly from: number;
  readonly wide: number;
  readonly row: number;
}

const EDGE = 3;
/** A letter's width at the size of these texts, and what two texts keep between them, in pixels. */
const LETTER = 6.4;
const GAP = 8;

/** Where a figure stands, in pixels from the left: nothing at the left edge, the greatest of the figures at the right. */
export function placeOnLine(points: readonly LinePoint[], width: number): (minor: number) => number {
  const most = Math.max(1, ...points.map(({ minor }) => minor));
  return (minor) => EDGE + (Math.max(0, minor) / most) * (width - 2 * EDGE);
}

/** The texts of a line of `width` pixels from the least figure up, each in the nearest row that has room, so that none is written over another. */
export function textsOnLine(points: readonly LinePoint[], width: number): LineText[] {
  const x = placeOnLine(points, width);
  const ends: number[] = [];
  return points
    .flatMap((point) => (point.text ? [{ ...point, text: point.text }] : []))
    .toSorted((a, b) => a.minor - b.minor)
    .map((point) => {
      const wide = Math.min(width, point.text.length * LETTER);
      const from = Math.min(Math.max(0, x(point.minor) - wide / 2), width - wide);
      const free = ends.findIndex((end) => from >= end + GAP);
      const row = free < 0 ? ends.length : free;
      ends[row] = from + wide;
      return { ...point, from, wide, row };
    });
}
