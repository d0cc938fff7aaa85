import { describe, expect, test } from 'vitest';
import {
  arrangeCandidates,
  type CandidateCells,
  type CandidateQuery,
  candidateTotals,
  kindAt,
  viewCandidates,
} from './arrange';
import type { EndingHolding } from './holding';

const ending = (name: string, ...totals: readonly (number | null)[]): EndingHolding => ({
  ending: name,
  accounts: [],
  best: totals.map((totalMinor) => (totalMinor === null ? null : { totalMinor, nowMinor: 0, years: 1, payments: [] })),
});

/** Four candidates under two endings: .com 50 for two years, .net 60. */
const TABLE: CandidateCells = {
  labels: ['ternloft', 'loft', 'cairn', 'kelp'],
  unicodes: ['ternloft', 'loft', 'cairn', 'kelp'],
  endings: [ending('com', 2500, 5000), ending('net', 3000, 6000)],
  cells: ['aa', 'tp', 'uh', 'r-'].join(''),
  own: [{ cell: 3, accountId: 1, holding: { totals: [90_000, 180_000], firstMinor: 90_000, next: null } }],
  taken: [{ cell: 2, termEnd: null, earliest: null, latest: null }],
  changed: [{ cell: 2, before: 'available' }],
};
const ALL: CandidateQuery = {
  text: '',
  filter: 'all',
  mostMinor: null,
  mostLetters: null,
  sort: 'as made',
  descending: false,
};
const view = viewCandidates(TABLE, 2);
const rows = (query: Partial<CandidateQuery>) =>
  [...arrangeCandidates(view, { ...ALL, ...query })].map((row) => TABLE.labels[row]);

test('what can be had has a price over the years; what nobody sells, or nobody could say, has none', () => {
  expect([...view.prices]).toEqual([5000, 6000, Number.NaN, 180_000, Number.NaN, 6000, Number.NaN, Number.NaN]);
  expect([...view.cheapest]).toEqual([0, 1, 1, -1]);
  expect([0, 3, 4, 5, 6, 7].map((cell) => kindAt(view, cell))).toEqual([
    'available',
    'premium',
    'unknown',
    'perhaps',
    'reserved',
    'not asked',
  ]);
});

test('a price that is not known over so many years is none', () => {
  expect([...viewCandidates(TABLE, 3).prices].every(Number.isNaN)).toBe(true);
});

describe('rows are found', () => {
  test.each([
    [{}, ['ternloft', 'loft', 'cairn', 'kelp']],
    [{ text: 'LOFT' }, ['ternloft', 'loft']],
    [{ filter: 'to be had' }, ['ternloft', 'loft', 'cairn']],
    [{ filter: 'own price' }, ['loft']],
    [{ filter: 'taken' }, ['loft']],
    [{ filter: 'not known' }, ['cairn', 'kelp']],
    [{ filter: 'changed' }, ['loft']],
    [{ mostLetters: 4 }, ['loft', 'kelp']],
    [{ mostMinor: 6000 }, ['ternloft', 'cairn']],
    [{ mostMinor: 6000, sort: 0 }, ['ternloft']],
  ] as const)('%j', (query, expected) => {
    expect(rows(query)).toEqual(expected);
  });
});

describe('rows are sorted, those without a price last', () => {
  test.each([
    [{ sort: 'label' }, ['cairn', 'kelp', 'loft', 'ternloft']],
    [{ sort: 'length' }, ['loft', 'kelp', 'cairn', 'ternloft']],
    [{ sort: 'price' }, ['ternloft', 'cairn', 'loft', 'kelp']],
    [{ sort: 'price', descending: true }, ['loft', 'cairn', 'ternloft', 'kelp']],
    [{ sort: 1 }, ['ternloft', 'cairn', 'loft', 'kelp']],
    [{ sort: 'as made', descending: true }, ['kelp', 'cairn', 'loft', 'ternloft']],
  ] as const)('%j', (query, expected) => {
    expect(rows(query)).toEqual(expected);
  });
});

test('the foot counts names, not rows', () => {
  expect(candidateTotals(view, Uint32Array.of(0, 1, 2, 3))).toEqual({
    candidates: 4,
    names: 8,
    toBeHad: 4,
    taken: 1,
    notKnown: 2,
  });
});
