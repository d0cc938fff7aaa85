import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Spellings } from './spellings';

const OWN: Readonly<Record<string, string>> = { 'xn--mwe-5qa.com': 'möwe.com', 'xn--kste-0ra.de': 'küste.de' };
const anyLabels = fc.array(fc.constantFrom('gull.com', 'kelp.com', 'kelpwharf.io', ...Object.keys(OWN)), {
  maxLength: 12,
});
const spelled = (labels: readonly string[]) =>
  new Spellings(
    labels.map((one) => `${one}\n`).join(''),
    labels.length,
    Object.fromEntries(labels.flatMap((one, place) => (OWN[one] === undefined ? [] : [[place, OWN[one]]]))),
  );

test('names stand at their places in both forms, also where one stands more than once', () => {
  fc.assert(
    fc.property(anyLabels, (labels) => {
      const spellings = spelled(labels);
      expect(labels.map((_, place) => spellings.ascii(place))).toEqual(labels);
      expect(labels.map((_, place) => spellings.unicode(place))).toEqual(labels.map((one) => OWN[one] ?? one));
      for (const one of ['gull.com', 'kelp.com', 'gull', '', 'a\nb'])
        expect(spellings.placeOf(one)).toBe(labels.indexOf(one));
    }),
  );
});

test('a text is found in either form, each place once and in order, for as long as one asks', () => {
  fc.assert(
    fc.property(
      anyLabels,
      fc.constantFrom('kelp', 'm', 'ö', 'küste', 'xn--', '.com', 'zz'),
      fc.integer({ min: 1, max: 5 }),
      (labels, text, most) => {
        const expected = labels.flatMap((one, place) =>
          one.includes(text) || (OWN[one] ?? '').includes(text) ? [place] : [],
        );
        const found: number[] = [];
        spelled(labels).eachWith(text, (place) => found.push(place) > 0);
        expect(found).toEqual(expected);
        const first: number[] = [];
        spelled(labels).eachWith(text, (place) => first.push(place) < most);
        expect(first).toEqual(expected.slice(0, most));
      },
    ),
  );
});
