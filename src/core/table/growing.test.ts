import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Dictionary, Growing } from './growing';

test('a column holds what was put into it, however much that is, and goes on from there', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -9, max: 9 }), { maxLength: 40 }),
      fc.constantFrom(0, 1020, 5000),
      (values, before) => {
        const growing = new Growing(Int32Array);
        const all = [...Array(before).fill(7), ...values];
        for (const value of all) growing.push(value);
        expect(growing.length).toBe(all.length);
        const done = growing.done();
        expect([...done]).toEqual(all);
        growing.push(3);
        // What was handed out stays as it was.
        expect([...done]).toEqual(all);
        expect([...growing.done()]).toEqual([...all, 3]);
      },
    ),
  );
});

test('what is not known is not a figure in a column of figures', () => {
  const growing = new Growing(Float64Array);
  growing.push(Number.NaN);
  growing.push(0.5);
  expect([...growing.done()]).toEqual([Number.NaN, 0.5]);
});

test('what is alike has one number, and is made once', () => {
  const dictionary = new Dictionary<{ name: string }>();
  let made = 0;
  const make = (key: string) => {
    made += 1;
    return { name: `${key} ${made}` };
  };
  const code = (key: string) => dictionary.code(key, () => make(key));
  expect(['kelp', 'quay', 'kelp', 'kelp', 'mole', 'quay'].map(code)).toEqual([0, 1, 0, 0, 2, 1]);
  expect(dictionary.values.map(({ name }) => name)).toEqual(['kelp 1', 'quay 2', 'mole 3']);
});
