import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { columnsOf, findNames, type LedgerName, mergeColumns, NameTable } from '@/core/ledger';
import type { EppStatus } from '@/core/records';
import { packed, unpacked } from '@/core/table';
import { addDays } from '@/core/time';
import { nameWith, TODAY } from './sampleLedger';

const at = fc.integer({ min: -4000, max: 4000 }).map((days) => addDays(TODAY, days));
const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });
const end = maybe(fc.record({ at, precision: fc.constantFrom('instant' as const, 'day' as const) }));
const money = fc.record({ minor: fc.nat({ max: 10 ** 12 }), currency: fc.constantFrom('USD', 'EUR', 'JPY') });
const known = fc.constantFrom(null, true, false);
const requested = fc.constantFrom(null, 'on' as const, 'off' as const);

/** A name with anything that a ledger may know of it. */
const anyName = fc
  .record({
    label: fc.stringMatching(/^[a-z0-9]([a-z0-9-]{0,8}[a-z0-9])?$/),
    ending: fc.constantFrom('com', 'uk', 'co.uk', 'xn--p1ai'),
    accountId: fc.integer({ min: 1, max: 9 }),
    registered: end,
    termEnd: end,
    observed: maybe(fc.record({ phase: fc.constantFrom('redemption' as const, 'pending transfer' as const), at })),
    setting: fc.constantFrom('on' as const, 'off' as const, 'stalled' as const, 'unknown' as const),
    standing: fc.constantFrom('believed' as const, 'requested' as const, 'confirmed' as const),
    settingSince: maybe(at),
    requested,
    requestedLock: requested,
    requestedPrivacy: requested,
    stalledBy: maybe(fc.string({ minLength: 1 })),
    confirmMailBy: maybe(at),
    purpose: fc.constantFrom('in use' as const, 'hold' as const, 'for sale' as const, 'drop' as const),
    neverLost: fc.boolean(),
    lock: known,
    privacy: known,
    transferred: end,
    gracePaid: maybe(at),
    statuses: fc.subarray<EppStatus>(['ok', 'clientHold', 'pendingDelete']),
    tags: fc.subarray(['sea', 'craft', 'möwe']),
    notes: fc.string(),
    asking: maybe(money),
    spent: fc.uniqueArray(money, { maxLength: 3, selector: ({ currency }) => currency }),
    checkedAt: maybe(at),
    rescue: fc.constantFrom(null, 'keep' as const, 'drop' as const),
    saleChance: maybe(fc.double({ min: 0, max: 1, noNaN: true })),
    bestOffer: maybe(money),
  })
  .map(({ label, ...more }) => nameWith(`${label}.${more.ending}`, null, more));
const anyNames = fc
  .uniqueArray(anyName, { maxLength: 12, selector: ({ ascii }) => ascii })
  .map((names) => names.toSorted((a, b) => (a.ascii < b.ascii ? -1 : 1)));

const held = (table: NameTable, text: string): number[] => {
  const places: number[] = [];
  table.spellings.eachHolding(text, (place) => places.push(place) > 0);
  return places;
};

describe('names in columns', () => {
  test('whatever is known of a name, it comes out of the columns as it went in, also from bytes', () => {
    fc.assert(
      fc.property(anyNames, (names) => {
        const columns = columnsOf(names);
        expect(new NameTable(columns).all()).toEqual(names);
        expect(new NameTable(unpacked(packed(columns).buffer)).all()).toEqual(names);
      }),
    );
  });

  test('each is found by its id and by its A-label, and none by another', () => {
    fc.assert(
      fc.property(anyNames, (names) => {
        const table = new NameTable(columnsOf(names));
        for (const [place, { id, ascii }] of names.entries()) {
          expect(table.placeOf(id)).toBe(place);
          expect(table.placeOfAscii(ascii)).toBe(place);
          expect([table.ascii(place), table.unicode(place)]).toEqual([ascii, ascii]);
        }
        const labels = new Set(names.map(({ ascii }) => ascii));
        for (const other of ['', 'com', '.com', 'a\nb', 'nobody.example'])
          if (!labels.has(other)) expect(table.placeOfAscii(other)).toBe(-1);
        expect(table.placeOf(-1)).toBeUndefined();
      }),
    );
  });

  test('a part of a name finds all that hold it, once each, in order', () => {
    fc.assert(
      fc.property(anyNames, fc.constantFrom('a', 'e', '1', '.', 'co', 'o.u', '-'), (names, text) => {
        const table = new NameTable(columnsOf(names));
        const expected = names.flatMap(({ ascii }, place) => (ascii.includes(text) ? [place] : []));
        expect(held(table, text)).toEqual(expected);
      }),
    );
  });
});

