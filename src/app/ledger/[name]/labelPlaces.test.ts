import fc from 'fast-check';
import { expect, test } from 'vitest';
import { LABEL_GAP, placeLabels, type Wanting } from './labelPlaces';

test('where there is room texts stand right of their lines, the last uppermost', () => {
  expect(
    placeLabels(
      [
        { x: 100, wide: 180 },
        { x: 200, wide: 180 },
        { x: 240, wide: 180 },
      ],
      1060,
    ),
  ).toEqual({
    side: 'right',
    levels: [2, 1, 0],
  });
});

test('on a telephone they stand left of their lines, the first uppermost', () => {
  expect(
    placeLabels(
      [
        { x: 136, wide: 105 },
        { x: 183, wide: 165 },
        { x: 221, wide: 150 },
      ],
      362,
    ),
  ).toEqual({
    side: 'left',
    levels: [0, 1, 2],
  });
});

test('where they fit on neither side no line leads to them, and they stand in order', () => {
  expect(
    placeLabels(
      [
        { x: 30, wide: 180 },
        { x: 340, wide: 180 },
      ],
      362,
    ),
  ).toEqual({ side: 'below', levels: [0, 1] });
});

test('labels of one instant stand on levels of their own; without labels there is none', () => {
  const one = { x: 50, wide: 100 };
  expect([...placeLabels([one, one, one], 1060).levels].sort()).toEqual([0, 1, 2]);
  expect(placeLabels([], 1060)).toEqual({ side: 'right', levels: [] });
});

test('whatever the labels and the width, no line crosses a text, and no text leaves the drawing', () => {
  const label: fc.Arbitrary<Wanting> = fc.record({
    x: fc.integer({ min: 0, max: 1100 }),
    wide: fc.integer({ min: 20, max: 200 }),
  });
  fc.assert(
    fc.property(fc.array(label, { maxLength: 7 }), fc.integer({ min: 280, max: 1100 }), (labels, width) => {
      const inside = labels.filter(({ x }) => x <= width);
      const { side, levels } = placeLabels(inside, width);
      expect(levels.toSorted((a, b) => a - b)).toEqual(inside.map((_, place) => place));
      if (side === 'below') return;
      for (const [i, text] of inside.entries()) {
        const from = side === 'right' ? text.x + LABEL_GAP : text.x - LABEL_GAP - text.wide;
        expect(from).toBeGreaterThanOrEqual(0);
        expect(from + text.wide).toBeLessThanOrEqual(width);
        for (const [j, line] of inside.entries()) {
          const leadsPast = (levels[j] ?? 0) > (levels[i] ?? 0);
          if (i !== j && leadsPast) expect(line.x > from && line.x < from + text.wide).toBe(false);
        }
      }
    }),
  );
});
