import { expect, test } from 'vitest';
import { orderAgenda } from '@/core/selling';
import { addDays, instant } from '@/core/time';

const NOW = instant('2026-11-24T09:12:00Z');

test('what awaits the owner: by kind, then by date, then by worth', () => {
  const item = (kind: 'offer to answer' | 'never listed', ascii: string, by: number | null, minor: number) => ({
    kind,
    nameId: 1,
    ascii,
    unicode: ascii,
    by: by === null ? null : addDays(NOW, by),
    minor,
    currency: 'USD',
    asking: null,
    who: '',
    about: { kind: 'listings' as const },
  });
  expect(
    orderAgenda([
      item('never listed', 'd.com', null, 9),
      item('never listed', 'c.com', null, 90),
      item('offer to answer', 'b.com', 5, 1),
      item('offer to answer', 'a.com', 2, 1),
    ]).map(({ ascii }) => ascii),
  ).toEqual(['a.com', 'b.com', 'c.com', 'd.com']);
});
