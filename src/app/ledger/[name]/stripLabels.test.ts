import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { indexRules, type LedgerName, lifecycleStrip, policyOf, projectLedger, rowsOn } from '@/core/ledger';
import { nameWith, QUAYMARK, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import type { Policy } from '@/core/lifecycle';
import { movingFacts } from '@/core/moving';
import type { Day, Instant } from '@/core/time';
import type { RowView } from '../../frame/views';
import { standingSentence } from './sentence';
import { movingLabels, stripLabels } from './stripLabels';

const style = { zone: 'UTC', today: '2026-11-24' as Day };

function rowOf(name: LedgerName, rules = rulesWith(), day: Instant = TODAY): RowView {
  const projection = projectLedger(indexRules(rules), [name], TODAY);
  return {
    ...rowsOn(projection, day)(0),
    strip: lifecycleStrip(projection, 0),
    policy: policyOf(projection, 0) as Policy,
  };
}
const labels = (row: RowView) => stripLabels(row, style).map((label) => `${label.title}: ${label.text}`);
const sentence = (row: RowView) =>
  renderToStaticMarkup(standingSentence(row, 'Quaymark', TODAY, style)).replace(/<[^>]+>/g, '');

describe('a stalled name in its late window', () => {
  const row = rowOf(nameWith('kelpkiln.com', '2026-11-06T10:15:00Z', { setting: 'stalled' }));
  test('each deadline is labelled with its date and cost', () => {
    expect(labels(row)).toEqual([
      '6 Nov term ends: late renewal $11.38',
      '20 Dec last day to renew late: then restore and a year about $125.18',
      '19 Jan 2027 last day to restore: then lost',
      '25 Jan 2027 available: for anyone, at the earliest',
    ]);
  });
  test('and said in a sentence', () => {
    expect(sentence(row)).toBe(
      'Past its term for 18 days. Late renewal $11.38 until 20 Dec, then restore and a year about $125.18, by rule of thumb. At Quaymark.',
    );
  });
});

describe('a name that auto-renew will charge', () => {
  const name = nameWith('tidewick.com', '2026-12-09T00:00:00Z', { setting: 'on' });
  test('has one step when the charge passes', () => {
    const row = rowOf(name);
    expect(labels(row)).toEqual(['4 Dec charged: $11.38 from balance']);
    expect(sentence(row)).toBe('In term until 9 Dec. Auto-renew charges $11.38 on 4 Dec. At Quaymark.');
  });
  test('has every step when it fails, with the cause first', () => {
    const row = rowOf(name, rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 500 }] }));
    expect(labels(row).slice(0, 2)).toEqual([
      '4 Dec charge fails: balance $6.38 short',
      '9 Dec term ends: late renewal $11.38',
    ]);
    expect(sentence(row)).toBe(
      'Auto-renew will be tried on 4 Dec and fails (balance $6.38 short). Then it lapses on 9 Dec. At Quaymark.',
    );
  });
  test('says which card has ended', () => {
    const card = { kind: 'card' as const, label: 'blue card', endsMonth: '2026-11' };
    const row = rowOf(name, rulesWith({ accounts: [{ ...QUAYMARK, paymentMethods: [card], balanceMinor: null }] }));
    expect(labels(row)[0]).toBe('4 Dec charge fails: blue card ended Nov 2026');
  });
});

describe('where an account or an ending knows fewer steps', () => {
  test('no late window: restore from the end of the term', () => {
    const row = rowOf(
      nameWith('a.com', '2026-12-09T00:00:00Z'),
      rulesWith({ accounts: [{ ...QUAYMARK, lateDays: 0 }] }),
    );
    expect(labels(row)[0]).toBe('9 Dec term ends: restore and a year about $125.18');
    expect(sentence(row)).toContain('Lapses 9 Dec. Then restore and a year about $125.18');
  });
  test('an auction of late names is a step', () => {
    const row = rowOf(
      nameWith('a.com', '2026-12-09T00:00:00Z'),
      rulesWith({ accounts: [{ ...QUAYMARK, auctionDay: 30 }] }),
    );
    expect(labels(row)).toContain('8 Jan 2027 auctioned away: lost if somebody bids');
  });
  test('a restore under way has its report due', () => {
    const observed = { phase: 'pending restore' as const, at: TODAY };
    const row = rowOf(nameWith('a.com', '2026-09-20T00:00:00Z', { observed }));
    expect(labels(row)).toEqual(['30 Nov last day for the report: else restore again, about $125.18']);
    expect(sentence(row)).toContain('Pending restore: the report is due by 30 Nov, else it is in redemption again.');
  });
});

test.each([
  [
    '2026-09-20T00:00:00Z',
    /^In redemption\. Restore and a year about \$125\.18, by rule of thumb until 3 Dec, then it is lost\./,
  ],
  ['2026-09-08T00:00:00Z', /^Pending delete: nothing can be done\. Available to anyone from 27 Nov at the earliest\.$/],
  ['2026-08-01T00:00:00Z', /^Available to anyone since 20 Oct\.$/],
])('past its term since %s', (expires, words) => {
  expect(sentence(rowOf(nameWith('a.com', expires)))).toMatch(words);
});

test('a name whose end nobody has said asks for it', () => {
  expect(sentence(rowOf(nameWith('a.com', null)))).toBe(
    'Nobody has said when its term ends. Set it under Edit. At Quaymark.',
  );
  expect(labels(rowOf(nameWith('a.com', null)))).toEqual([]);
});

describe('a transfer to another registrar', () => {
  const moving = (name: LedgerName, rules = rulesWith(), day: Instant = TODAY) => {
    const row = rowOf(name, rules, day);
    return movingLabels(movingFacts(row, row.policy), day, style).map(({ title, text }) => `${title}: ${text}`);
  };
  test('can be requested now: its last day is labelled', () => {
    expect(moving(nameWith('a.com', '2027-05-01T00:00:00Z'))).toEqual([
      '23 Apr 2027 last day to transfer: before the term ends',
    ]);
    expect(moving(nameWith('a.com', '2027-05-01T00:00:00Z', { setting: 'on' }))).toEqual([
      '18 Apr 2027 last day to transfer: before the charge',
    ]);
  });
  test('has to wait: the day from which it is best is labelled', () => {
    expect(moving(nameWith('a.com', '2026-12-01T00:00:00Z', { setting: 'on' }))).toEqual([
      '15 Jan 2027 best day to transfer: to another registrar',
    ]);
  });
  test('looking ahead, the labels are those of that day', () => {
    const name = nameWith('a.com', '2026-12-01T00:00:00Z', { setting: 'on' });
    expect(moving(name, rulesWith(), Date.parse('2027-02-01T00:00:00Z') as Instant)).toEqual([
      '18 Nov 2027 last day to transfer: before the charge',
    ]);
  });
  test('makes no sense: past its term, or when nobody knows where that is', () => {
    expect(moving(nameWith('a.com', '2026-11-20T00:00:00Z'))).toEqual([]);
    expect(moving(nameWith('a.com', '2026-09-08T00:00:00Z'))).toEqual([]);
  });
});
