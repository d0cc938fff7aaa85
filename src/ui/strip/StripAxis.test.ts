import fc from 'fast-check';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { addDays, instant } from '@/core/time';
import { monthsOn, StripAxis } from './StripAxis';
import { LINE_WIDTH, SHORT_LINE_WIDTH, tableScale } from './tableScale';

const DAY = instant('2026-11-24T09:12:00Z');

/** The names on an axis, each with its left edge in pixels. */
function namesOn(width: number, day = DAY): { at: number; name: string }[] {
  const html = renderToStaticMarkup(createElement(StripAxis, { scale: tableScale(day, width), day, height: 34 }));
  return [...html.matchAll(/<g transform="translate\(([\d.]+) 0\)">.*?<text[^>]*>([^<]*)<\/text>/g)]
    .map(([, at, name]) => ({ at: Number(at), name: name ?? '' }))
    .filter(({ name }) => name !== '');
}

test('every month that begins on the scale, and a year by its figures', () => {
  expect(monthsOn(tableScale(DAY)).map(({ year, month }) => `${year}-${month}`)).toEqual([
    '2026-10',
    '2026-11',
    '2026-12',
    '2027-1',
    '2027-2',
    '2027-3',
  ]);
  expect(namesOn(LINE_WIDTH).map(({ name }) => name)).toContain('’27');
});

test('where there is no room every second month is named', () => {
  expect(namesOn(SHORT_LINE_WIDTH).length).toBeLessThan(namesOn(LINE_WIDTH).length);
});

test('on whichever day one looks, no name is cut off at the edge and none runs into the next', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 800 }), fc.constantFrom(LINE_WIDTH, SHORT_LINE_WIDTH), (ahead, width) => {
      const names = namesOn(width, addDays(DAY, ahead));
      // Three letters of this size take less than 20 pixels.
      for (const [place, { at }] of names.entries()) {
        expect(at + 20).toBeLessThanOrEqual(width);
        const next = names[place + 1];
        if (next) expect(next.at - at).toBeGreaterThanOrEqual(20);
      }
    }),
    { numRuns: 60 },
  );
});