test('no text, and a text of two lines, is held by no name', () => {
  const table = new NameTable(columnsOf([nameWith('a.com', null), nameWith('b.com', null)]));
  expect(held(table, '')).toEqual([]);
  expect(held(table, 'com\nb')).toEqual([]);
});

test('a ledger into which changed names are merged is the ledger read anew', () => {
  fc.assert(
    fc.property(
      anyNames,
      anyNames,
      fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
      (before, others, fates) => {
        // Some stay, some have become another under the same id, some have gone; others have come.
        const stays = before.filter((_, i) => fates[i]);
        const ids = new Set(before.filter((_, i) => !fates[i]).map(({ id }) => id));
        const labels = new Set(stays.map(({ ascii }) => ascii));
        const changed = others
          .filter(({ ascii }) => !labels.has(ascii))
          .map((name, i) => ({ ...name, id: i % 2 === 0 ? ([...ids][i] ?? name.id) : name.id }));
        for (const { id } of changed) ids.add(id);
        const after = [...stays, ...changed].toSorted((a, b) => (a.ascii < b.ascii ? -1 : 1));
        const [known, fresh] = [new NameTable(columnsOf(before)), new NameTable(columnsOf(changed))];
        expect(new NameTable(mergeColumns(known, fresh, ids)).all()).toEqual(after);
      },
    ),
  );
});

test('where only what is known of some names has changed, the others and their places are taken over', () => {
  fc.assert(
    fc.property(
      anyNames,
      anyNames,
      fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
      (before, facts, marks) => {
        const changed = before.flatMap((name, i) => {
          const { id: _id, ascii: _ascii, unicode: _unicode, ...more } = facts[i % Math.max(1, facts.length)] ?? name;
          return marks[i % 12] ? [{ ...name, ...more }] : [];
        });
        const after = before.map((name) => changed.find(({ id }) => id === name.id) ?? name);
        const [known, fresh] = [new NameTable(columnsOf(before)), new NameTable(columnsOf(changed))];
        const columns = mergeColumns(known, fresh, new Set(changed.map(({ id }) => id)));
        const merged = new NameTable(columns, known);
        expect(columns.ascii).toBe(known.columns.ascii);
        expect(merged.all()).toEqual(after);
        expect(merged.places).toBe(known.places);
        for (const [place, { id }] of after.entries()) expect(merged.placeOf(id)).toBe(place);
      },
    ),
  );
});

test('a name is found in its own letters too, those that begin with them first', () => {
  const own: LedgerName[] = [
    nameWith('almwen.com', null),
    nameWith('mwen.com', null),
    nameWith('xn--mwen-5qa.com', null, { unicode: 'möwen.com' }),
    nameWith('xn--mwenmwen-90a.com', null, { unicode: 'möwenmwen.com' }),
  ];
  const table = new NameTable(columnsOf(own));
  const found = (text: string) => findNames(table, text, 9).map(({ unicode }) => unicode);
  expect(found('MÖW')).toEqual(['möwen.com', 'möwenmwen.com']);
  expect(found('mwen')).toEqual(['mwen.com', 'almwen.com', 'möwen.com', 'möwenmwen.com']);
  expect(found('zz')).toEqual([]);
  expect(findNames(table, 'mwen', 2).map(({ ascii }) => ascii)).toEqual(['mwen.com', 'almwen.com']);
});

test('a value that no column can hold is an error, not another value', () => {
  expect(() => columnsOf([nameWith('a.com', null, { setting: 'maybe' as never })])).toThrow(
    'setting has no value maybe',
  );
});
