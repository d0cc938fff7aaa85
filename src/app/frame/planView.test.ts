import { expect, test } from 'vitest';
import { indexRules, LedgerDay, projectLedger } from '@/core/ledger';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { planView } from './planView';
import type { PlannedNames } from './views';

const ACCOUNTS = [
  { ...QUAYMARK, id: 1 },
  { ...QUAYMARK, id: 2, label: 'Wrackgate' },
];
const PRICES = [
  { ...RENEWAL, accountId: 1, yearMinor: 2000 },
  { ...RENEWAL, accountId: 2, yearMinor: 1000 },
  { ...RENEWAL, accountId: 2, action: 'transfer' as const, yearMinor: 1000 },
];
const NAMES = [
  nameWith('dear.com', '2027-06-01T00:00:00Z'),
  nameWith('dear2.com', '2027-06-01T00:00:00Z'),
  nameWith('cheap.com', '2027-06-01T00:00:00Z', { accountId: 2 }),
  nameWith('dateless.com', null),
  ...Array.from({ length: 130 }, (_, i) => nameWith(`late${i}.com`, '2026-11-20T00:00:00Z')),
];

function plan(which: PlannedNames) {
  const index = indexRules(rulesWith({ accounts: ACCOUNTS, policies: [GENERIC], prices: PRICES }));
  const projection = projectLedger(index, NAMES, TODAY);
  const asked = { years: 3, targetId: null, budgetMinor: null, evenIfDearer: false };
  return planView(new LedgerDay(projection, TODAY), which, asked);
}
const movedIn = (which: PlannedNames) => plan(which).waves.flatMap(({ moves }) => moves.map(({ ascii }) => ascii));

test('every name, those at an account, and those that were chosen', () => {
  expect(movedIn({ kind: 'all' })).toEqual(['dear.com', 'dear2.com']);
  expect(movedIn({ kind: 'account', accountId: 2 })).toEqual([]);
  expect(movedIn({ kind: 'chosen', nameIds: [NAMES[1]?.id ?? 0, 999_999] })).toEqual(['dear2.com']);
});

test('what is left is told by reason, the most frequent first, and no more of it than can be read', () => {
  const { left } = plan({ kind: 'all' });
  expect(left.map(({ why, count, names }) => [why, count, names.length])).toEqual([
    ['out of its term', 131, 100],
    ['not known elsewhere', 1, 1],
  ]);
});

test('a move says where from and where to, and travels without its row', () => {
  const [move] = plan({ kind: 'all' }).waves[0]?.moves ?? [];
  expect(move).toMatchObject({ fromId: 1, accountId: 2, costMinor: 1000, savedMinor: 3000 });
  expect(move).not.toHaveProperty('row');
});
