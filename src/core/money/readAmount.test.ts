import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '../refusal';
import {
  amount,
  currencyDigits,
  formatAmount,
  formatFigure,
  NUMBER_STYLES,
  type NumberStyle,
  readAmount,
  readNumber,
  readPercent,
  spellAmount,
  styleOfLocale,
} from './index';

const POINT: NumberStyle = '1,234.50';
const COMMA: NumberStyle = '1.234,50';

/** An amount as `USD 1250`, in minor units, or the code of the refusal. */
const read = (text: string, more: { stated?: string; usual?: string; style?: NumberStyle } = {}) => {
  const answer = readAmount(text, { usual: 'USD', style: POINT, ...more });
  return isRefusal(answer) ? answer.code : `${answer.currency} ${answer.minor}`;
};

describe('what can be read in one way only is read so in every style', () => {
  test.each([
    ['12,50', 'USD 1250'],
    ['12.50', 'USD 1250'],
    ['1200,50', 'USD 120050'],
    ['40,00', 'USD 4000'],
    ['1.200,50', 'USD 120050'],
    ['1,200.50', 'USD 120050'],
    ['1 200,50', 'USD 120050'],
    ["1'200.50", 'USD 120050'],
    ['1’200.50', 'USD 120050'],
    ['1 200', 'USD 120000'],
    ['1\u00a0200', 'USD 120000'],
    ['1\u202f200,5', 'USD 120050'],
    ['1.234.567', 'USD 123456700'],
    ['1,234,567', 'USD 123456700'],
    ['12,34,567.50', 'USD 123456750'],
    ['0,990', 'USD 99'],
    ['0.990', 'USD 99'],
    ['.50', 'USD 50'],
    [',5', 'USD 50'],
    ['7', 'USD 700'],
    ['12.', 'USD 1200'],
  ])('%s: %s', (text, minor) => {
    for (const style of NUMBER_STYLES) expect(read(text, { style }), style).toBe(minor);
  });
});

describe('what could be two amounts follows the style, and stays a question where it does not decide', () => {
  test.each([
    ['1,200', POINT, 'USD 120000'],
    ['1.200', COMMA, 'USD 120000'],
    ['1.200', POINT, 'money-ambiguous'],
    ['1,200', COMMA, 'money-ambiguous'],
    ['9.990', POINT, 'money-ambiguous'],
    ['1.200', '1 234,50', 'money-ambiguous'],
  ] as const)('%s in %s: %s', (text, style, said) => {
    expect(read(text, { style })).toBe(said);
  });

  test('both readings are named, as they can be written', () => {
    expect(readAmount('1.200', { usual: 'USD', style: POINT })).toMatchObject({
      message: '“1.200” can be 1,200.00 or 1.20. Write 1200 or 1.20.',
    });
  });

  test('a currency without cents leaves one reading, one with three digits decides by style', () => {
    expect(read('1.200', { stated: 'JPY' })).toBe('JPY 1200');
    expect(read('1,200', { stated: 'JPY', style: COMMA })).toBe('JPY 1200');
    expect(read('1.200', { stated: 'KWD' })).toBe('KWD 1200');
    expect(read('1.200', { stated: 'KWD', style: COMMA })).toBe('KWD 1200000');
  });
});

describe('a sign never outranks a code', () => {
  test.each([
    ['$12.00', { stated: 'CAD' }, 'CAD 1200'],
    ['$11.38 CAD', {}, 'CAD 1138'],
    ['CAD $11.38', {}, 'CAD 1138'],
    ['CA$ 11.38', {}, 'CAD 1138'],
    ['¥100 CNY', {}, 'CNY 10000'],
    ['¥100', {}, 'JPY 100'],
    ['¥100', { stated: 'CNY' }, 'CNY 10000'],
    ['£9.90', {}, 'GBP 990'],
    ['12,50 €', {}, 'EUR 1250'],
    ['11,38 zł', {}, 'PLN 1138'],
    ['kr 120,00', { usual: 'NOK' }, 'NOK 12000'],
    ['$12', { usual: 'AUD' }, 'AUD 1200'],
    ['$12', { usual: 'EUR' }, 'USD 1200'],
    ['usd 11.38', {}, 'USD 1138'],
    ['11.38', { stated: 'EUR' }, 'EUR 1138'],
    ['€12.00', { stated: 'CAD' }, 'currency-contradicts'],
    ['€12 USD', {}, 'currency-contradicts'],
    ['USD 12 EUR', {}, 'currency-contradicts'],
    ['12 EUR', { stated: 'USD' }, 'currency-contradicts'],
    ['€12 $', {}, 'currency-contradicts'],
    ['12 ZZZ', {}, 'currency-unknown'],
  ] as const)('%s with %j: %s', (text, more, said) => {
    expect(read(text, more)).toBe(said);
  });

  test('two that contradict each other are both named', () => {
    expect(readAmount('€12.00', { stated: 'CAD', style: POINT })).toMatchObject({
      message: '“€12.00” says €, and CAD is stated. Leave one of the two out.',
    });
  });
});

