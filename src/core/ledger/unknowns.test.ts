import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  indexRules,
  LedgerDay,
  type LedgerName,
  lacksMeans,
  namesLacking,
  projectLedger,
  unknownsOf,
} from '@/core/ledger';
import { addDays, formatInstant } from '@/core/time';
import { nameWith, QUAYMARK, rulesWith, TODAY } from './sampleLedger';

const name = (ascii: string, days: number | null, more: Partial<LedgerName> = {}) =>
  nameWith(ascii, days === null ? null : formatInstant(addDays(TODAY, days)), { registered: null, ...more });

const unknownsWith = (names: readonly LedgerName[], account: Partial<typeof QUAYMARK> = {}) => {
  const rules = rulesWith({ accounts: [{ ...QUAYMARK, ...account }] });
  return unknownsOf(new LedgerDay(projectLedger(indexRules(rules), names, TODAY), TODAY));
};

test('each thing that nobody has said is counted once, and a name that lacks two rests on unknowns once', () => {
  const unknowns = unknownsWith([
    name('known.com', 90, { setting: 'off' }),
    name('dateless.com', null, { setting: 'unknown' }),
    name('unsure.com', 40, { setting: 'unknown' }),
    name('no-price.zz', 40, { setting: 'off', ending: 'zz' }),
    name('nor-this.zz', 50, { setting: 'off', ending: 'zz' }),
  ]);
  expect(unknowns).toMatchObject({ ends: 1, settings: 2, unpriced: 2, resting: 4, names: 5, accounts: [] });
  expect(unknowns.prices).toEqual([{ accountId: QUAYMARK.id, ending: 'zz', names: 2 }]);
});

test('an account that charges and has no means is counted with its names; one that charges nothing is not', () => {
  const names = [name('on.com', 90, { setting: 'on' }), name('too.com', 90, { setting: 'stalled' })];
  const none = { paymentMethods: [] };
  expect(unknownsWith(names, none).accounts).toEqual([{ accountId: QUAYMARK.id, names: 2 }]);
  expect(unknownsWith([name('off.com', 90, { setting: 'off' })], none).accounts).toEqual([]);
  expect(unknownsWith(names, none).resting).toBe(2);
});

test('a balance that pays first and that nobody knows is as good as no means', () => {
  const balance = [{ kind: 'balance' as const, label: 'balance', endsMonth: null }];
  const card = [{ kind: 'card' as const, label: 'card', endsMonth: '2027-10' }];
  expect(lacksMeans({ paymentMethods: balance, balanceMinor: null })).toBe(true);
  expect(lacksMeans({ paymentMethods: balance, balanceMinor: 0 })).toBe(false);
  expect(lacksMeans({ paymentMethods: card, balanceMinor: null })).toBe(false);
});

test('what is let go, deleted or free needs none of it', () => {
  const unknowns = unknownsWith([
    name('dropped.zz', 20, { setting: 'unknown', purpose: 'drop' }),
    name('gone.zz', -400, { setting: 'unknown' }),
  ]);
  expect(unknowns).toMatchObject({ ends: 0, settings: 0, unpriced: 0, resting: 0, names: 0 });
});

test('whatever the names, those that are listed to be said are those that are counted', () => {
  const someName = fc.record({
    days: fc.option(fc.integer({ min: -100, max: 400 })),
    setting: fc.constantFrom<LedgerName['setting']>('on', 'off', 'unknown'),
    purpose: fc.constantFrom<LedgerName['purpose']>('hold', 'drop'),
  });
  fc.assert(
    fc.property(fc.array(someName, { maxLength: 20 }), fc.integer({ min: 0, max: 6 }), (some, limit) => {
      const names = some.map(({ days, ...more }, at) => name(`n${at}.com`, days, more));
      const found = new LedgerDay(projectLedger(indexRules(rulesWith()), names, TODAY), TODAY);
      const { ends, settings } = unknownsOf(found);
      expect(namesLacking(found, 'end', found.length)).toHaveLength(ends);
      expect(namesLacking(found, 'setting', found.length)).toHaveLength(settings);
      expect(namesLacking(found, 'setting', limit)).toHaveLength(Math.min(limit, settings));
    }),
  );
});
