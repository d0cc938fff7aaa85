import { describe, expect, test } from 'vitest';
import { instant, type TermEnd } from '../time';
import { proposalOf, type StandingNow } from './proposal';
import { NEWS_KINDS } from './words';

const day = (text: string): TermEnd => ({ at: instant(`${text}T00:00:00Z`), precision: 'day' });
const now = (more: Partial<StandingNow> = {}): StandingNow => ({
  termEnd: day('2026-12-06'),
  setting: 'off',
  ...more,
});
const said = (date: string | null, minor: number | null = null) => ({
  date: date === null ? null : day(date),
  amount: minor === null ? null : { minor, currency: 'USD' },
});

describe('what follows from a mail', () => {
  test('a renewal: the new end, with what was charged', () => {
    expect(proposalOf('renewed', said('2027-12-06', 1138), now())).toEqual({
      what: 'term end',
      end: day('2027-12-06'),
      charged: { minor: 1138, currency: 'USD' },
    });
    expect(proposalOf('renewed', said('2027-12-06'), now({ termEnd: null }))).toMatchObject({ charged: null });
  });

  test.each([
    ['no day', said(null, 1138), now()],
    ['the end that is known', said('2026-12-06'), now()],
    ['an end within a day of it: a zone apart', said('2026-12-07'), now()],
    ['an end that would be sooner', said('2026-01-06'), now()],
  ])('a renewal that says %s: nothing', (_, name, standing) => {
    expect(proposalOf('renewed', name, standing)).toBeNull();
  });

  test('a renewal ahead says that auto-renew is on, a failed charge that it has stalled; not where the ledger has it so', () => {
    expect(proposalOf('renewal ahead', said('2026-12-01'), now())).toEqual({ what: 'auto-renew', setting: 'on' });
    expect(proposalOf('renewal ahead', said('2026-12-01'), now({ setting: 'on' }))).toBeNull();
    expect(proposalOf('charge failed', said(null), now({ setting: 'on' }))).toEqual({
      what: 'auto-renew',
      setting: 'stalled',
    });
    expect(proposalOf('charge failed', said(null), now({ setting: 'stalled' }))).toBeNull();
  });

  test('an address to confirm: only with its day', () => {
    expect(proposalOf('confirm address', said('2026-12-09'), now())).toEqual({
      what: 'confirm mail',
      by: day('2026-12-09'),
    });
    expect(proposalOf('confirm address', said(null), now())).toBeNull();
  });

  test('nothing else proposes anything', () => {
    const silent = NEWS_KINDS.filter((kind) => proposalOf(kind, said('2030-01-01', 100), now()) === null);
    expect(silent).toEqual(['transfer asked', 'sold', 'other']);
  });
});
