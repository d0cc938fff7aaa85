import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import type { Day } from '@/core/time';
import { readRates } from './readRates';

/**
 * Shapes: the nested `Cube` elements in which reference rates are published daily, and the table with a column for each currency; their
 * figures here are made up.
 */
const RULES = { into: 'USD', base: 'EUR', today: '2026-11-24' as Day };
const told = (text: string) => {
  const read = readRates(text, RULES);
  return isRefusal(read)
    ? read.message
    : read.map(({ from, currency, into, factor }) => `${from} ${currency} ${factor} ${into}`);
};

const XML = `<?xml version="1.0" encoding="UTF-8"?>
<gesmes:Envelope xmlns:gesmes="http://www.gesmes.example/vocabulary" xmlns="http://rates.example/eurofxref">
  <gesmes:subject>Reference rates</gesmes:subject>
  <Cube>
    <Cube time='2026-11-20'><Cube currency='USD' rate='1.0865'/><Cube currency='JPY' rate='161.250'/></Cube>
    <Cube time='2026-11-19'><Cube currency='USD' rate='1.0851'/></Cube>
  </Cube>
</gesmes:Envelope>`;

describe('rates are read from', () => {
  test.each<[string, string, string[]]>([
    [
      'day, currency, rate',
      'day,currency,rate\n2026-11-20,EUR,1.0865\n2026-11-20,gbp,1.3024',
      ['2026-11-20 EUR 1.0865 USD', '2026-11-20 GBP 1.3024 USD'],
    ],
    [
      'semicolons, decimal commas, and a currency of its own',
      'Date;Currency;Into;Rate\n20.11.2026;USD;EUR;0,9204',
      ['2026-11-20 USD 0.9204 EUR'],
    ],
    [
      'a column for each currency, days without a figure left out',
      'Date, USD, JPY, EUR, HKD,\n20 November 2026, 1.0865, 161.250, 1, N/A,\n19 November 2026, 1.0851, , 1, 8.45,',
      [
        '2026-11-20 EUR 1.0865 USD',
        '2026-11-20 EUR 161.25 JPY',
        '2026-11-19 EUR 1.0851 USD',
        '2026-11-19 EUR 8.45 HKD',
      ],
    ],
    [
      'the XML of reference rates',
      XML,
      ['2026-11-20 EUR 1.0865 USD', '2026-11-20 EUR 161.25 JPY', '2026-11-19 EUR 1.0851 USD'],
    ],
    [
      'thousands beside decimals',
      'day,currency,rate\n2026-11-20,EUR,1.0865\n2026-11-20,BTN,"1,250.5000"',
      ['2026-11-20 EUR 1.0865 USD', '2026-11-20 BTN 1250.5 USD'],
    ],
  ])('%s', (_, text, expected) => {
    expect(told(text)).toEqual(expected);
  });
});

test.each([
  [
    'neither heading',
    'a,b\n1,2',
    'Rates need columns “day”, “currency” and “rate”, or “date” and one for each currency.',
  ],
  [
    'thousands or decimals',
    'day,currency,rate\n2026-11-20,EUR,"1,200"',
    'Rates like 1,200 can be read two ways here. Write them like 1.2000 and bring the file again.',
  ],
  [
    'marks that contradict each other',
    'day,currency,rate\n2026-11-20,EUR,"1,08"\n2026-11-20,GBP,1.27',
    'Rates like 1,200 can be read two ways here. Write them like 1.2000 and bring the file again.',
  ],
  [
    'a day ahead',
    'day,currency,rate\n2026-11-25,EUR,1.08',
    'Line 2: 2026-11-25 lies ahead. A rate is known once its day has come.',
  ],
  ['no day', 'day,currency,rate\nsoon,EUR,1.08', 'Line 2: “soon” is not a date I can read. Write it like 2027-09-21.'],
  ['no currency', 'day,currency,rate\n2026-11-20,EURO,1.08', 'Line 2: “EURO” is not the code of another currency.'],
  ['its own currency', 'day,currency,rate\n2026-11-20,USD,1.08', 'Line 2: “USD” is not the code of another currency.'],
  ['nothing', 'day,currency,rate\n2026-11-20,EUR,0', 'Line 2: “0” is not a rate like 1.0865.'],
  ['less than nothing', 'day,currency,rate\n2026-11-20,EUR,-1.2', 'Line 2: “-1.2” is not a rate like 1.0865.'],
  ['an exponent', 'day,currency,rate\n2026-11-20,EUR,1e3', 'Line 2: “1e3” is not a rate like 1.0865.'],
  ['headings alone', 'day,currency,rate', 'No rates were found in it.'],
  [
    'XML of something else',
    '<html><body>moved</body></html>',
    'This XML is not one of reference rates, with a day, a currency and a rate to each.',
  ],
  [
    'XML that is cut',
    XML.slice(0, 300),
    'This XML is not one of reference rates, with a day, a currency and a rate to each.',
  ],
  [
    'entities that grow',
    '<!DOCTYPE a [<!ENTITY b "bbbb">]><Cube><Cube time="2026-11-20"/></Cube>',
    'This XML is not one of reference rates, with a day, a currency and a rate to each.',
  ],
])('refused: %s', (_, text, message) => {
  expect(told(text)).toBe(message);
});

test('10,000 mutated files: never a crash, never a figure, a day or a currency that was not there', () => {
  const seeds = [
    XML,
    'day,currency,rate\n2026-11-20,EUR,1.0865\n2026-11-20,GBP,1.3024',
    'Date;Currency;Into;Rate\n20.11.2026;USD;EUR;0,9204\n19.11.2026;USD;EUR;0,9188',
    'Date, USD, JPY,\n20 November 2026, 1.0865, 161.250,\n19 November 2026, 1.0851, N/A,',
  ];
  const edits = fc.array(
    fc.tuple(fc.nat(600), fc.constantFrom('', '\n', ',', ';', '.', '9', '"', '<', '>', "'", ' ', '\u0000', 'é')),
    { maxLength: 5 },
  );
  const digits = (text: string) => text.replace(/\D/g, '');
  fc.assert(
    fc.property(fc.constantFrom(...seeds), edits, fc.nat(700), (seed, changes, cut) => {
      const raw = changes
        .reduce((text, [at, put]) => text.slice(0, at) + put + text.slice(at + 1), seed)
        .slice(0, cut + 20);
      const read = readRates(raw, RULES);
      if (isRefusal(read)) {
        expect(read.message).not.toBe('');
        return;
      }
      for (const { from, currency, into, factor } of read) {
        expect(digits(raw)).toContain(digits(String(factor)));
        expect(digits(raw)).toContain(from.slice(0, 4));
        expect(from <= RULES.today).toBe(true);
        // The bank's own currency and the office's stand in no cell of theirs.
        for (const code of [currency, into])
          if (code !== RULES.base && code !== RULES.into) expect(raw.toUpperCase()).toContain(code);
      }
    }),
    { numRuns: 10_000 },
  );
}, 60_000);
