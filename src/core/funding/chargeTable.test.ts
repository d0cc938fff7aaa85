import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Instant } from '../time';
import type { Payment } from './charge';
import { ChargeTable } from './chargeTable';

const NAMES = 5;
const passing = (balanceMinor: number | null): Payment =>
  ({
    outcome: 'pass',
    paymentMethod: balanceMinor === null ? 'card' : 'balance',
    balanceMinor,
    assumed: false,
  }) as Payment;
const failing = (kind: string): Payment =>
  ({
    outcome: 'fail',
    cause: kind === 'card ended' ? { kind, label: 'card', endsMonth: '2027-08' } : { kind },
    balanceMinor: 7,
    assumed: false,
  }) as Payment;
const payment = fc.oneof(
  fc.option(fc.nat(), { nil: null }).map(passing),
  fc.constantFrom('price not known', 'card ended', 'no payment method').map(failing),
);

function charge(table: ChargeTable, place: number, at: number, paid: Payment): void {
  const cost = { minor: 900 + at, currency: at % 2 ? 'EUR' : 'USD' };
  table.add(place, at as Instant, 1, cost, paid, false, at as Instant, false);
}

test('however often charges are left out and others added, each name has its own, in order, and an earlier table keeps what it had', () => {
  const round = fc.record({
    gone: fc.subarray([0, 1, 2, 3, 4]),
    added: fc.array(fc.tuple(fc.nat({ max: NAMES - 1 }), fc.nat(), payment), { maxLength: 12 }),
  });
  fc.assert(
    fc.property(fc.array(round, { minLength: 1, maxLength: 8 }), (rounds) => {
      let table = new ChargeTable(NAMES);
      let expected: unknown[][] = Array.from({ length: NAMES }, () => []);
      const of = (one: ChargeTable) => Array.from({ length: NAMES }, (_, place) => one.of(place));
      for (const { gone, added } of rounds) {
        const [before, had] = [table, of(table)];
        table = table.without(Uint8Array.from({ length: NAMES }, (_, place) => (gone.includes(place) ? 1 : 0)));
        expected = expected.map((own, place) => (gone.includes(place) ? [] : own));
        for (const [place, at, paid] of added) {
          charge(table, place, at, paid);
          // What a table of its own would make of it.
          const alone = new ChargeTable(NAMES);
          charge(alone, place, at, paid);
          expected[place] = [...(expected[place] ?? []), ...alone.of(place)];
        }
        expect(of(table)).toEqual(expected);
        expect(table.size).toBe(expected.flat().length);
        expect(of(before)).toEqual(had);
      }
    }),
  );
});