test.each([
  ['', 'money-empty'],
  ['abc', 'money-not-read'],
  ['12 50', 'money-not-read'],
  ['1,2,3', 'money-not-read'],
  ['1.2.3', 'money-not-read'],
  ['12.345', 'money-ambiguous'],
  ['12.3456', 'money-not-read'],
  ['1,20,000,5', 'money-not-read'],
  ['-3', 'money-negative'],
  ['(3.00)', 'money-negative'],
  ['3-', 'money-negative'],
  ['1e5', 'money-not-read'],
  ['12..50', 'money-not-read'],
  ['99999999999999999999', 'money-too-much'],
  ['10 or 12', 'money-not-read'],
])('%j is refused: %s', (text, code) => {
  expect(read(text)).toBe(code);
});

test('a balance may be below nothing', () => {
  expect(readAmount('-3,50', { stated: 'EUR', style: COMMA, negative: true })).toEqual(amount(-350, 'EUR'));
  expect(readAmount('−€3.50', { stated: 'EUR', style: POINT, negative: true })).toEqual(amount(-350, 'EUR'));
});

const anAmount = fc
  .tuple(fc.integer({ min: 0, max: 1e11 }), fc.constantFrom('USD', 'EUR', 'GBP', 'JPY', 'KWD', 'NOK', 'CHF', 'INR'))
  .map(([minor, currency]) => amount(minor, currency));

test('what is written is read back the same, in every style, with and without sign', () => {
  fc.assert(
    fc.property(anAmount, fc.constantFrom(...NUMBER_STYLES), fc.boolean(), (one, style, whole) => {
      const context = { stated: one.currency, style };
      expect(readAmount(formatFigure(one, { style }), context)).toEqual(one);
      expect(readAmount(formatAmount(one, { style }), { usual: one.currency, style })).toEqual(one);
      expect(readAmount(formatAmount(one, { style, whole }), context)).toEqual(one);
    }),
    { numRuns: 2000 },
  );
});

/** Checked against the platform's own number formatting (ECMA-402, CLDR data). */
test('an amount as a locale writes it is read in the style that the locale proposes', () => {
  fc.assert(
    fc.property(
      anAmount,
      fc.constantFrom('en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'sv', 'tr', 'ja', 'de-CH', 'en-IN', 'nb', 'da'),
      (one, locale) => {
        const digits = currencyDigits(one.currency);
        const value = one.minor / 10 ** digits;
        if (!Number.isSafeInteger(one.minor) || Math.round(value * 10 ** digits) !== one.minor) return;
        const written = new Intl.NumberFormat(locale, {
          minimumFractionDigits: digits,
          maximumFractionDigits: digits,
        }).format(value);
        expect(
          readAmount(written, { stated: one.currency, style: styleOfLocale(locale) }),
          `${locale}: ${written}`,
        ).toEqual(one);
      },
    ),
    { numRuns: 2000 },
  );
});

test('an amount never has two readings within its own style', () => {
  fc.assert(
    fc.property(
      fc.stringMatching(/^[0-9]{0,4}([.,' ][0-9]{0,3}){0,3}$/),
      fc.constantFrom(...NUMBER_STYLES),
      (text, style) => {
        const answer = readAmount(text, { stated: 'EUR', style });
        if (isRefusal(answer)) return;
        // Whatever was read can be written so that every other style reads the same.
        const plain = formatFigure(answer, { style: POINT }).replaceAll(',', '');
        for (const other of NUMBER_STYLES) expect(readAmount(plain, { stated: 'EUR', style: other })).toEqual(answer);
      },
    ),
    { numRuns: 3000 },
  );
});

test.each([
  ['en-GB', '1,234.50'],
  ['de', '1.234,50'],
  ['fr', '1 234,50'],
  ['pl', '1 234,50'],
  ['de-CH', '1’234.50'],
  ['ja', '1,234.50'],
  ['no such locale!', '1,234.50'],
])('%s proposes %s', (locale, style) => {
  expect(styleOfLocale(locale)).toBe(style);
});

test('what was understood is told in words', () => {
  expect(spellAmount(amount(120_050, 'EUR'), { style: COMMA })).toBe('1.200,50 euros');
  expect(spellAmount(amount(1700, 'JPY'))).toBe('1,700 Japanese yen');
  expect(spellAmount(amount(100, 'USD'))).toBe('1.00 US dollars');
});

test.each([
  ['7', 7],
  ['7.5', 7.5],
  ['7,5 %', 7.5],
  ['0', 0],
  ['100%', 100],
  [',5', 0.5],
  ['', null],
  ['101', null],
  ['-1', null],
  ['1.000,5', null],
  ['x', null],
])('%j is %s percent', (text, percent) => {
  const answer = readPercent(text);
  expect(isRefusal(answer) ? null : answer).toBe(percent);
});

test('a rise may be below nothing where that is allowed', () => {
  expect(readPercent('-2,5', -100, 1000)).toBe(-2.5);
  expect(readPercent('250 %', -100, 1000)).toBe(250);
});

test.each([
  ['1.085', POINT, 1.085],
  ['1,085', COMMA, 1.085],
  ['16,500', POINT, 16_500],
  ['0,99', POINT, 0.99],
  ['157.2', COMMA, 157.2],
  ['1.2.3', POINT, null],
  ['', POINT, null],
] as const)('%j in %s is the number %s', (text, style, number) => {
  const answer = readNumber(text, style);
  expect(isRefusal(answer) ? null : answer).toBe(number);
});
