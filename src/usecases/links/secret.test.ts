import { expect, test } from 'vitest';
import { keyFrom, seal, unseal } from './secret';

const made = (text: string) => keyFrom(text) ?? Buffer.alloc(0);

test('a password is sealed and opened with the same key, and never stands in what is kept', () => {
  const key = made('a key of this installation');
  const sealed = seal(key, 'quaymark-practice-pw');
  expect(unseal(key, sealed)).toBe('quaymark-practice-pw');
  expect(sealed.toString('latin1')).not.toContain('practice');
  expect(seal(key, 'quaymark-practice-pw').equals(sealed)).toBe(false);
});

test('another key, or a changed octet, opens nothing', () => {
  const sealed = seal(made('one'), 'quaymark-practice-pw');
  expect(unseal(made('two'), sealed)).toBeNull();
  sealed[sealed.length - 1] = (sealed.at(-1) ?? 0) ^ 1;
  expect(unseal(made('one'), sealed)).toBeNull();
});
