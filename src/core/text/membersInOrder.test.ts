import fc from 'fast-check';
import { expect, test } from 'vitest';
import { membersInOrder } from './membersInOrder';

/** The same with the members of every object the other way round. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, member]) => [key, turned(member)]),
  );
}

test('whatever order its members had, a value is written the same, and says the same', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (value) => {
      const written = JSON.stringify(membersInOrder(value));
      expect(JSON.stringify(membersInOrder(turned(value)))).toBe(written);
      expect(JSON.parse(written)).toEqual(JSON.parse(JSON.stringify(value)));
    }),
  );
});

test('a list keeps its order', () => {
  expect(JSON.stringify(membersInOrder([{ b: 1, a: [2, 1] }]))).toBe('[{"a":[2,1],"b":1}]');
});
