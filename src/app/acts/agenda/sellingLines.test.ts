import { isValidElement, type ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { TODAY } from '@/core/ledger/sampleLedger';
import { amount } from '@/core/money';
import type { AgendaItem } from '@/core/selling';
import { addDays, type Day, instant } from '@/core/time';
import { agendaParts, answerLines, offerLines, owedLines, type Told } from './sellingLines';

const style = { zone: 'UTC', today: '2026-11-24' as Day };
const told: Told = { today: TODAY, style };
const [cordage, oakum] = [1, 2];

let made = 0;
const offer = (nameId: number, who: string, minor: number, days: number, currency = 'USD'): AgendaItem => {
  made += 1;
  const unicode = nameId === cordage ? 'cordage.net' : 'oakum.org';
  return {
    kind: 'offer to answer',
    nameId,
    ascii: unicode,
    unicode,
    by: addDays(TODAY, days),
    minor,
    currency,
    asking: nameId === cordage ? amount(95_000, 'USD') : null,
    who,
    about: { kind: 'offer', id: made },
  };
};
const sale = (days: number, minor = 2_001_000): AgendaItem => ({
  ...offer(oakum, 'Oda Fennimore', minor, days),
  kind: 'handover',
  about: { kind: 'sale', id: 7, stage: 'buyer known' },
});
const words = (node: ReactNode) =>
  isValidElement(node) ? renderToStaticMarkup(node).replace(/<[^>]+>/g, '') : String(node ?? '');

describe('offers', () => {
  test('those on one name stand together, each beside what is asked and with its rivals', () => {
    const lines = offerLines(
      [offer(cordage, 'Ivo', 89_500, 1), offer(oakum, 'Pilgrave', 24_500, 2), offer(cordage, 'Oda', 45_500, 3)],
      told,
    );
    expect(lines.map(({ who, what, figures }) => [who, words(what), words(figures)])).toEqual([
      ['Ivo', 'an offer lapses: 94 % of asking, one rival', '$895 of 950'],
      ['Oda', 'an offer lapses: 48 % of asking, one rival', '$455 of 950'],
      ['Pilgrave', 'an offer lapses', '$245'],
    ]);
  });

  test('what is asked in another currency is no measure', () => {
    const [line] = offerLines([offer(cordage, 'Ivo', 89_500, 1, 'EUR')], told);
    expect([words(line?.what), words(line?.figures)]).toEqual(['an offer lapses', '€895']);
    expect(line?.picture).toBeFalsy();
  });

  test('the number line says in words what it draws', () => {
    const [line] = offerLines([offer(cordage, 'Ivo', 89_500, 1), offer(cordage, 'Oda', 45_500, 3)], told);
    expect(renderToStaticMarkup(line?.picture as never)).toContain('aria-label="$895, 94 % of asking, one rival"');
  });
});

describe('the day that is written, and the days to it', () => {
  // As everywhere: the last whole day on which something can be done, and how far that day is.
  const at = (by: string): AgendaItem => ({ ...offer(cordage, 'Ivo', 89_500, 0), by: instant(by) });
  test.each([
    // Within the last hours there is no whole day left: it is today.
    ['2026-11-24T12:00:00Z', 'UTC', '24 Nov', '0'],
    ['2026-11-25T08:00:00Z', 'UTC', '24 Nov', '0'],
    ['2026-11-25T00:00:00Z', 'UTC', '24 Nov', '0'],
    ['2026-11-26T12:00:00Z', 'UTC', '25 Nov', '1'],
    ['2026-11-26T12:00:00Z', 'Pacific/Auckland', '26 Nov', '2'],
    ['2027-01-03T12:00:00Z', 'UTC', '2 Jan 2027', '39'],
  ])('%s in %s', (by, zone, day, days) => {
    const [line] = offerLines([at(by)], { ...told, style: { ...style, zone } });
    expect([line?.day, line?.days]).toEqual([day, days]);
  });

  test('an offer without an end has neither', () => {
    const [line] = offerLines([{ ...at('2026-11-25T08:00:00Z'), by: null }], told);
    expect([line?.day, line?.days]).toEqual(['', '']);
  });
});

describe('what is owed', () => {
  test('an overdue handover says by how many days, and is grave', () => {
    const [part] = owedLines([{ kind: 'handover', total: 1, items: [sale(-47)] }], told);
    const [line] = part?.lines ?? [];
    expect(words(line?.what)).toBe('hand the name over, 47 days over');
    expect(words(line?.figures)).toBe('$20,010');
    expect(line?.isGrave).toBe(true);
  });

  test('what is due within the day is not over; what was due an hour ago is, since today', () => {
    const lineAt = (by: string) =>
      owedLines([{ kind: 'handover', total: 1, items: [{ ...sale(0), by: instant(by) }] }], {
        ...told,
        today: instant('2026-11-24T09:00:00Z'),
      })[0]?.lines[0];
    const said = (by: string) => [lineAt(by)?.day, lineAt(by)?.days, words(lineAt(by)?.what), lineAt(by)?.isGrave];
    expect(said('2026-11-24T10:00:00Z')).toEqual(['24 Nov', '0', 'hand the name over', false]);
    expect(said('2026-11-24T08:00:00Z')).toEqual(['24 Nov', '0', 'hand the name over, over since today', true]);
    expect(said('2026-11-23T08:00:00Z')).toEqual(['23 Nov', '-1', 'hand the name over, 1 day over', true]);
  });

  test('one that is due later is not', () => {
    const [part] = owedLines([{ kind: 'handover', total: 1, items: [sale(3)] }], told);
    expect(part?.lines[0]?.isGrave).toBe(false);
    expect(words(part?.lines[0]?.what)).toBe('hand the name over');
  });
});

test('on Today a few of each other kind stand under one heading, with how many there are', () => {
  const listed = (count: number): AgendaItem[] =>
    Array.from({ length: count }, () => ({
      ...offer(oakum, 'Cordage Hall', 35_000, 9),
      kind: 'proof missing',
      about: { kind: 'listings' },
    }));
  const parts = answerLines(
    [
      { kind: 'handover', total: 1, items: [sale(3)] },
      { kind: 'offer to answer', total: 12, items: [offer(cordage, 'Ivo', 89_500, 1)] },
      { kind: 'proof missing', total: 5, items: listed(5) },
      {
        kind: 'auction closing',
        total: 1,
        items: listed(1).map((item) => ({ ...item, kind: 'auction closing' as const })),
      },
    ],
    told,
  );
  expect(parts.map(({ title, total, lines }) => [title, total, lines.length])).toEqual([
    ['Offers to answer', 12, 1],
    ['Selling, to see to', 6, 4],
  ]);
  expect(answerLines([], told)).toEqual([]);
});

test('in Selling each kind is a part of its own, as long as was asked for', () => {
  const items = [offer(cordage, 'Ivo', 89_500, 1), offer(oakum, 'Oda', 24_500, 2), offer(oakum, 'Pilgrave', 30_000, 3)];
  const [part] = agendaParts(
    [{ kind: 'offer to answer', total: 3, items }],
    told,
    () => 2,
    () => 'more',
  );
  expect(part).toMatchObject({ title: 'Offers to answer', total: 3, more: 'more' });
  expect(part?.lines).toHaveLength(2);
});
