import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { type ProfitBar, ProfitBars } from './ProfitBars';

const bar = (key: string, minor: number | null): ProfitBar => ({ key, minor, words: `${minor}`, about: 'one sale' });
const drawn = (bars: readonly ProfitBar[]) =>
  [
    ...renderToStaticMarkup(createElement(ProfitBars, { bars, label: 'Profit by year' })).matchAll(
      /<i data-loss="(true|false)" style="width:([\d.]+)%"/g,
    ),
  ].map(([, loss, width]) => [loss === 'true', Number(width)]);

test('bars stand on one scale, the longest over the whole width, a loss as long as a profit of its size', () => {
  expect(drawn([bar('2025', 40_000), bar('2026', -20_000)])).toEqual([
    [false, 100],
    [true, 50],
  ]);
});

test('a little is still seen, nothing is not drawn, and what is not known is not drawn as nothing', () => {
  expect(drawn([bar('2024', 1), bar('2025', 10 ** 9), bar('2026', 0), bar('2027', null)])).toEqual([
    [false, 0.5],
    [false, 100],
  ]);
});

test('where nothing was made at all there is no bar, and no division by nothing', () => {
  expect(drawn([bar('2026', 0)])).toEqual([]);
  expect(drawn([])).toEqual([]);
});

test('each bar says its own figure, a loss in the colour of one', () => {
  const html = renderToStaticMarkup(createElement(ProfitBars, { bars: [bar('2026', -5)], label: 'Profit by year' }));
  expect(html).toContain('<b class="figure caution">-5</b>');
});
