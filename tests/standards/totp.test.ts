import { generate } from 'otplib';
import { expect, test } from 'vitest';
import { instant } from '@/core/time';
import { stepOfCode } from '@/usecases/people/codes';

/** The secret of the published vectors, “12345678901234567890”, in base32 (RFC 4648 section 6). */
const SECRET = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';

/** Source: RFC 6238 appendix B, SHA-1: the time, and the code of eight figures. */
const VECTORS: readonly [number, string, string][] = [
  [59, '1970-01-01T00:00:59Z', '94287082'],
  [1111111109, '2005-03-18T01:58:29Z', '07081804'],
  [1111111111, '2005-03-18T01:58:31Z', '14050471'],
  [1234567890, '2009-02-13T23:31:30Z', '89005924'],
  [2000000000, '2033-05-18T03:33:20Z', '69279037'],
  [20000000000, '2603-10-11T11:33:20Z', '65353130'],
];

test.each(VECTORS)('at %i s (%s) the code is %s', async (seconds, written, code) => {
  expect(instant(written)).toBe(seconds * 1000);
  expect(await generate({ secret: SECRET, epoch: seconds, digits: 8 })).toBe(code);
  // Of six figures the last six are the same: the number is taken modulo a power of ten (section 5.3 of RFC 4226).
  expect(await stepOfCode(SECRET, code.slice(2), instant(written))).toBe(Math.floor(seconds / 30));
});

test('a code is good for its own half minute, and the one before and after; then no longer', async () => {
  const at = (seconds: number) => stepOfCode(SECRET, '050471', instant(new Date(seconds * 1000).toISOString()));
  // 1111111110 to 1111111139 is its own.
  expect(await at(1111111080)).toBe(37037037);
  expect(await at(1111111169)).toBe(37037037);
  expect(await at(1111111079)).toBeNull();
  expect(await at(1111111170)).toBeNull();
});

test.each(['', '05047', '0504711', 'abcdef', '-50471', '０５０４７１', '5e4711'])('%j is no code', async (code) => {
  expect(await stepOfCode(SECRET, code, instant('2005-03-18T01:58:31Z'))).toBeNull();
});
