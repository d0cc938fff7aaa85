import { expect, test } from 'vitest';
import { fitsPassPhrase, hashPassPhrase, refusePassPhrase } from './passPhrase';

test.each([
  ['kelp', 'pass-phrase-short'],
  ['aaaaaaaaaaaaaaaa', 'pass-phrase-guessable'],
  ['qwertyuiop123', 'pass-phrase-guessable'],
  ['Marlin Overstrand', 'pass-phrase-guessable'],
  ['Name Ledger 1', 'pass-phrase-guessable'],
  ['x'.repeat(129), 'pass-phrase-long'],
])('%s is refused: %s', (phrase, code) => {
  expect(refusePassPhrase(phrase, 'Marlin Overstrand')).toMatchObject({ code, field: 'passPhrase' });
});

test('words that do not belong together will do, in any script', () => {
  for (const phrase of ['kelp lantern drifts nine harbours', 'морской фонарь дрейфует девять', 'sjøgress og ni lykter'])
    expect(refusePassPhrase(phrase, 'Marlin Overstrand')).toBeNull();
});

test('a pass phrase fits its own hash alone, however its letters were put together', async () => {
  const kept = await hashPassPhrase('sjo\u0308gress og ni lykter');
  // Source: RFC 9106 section 3.1, the encoded form names the algorithm and its cost.
  expect(kept).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  expect(await fitsPassPhrase('sj\u00f6gress og ni lykter', kept)).toBe(true);
  expect(await fitsPassPhrase('sjögress og ni lykte', kept)).toBe(false);
  expect(await fitsPassPhrase('sjögress og ni lykter', null)).toBe(false);
});
