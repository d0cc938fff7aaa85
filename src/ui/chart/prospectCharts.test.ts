import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { spreadOf } from '@/core/odds';
import type { Month } from '@/core/time';
import { HitRates } from './HitRates';
import { MoverBars } from './MoverBars';
import { RateDensity } from './RateDensity';
import { ShareLines } from './ShareLines';

const numbers = (text: string | undefined) => (text ?? '').split(/[ ,]/).map(Number);

test('a hill of a rate stands in its picture, its mean under it', () => {
  const rate = { sales: 5, nameYears: 248 };
  const spread = spreadOf(rate);
  const html = renderToStaticMarkup(createElement(RateDensity, { rate, spread, most: 0.06, label: '.com' }));
  const points = numbers(/points="([^"]+)"/.exec(html)?.[1]);
  expect(points.every((value) => value >= 0 && value <= 120)).toBe(true);
  expect(Number(/x1="([\d.]+)"/.exec(html)?.[1])).toBeCloseTo((spread.mean / 0.06) * 120, 6);
  expect(html).toContain('role="img"');
});

test('a hit that came true as it was said lies on the line; its bar holds it', () => {
  const rates = [{ from: 0.1, to: 0.2, count: 40, said: 0.15, seen: 0.15, low: 0.08, high: 0.26 }];
  const html = renderToStaticMarkup(createElement(HitRates, { rates, label: 'said and seen' }));
  const [cx, cy] = [Number(/cx="([\d.]+)"/.exec(html)?.[1]), Number(/cy="([\d.]+)"/.exec(html)?.[1])];
  // From the corner of nothing said and nothing seen, as far to the right as up.
  expect(cx - 40).toBeCloseTo(308 - cy, 6);
});

test('an input that can only lose lies on one side of the result; no spread at all divides by nothing', () => {
  const bar = (low: number, high: number) => ({
    key: 'x',
    text: 'Chance',
    low: { minor: low, words: 'less' },
    high: { minor: high, words: 'more' },
  });
  const html = renderToStaticMarkup(createElement(MoverBars, { bars: [bar(-500, 0)], middle: 0, label: 'movers' }));
  expect(html).toContain('left:0%;width:100%');
  expect(html).toContain('left:100%;width:0%');
  expect(
    renderToStaticMarkup(createElement(MoverBars, { bars: [bar(7, 7)], middle: 7, label: 'movers' })),
  ).not.toContain('NaN');
});

test('shares of paths say where they end, and one month alone is drawn too', () => {
  const draw = (months: readonly string[]) =>
    renderToStaticMarkup(
      createElement(ShareLines, {
        months: months as Month[],
        lines: [
          { text: 'nothing sold yet', shares: months.map((_, i) => 1 - i * 0.25), isGrave: false },
          { text: 'money has run out', shares: months.map((_, i) => i * 0.1), isGrave: true },
        ],
        area: { left: 50, right: 40 },
        chosen: 0,
      }),
    );
  expect(draw(['2026-11', '2026-12', '2027-01'])).toContain(
    'By Jan 2027: nothing sold yet 50 %, money has run out 20 % of the paths',
  );
  expect(draw(['2026-11'])).not.toContain('NaN');
});
