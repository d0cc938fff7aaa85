import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '../refusal';
import { parseDomainName, splitNames } from './index';

const ascii = (input: string) => {
  const parsed = parseDomainName(input);
  return isRefusal(parsed) ? parsed.code : parsed.ascii;
};

describe('what people paste around a name comes off', () => {
  test.each([
    ['seaholly.com', 'seaholly.com'],
    ['SeaHolly.COM.', 'seaholly.com'],
    ['http://www.seaholly.com/shop?x=1#top', 'seaholly.com'],
    ['https://anna@seaholly.com:8443/', 'seaholly.com'],
    ['anna@seaholly.com', 'seaholly.com'],
    ['“seaholly.co.uk”,', 'seaholly.co.uk'],
    ['<www.seaholly.com.>', 'seaholly.com'],
    ['möwenkai.de', 'xn--mwenkai-90a.de'],
  ])('%s is read as %s', (input, expected) => {
    expect(ascii(input)).toBe(expected);
  });
});

describe('what cannot be registered is refused by a code that says why', () => {
  test.each([
    ['', 'name-empty'],
    ['   ', 'name-empty'],
    ['com', 'name-is-ending'],
    ['co.uk', 'name-is-ending'],
    ['seaholly', 'name-without-ending'],
    ['mail.seaholly.com', 'name-is-host'],
    ['www.mail.seaholly.com', 'name-is-host'],
    ['seaholly.notanending', 'name-unknown-ending'],
    ['192.0.2.1', 'name-is-address'],
    ['sea holly.com', 'name-with-space'],
    ['sea_holly.com', 'name-bad-letter'],
    ['-seaholly.com', 'name-hyphen'],
    ['seaholly-.com', 'name-hyphen'],
    ['se--aholly.com', 'name-hyphen'],
    ['sea..holly.com', 'name-empty-label'],
    [`${'a'.repeat(64)}.com`, 'name-too-long'],
    [`${'a'.repeat(63)}.${'b'.repeat(63)}.${'c'.repeat(63)}.${'d'.repeat(63)}.com`, 'name-too-long'],
    ['xn--zzzzzzzzz99999.com', 'name-bad-a-label'],
    ["'; drop table names; --.com", 'name-hyphen'],
    ['<script>alert(1)</script>.com', 'name-bad-letter'],
  ])('%j: %s', (input, code) => {
    expect(ascii(input)).toBe(code);
  });

  test('a label of 63 letters is the longest (RFC 1035 section 2.3.4)', () => {
    expect(ascii(`${'a'.repeat(63)}.com`)).toBe(`${'a'.repeat(63)}.com`);
  });

  test('the message names what was probably meant', () => {
    expect(parseDomainName('shop.seaholly.co.uk')).toMatchObject({
      message: expect.stringContaining('seaholly.co.uk'),
    });
  });
});

const letters = fc.stringMatching(/^[a-z0-9-]{1,66}$/);
const endings = fc.constantFrom(
  'com',
  'co.uk',
  'uk',
  'blogspot.com',
  'github.io',
  'test',
  'ck',
  'www.ck',
  'kawasaki.jp',
  'city.kawasaki.jp',
  '1',
);
test('a name that is written plainly is read as the same name among signs is', () => {
  fc.assert(
    fc.property(
      fc.array(letters, { minLength: 1, maxLength: 5 }),
      endings,
      fc.boolean(),
      (labels, ending, allowPrivateEndings) => {
        const name = [...labels, ending].join('.');
        expect(parseDomainName(name, { allowPrivateEndings })).toEqual(
          parseDomainName(` “${name}”, `, { allowPrivateEndings }),
        );
      },
    ),
    { numRuns: 2000 },
  );
});

describe('look-alike letters are warned of, not refused', () => {
  test.each([
    ['ореn.com', /mixes/],
    ['сорр.com', /can be read as copp/],
    ['möwenkai.de', null],
    ['почта.com', null],
    ['日本語.com', null],
    ['日本語abc.jp', null],
  ])('%s', (input, warning) => {
    const parsed = parseDomainName(input);
    if (isRefusal(parsed)) throw new Error(parsed.message);
    if (warning === null) expect(parsed.warning).toBeNull();
    else expect(parsed.warning).toMatch(warning);
  });
});

test('pasted names are separated by anything, and keep their lines', () => {
  const pieces = splitNames('a.com, b.com;c.com\td.com\r\n\r\n e.com | f.com\u00a0g.com');
  expect(pieces.map((piece) => piece.text)).toEqual(['a.com', 'b.com', 'c.com', 'd.com', 'e.com', 'f.com', 'g.com']);
  expect(pieces.map((piece) => piece.line)).toEqual([1, 1, 1, 1, 3, 3, 3]);
});

/** Source: RFC 5892 appendix A.3 to A.9, the contextual rules for single letters. */
describe('letters that are valid only beside others', () => {
  test.each([
    ['paral\u00b7lel.cat', true],
    ['kelp\u00b7kiln.com', false],
    ['l\u00b7.com', false],
    ['\u0375\u03b1\u03b2.com', true],
    ['\u03b1\u0375.com', false],
    ['\u05d2\u05f3.com', true],
    ['\u05f3\u05d2.com', false],
    ['\u30ab\u30fb\u30ad.com', true],
    ['kelp\u30fbkiln.com', false],
    ['\u0628\u0661\u0662.com', true],
    ['\u0628\u0661\u06f2.com', false],
  ])('%s', (written, isValid) => {
    const name = parseDomainName(written);
    expect('ascii' in name).toBe(isValid);
  });

  test('Korean with Latin letters is ordinary, Korean with Cyrillic is not', () => {
    expect(parseDomainName('\ud55c\uad6dsea.com')).toMatchObject({ warning: null });
    expect(parseDomainName('\ud55c\uad6d\u6e2fsea.com')).toMatchObject({ warning: null });
    expect(parseDomainName('\ud55c\uad6d\u043c\u043e\u0440\u0435.com')).toMatchObject({
      warning: expect.stringContaining('mixes'),
    });
  });
});
