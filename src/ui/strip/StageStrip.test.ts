import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { SALE_STAGES } from '@/core/selling';
import { StageStrip } from './StageStrip';

const STAGES = ['agreed', 'paid', 'handed over', 'done'];
const fills = (present: string, isOverdue = false, stages: readonly string[] = STAGES) =>
  [
    ...renderToStaticMarkup(
      createElement(StageStrip, { stages, present, isOverdue, width: 176, height: 30, label: 'the stages' }),
    ).matchAll(/<rect[^>]*fill="([^"]*)"/g),
  ].map(([, fill]) => (fill ?? '').replace(/^var\(--|^url\(#|\)$/g, ''));

test('what is over is land, the present one hatched, what comes empty', () => {
  expect(fills('paid')).toEqual(['land', 'strip-late', 'sheet', 'sheet']);
});

test('one that should be over by now is hatched as danger is everywhere', () => {
  expect(fills('paid', true)).toEqual(['land', 'strip-redemption', 'sheet', 'sheet']);
});

test('at the last stage nothing is left to do, overdue or not', () => {
  expect(fills('done')).toEqual(['land', 'land', 'land', 'land']);
  expect(fills('done', true)).toEqual(fills('done'));
});

test('each stage of a sale has its place, and the whole says in words what it draws', () => {
  for (const stage of SALE_STAGES) expect(fills(stage, false, SALE_STAGES)).toHaveLength(SALE_STAGES.length);
  const html = renderToStaticMarkup(
    createElement(StageStrip, {
      stages: STAGES,
      present: 'paid',
      isOverdue: false,
      width: 176,
      height: 30,
      label: 'paid',
    }),
  );
  expect(html).toContain('role="img" aria-label="paid"');
});
