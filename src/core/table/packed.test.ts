import { describe, expect, test } from 'vitest';
import { packed, unpacked } from './packed';

describe('packed bytes', () => {
  test('arrays lie at multiples of eight, and what is beside them is kept', () => {
    const value = {
      head: 'möwe',
      some: { short: Uint8Array.from([1, 2, 3]), words: ['a', 'b'], long: Float64Array.from([0.5, Number.NaN]) },
      none: new Int32Array(0),
      at: 3 as number | null,
    };
    const bytes = packed(value);
    const back = unpacked<typeof value>(bytes.buffer);
    expect(back).toEqual(value);
    expect(back.some.long.byteOffset % 8).toBe(0);
    expect(bytes.length % 8).toBe(0);
  });

  test('a body that was cut off is an error', () => {
    const bytes = packed({ ids: Int32Array.from([1, 2, 3, 4]) });
    for (const length of [0, 3, 10, bytes.length - 8]) expect(() => unpacked(bytes.buffer.slice(0, length))).toThrow();
  });
});
