import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { type DecisionLine, DecisionTable } from './DecisionTable';

const line = (more: Partial<DecisionLine> = {}): DecisionLine => ({
  key: 'kelpkiln.com',
  check: 'box',
  day: '26 Nov',
  days: '2',
  name: 'kelpkiln.com',
  who: 'Quaymark',
  what: 'late until 26 Nov',
  picture: 'strip',
  figures: '11.38 → lost',
  verdict: 'Renew late',
  acts: 'Renew late…',
  isGrave: false,
  ...more,
});
const markup = (more: Partial<Parameters<typeof DecisionTable>[0]> = {}) =>
  renderToStaticMarkup(
    createElement(DecisionTable, {
      label: 'Decisions',
      axis: 'axis',
      parts: [{ title: 'Lost', total: 1, lines: [line()] }],
      ...more,
    }),
  );
const rowsOf = (html: string) => [...html.matchAll(/<tr[^>]*>(.*?)<\/tr>/g)].map(([, row]) => row ?? '');
const text = (html: string) => html.replace(/<[^>]+>/g, '|');
/** How many columns the cells of a row take. */
const widthOf = (row: string) =>
  [...row.matchAll(/<t[dh]\b([^>]*)>/g)].reduce(
    (sum, [, attributes]) => sum + Number(/colspan="(\d+)"/i.exec(attributes ?? '')?.[1] ?? 1),
    0,
  );

describe('one grid of columns', () => {
  test.each([false, true])('every row is as wide as there are columns, with verdicts or without: %s', (hasVerdicts) => {
    const html = markup({ hasVerdicts, parts: [{ title: 'Lost', total: 3, lines: [line()], more: 'To Rescue' }] });
    const columns = html.match(/<col\b/g)?.length;
    const rows = rowsOf(html);
    expect(rows.length).toBe(4);
    expect(rows.map(widthOf)).toEqual(rows.map(() => columns));
  });

  test('beside a verdict the account stands under the name, else in its own column', () => {
    expect(markup({ hasVerdicts: true })).not.toContain('class="who"');
    expect(markup()).toContain('class="who"');
    expect(markup({ hasVerdicts: false })).not.toContain('Renew late|');
  });
});

describe('a part', () => {
  test('says how many there are, and that not all of them are shown', () => {
    const html = text(markup({ parts: [{ title: 'Lost', total: 1_204, lines: [line()] }] }));
    expect(html).toContain('Lost: 1,204');
    expect(html).toContain('The first 1 of 1,204.');
    expect(text(markup())).not.toContain('The first');
  });

  test('the only part of a table needs no title', () => {
    expect(markup({ parts: [{ title: '', total: 1, lines: [line()] }] })).not.toContain('scope="rowgroup"');
  });

  test('what is lost is grave, in its title too', () => {
    const html = markup({ parts: [{ title: 'Lost', total: 1, lines: [line({ isGrave: true })] }] });
    expect(html).toContain('<tbody data-grave="true"');
    expect(html).toContain('<tr data-grave="true"');
  });
});

test.each([
  ['2', '2 days'],
  ['1', '1 day'],
  ['0', 'today'],
  ['-1', '1 day over'],
  ['-47', '47 days over'],
  ['', ''],
])('on a telephone, where no heading says what it is, “%s” is written “%s”', (days, words) => {
  const cell = /<td class="when day"[^>]*>(.*?)<\/td>/.exec(
    markup({ parts: [{ title: '', total: 1, lines: [line({ days })] }] }),
  );
  const [, , onPhone] = (cell?.[1] ?? '').split('<span');
  expect(onPhone?.replace(/^[^>]*>/, '').replace('</span>', '')).toBe(words);
});
