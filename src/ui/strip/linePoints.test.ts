import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type LinePoint, placeOnLine, textsOnLine } from './linePoints';

const asking = (minor: number, text: string): LinePoint => ({ kind: 'asking', minor, text });

test('figures stand from nothing at the left to the greatest at the right', () => {
  const points = [asking(400_000, 'asking'), asking(100_000, 'offer')];
  const x = placeOnLine(points, 206);
  expect(x(0)).toBe(3);
  expect(x(100_000)).toBe(53);
  expect(x(400_000)).toBe(203);
  // A loss that is written as a figure below nothing stands at nothing.
  expect(x(-5)).toBe(3);
});

test('nothing at all is no division by nothing', () => {
  expect(placeOnLine([], 100)(0)).toBe(3);
  expect(placeOnLine([asking(0, 'asking')], 100)(0)).toBe(3);
});

test('five figures close together take as many rows as they need', () => {
  const points = [1_000, 1_010, 1_020, 1_030, 1_040].map((minor) => asking(minor, `asking $${minor}`));
  expect(textsOnLine(points, 400).map(({ row }) => row)).toEqual([0, 1, 2, 3, 4]);
});

test('a figure without a text takes no room', () => {
  expect(textsOnLine([{ kind: 'cost', minor: 5 }, asking(6, 'asking')], 300)).toMatchObject([{ minor: 6, row: 0 }]);
});

test('no text is written over another, nor beyond the line where it fits, whatever the figures', () => {
  const figure = fc.record({
    kind: fc.constantFrom<LinePoint['kind']>('offer', 'ours', 'asking', 'minimum', 'cost', 'other'),
    minor: fc.integer({ min: 0, max: 10 ** 9 }),
    text: fc.string({ minLength: 1, maxLength: 30 }),
  });
  fc.assert(
    fc.property(fc.array(figure, { maxLength: 9 }), fc.integer({ min: 200, max: 1200 }), (points, width) => {
      const texts = textsOnLine(points, width);
      expect(texts).toHaveLength(points.length);
      for (const one of texts) {
        expect(one.from).toBeGreaterThanOrEqual(0);
        expect(one.from + one.wide).toBeLessThanOrEqual(width + 1e-9);
        for (const other of texts)
          if (other !== one && other.row === one.row)
            expect(other.from >= one.from + one.wide || one.from >= other.from + other.wide).toBe(true);
      }
    }),
  );
});
