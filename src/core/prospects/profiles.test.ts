import fc from 'fast-check';
import { expect, test } from 'vitest';
import { HORIZON_MONTHS, wholeCourse } from './index';
import { profilesOf, UnpaidTally } from './profiles';
import { bookOf, scheduleOf } from './sampleBook';

const charges = fc
  .array(fc.tuple(fc.integer({ min: 0, max: HORIZON_MONTHS - 1 }), fc.constantFrom(700, 1138, 1310)), { maxLength: 6 })
  .map((list) => list.sort(([a], [b]) => a - b));
const month = fc.integer({ min: 0, max: HORIZON_MONTHS - 1 });

test('what is not paid once names are sold is what each of them would still have been charged, added up one by one', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(charges, month), { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 1, max: 3 }),
      (names, paths) => {
        const book = bookOf(
          names.map(() => ({})),
          [{ sales: 1, nameYears: 1 }],
        );
        const course = wholeCourse(
          'all',
          scheduleOf(names.map(([list]) => ({ charges: list, until: HORIZON_MONTHS }))),
          book,
        );
        const profiles = profilesOf(course, book);
        // Names that are charged alike are one.
        expect(profiles.first.length - 1).toBe(new Set(names.map(([list]) => JSON.stringify(list))).size);
        const tally = new UnpaidTally(profiles);
        for (let path = 0; path < paths; path += 1) {
          const cash = new Float64Array(HORIZON_MONTHS);
          for (const [name, [, sold]] of names.entries()) tally.sell(name, sold);
          tally.payBack(cash);
          const naive = new Float64Array(HORIZON_MONTHS);
          for (const [list, sold] of names)
            for (const [at, minor] of list) if (at > sold) naive[at] = (naive[at] as number) + minor;
          expect([...cash]).toEqual([...naive]);
        }
      },
    ),
  );
});
