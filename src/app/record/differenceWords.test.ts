import { expect, test } from 'vitest';
import { DIFFERENCE_KINDS, type Difference, type TermVerdict } from '@/core/records';
import { parseTermEnd, type TermEnd } from '@/core/time';
import { canTakeOver, differenceWords } from './differenceWords';

const END = parseTermEnd('2027-11-06') as TermEnd;

const difference = (kind: Difference['kind'], term: TermVerdict | null = null): Difference => ({
  kind,
  ledger: '2026-11-06',
  record: '2027-11-06',
  fingerprint: '',
  term,
});

test('every difference is a whole sentence', () => {
  for (const kind of DIFFERENCE_KINDS) expect(differenceWords(difference(kind))).toMatch(/^[A-Z].*\.$/);
});

test.each<[TermVerdict, string, boolean]>([
  [{ kind: 'renewed', by: 'receipt' }, 'Renewed: the year until 6 Nov 2027 is confirmed by the receipt.', true],
  [
    { kind: 'not renewed', by: 'account' },
    'Not renewed: the registry shows 6 Nov 2027 only for now; the account says 6 Nov 2026.',
    false,
  ],
  [
    { kind: 'undetermined' },
    'The registry shows 6 Nov 2027, whether or not anyone paid. If nobody did, the ledger’s deadlines hold.',
    false,
  ],
  [{ kind: 'record later', days: 365, end: END }, 'The record says 6 Nov 2027, 365 days later than the ledger.', true],
  [{ kind: 'record earlier', days: 3, end: END }, 'The record says 6 Nov 2027, 3 days earlier than the ledger.', true],
])('the term: %j', (term, words, isTaken) => {
  expect(differenceWords(difference('term end', term))).toBe(words);
  expect(canTakeOver(difference('term end', term))).toBe(isTaken);
});

test('what only a person can mend is not taken over', () => {
  expect(DIFFERENCE_KINDS.filter((kind) => !canTakeOver(difference(kind)))).toEqual(['hold', 'security broken']);
});
