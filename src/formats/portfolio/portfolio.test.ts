import { describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { openQuestions, proposeMapping, withRemembered } from './columns';
import { portfolioReader } from './readRow';
import { readSource } from './readSource';

const source = (text: string) => {
  const found = readSource(text);
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};
const fieldsOf = (text: string) => source(text).mapping.columns.map((column) => column.field);
const rowsOf = (text: string) => {
  const { table, mapping } = source(text);
  return table.rows.slice(mapping.hasHeadings ? 1 : 0).map(portfolioReader(mapping, { currency: 'USD' }));
};

describe('columns are recognised by their headings, whatever their order and style', () => {
  test.each([
    ['Domain Name,Expiration Date,Auto-Renew\na.com,2027-01-01,on', ['name', 'expires', 'autoRenew']],
    ['EXPIRY;domain;AutoRenew;Locked\n2027-01-01;a.com;yes;1', ['expires', 'name', 'autoRenew', 'lock']],
    [
      'Nameservers\tURL\tPrice paid\tDate bought\nns1.x.test\thttps://a.com\t640\t6 Nov 2019',
      ['nameServers', 'name', 'pricePaid', 'boughtOn'],
    ],
    ['"renewal_price","tags","domain","colour"\n"11.38","a, b","a.com","red"', ['renewalPrice', 'tags', 'name', null]],
    ['Paid,Something,Registrar\n12,a.com,Quaymark\n12,b.com,Quaymark', ['pricePaid', 'name', 'account']],
  ])('%j', (text, fields) => {
    expect(fieldsOf(text)).toEqual(fields);
  });

  test('without headings, by what the cells look like', () => {
    expect(fieldsOf('2027-01-01,a.com\n2027-02-01,b.com')).toEqual(['expires', 'name']);
  });

  test('no field is given to two columns', () => {
    expect(fieldsOf('domain,name,expires,expiry\na.com,b.com,2027-01-01,2028-01-01')).toEqual([
      'name',
      null,
      'expires',
      null,
    ]);
  });

  test('what a person corrected is remembered for the same headings', () => {
    const { table } = source('domain,price\na.com,12');
    const proposal = proposeMapping(table);
    const corrected = {
      ...proposal,
      columns: proposal.columns.map((column) => ({
        ...column,
        field: column.heading === 'price' ? ('renewalPrice' as const) : column.field,
      })),
    };
    expect(withRemembered(proposal, corrected).columns[1]?.field).toBe('renewalPrice');
    expect(withRemembered(proposal, null)).toEqual(proposal);
  });
});

describe('dates that can be read two ways are asked about once for each column', () => {
  test('an ambiguous column is a question, a clear one is not', () => {
    expect(
      openQuestions(
        source('name,registered,expires\na.com,2019-01-02,05/06/2027\nb.com,2019-01-02,07/08/2027').mapping,
      ),
    ).toMatchObject([{ heading: 'expires' }]);
    expect(openQuestions(source('name,expires\na.com,05/06/2027\nb.com,05/13/2027').mapping)).toEqual([]);
    expect(openQuestions(source('name,expires\na.com,13/06/2027\nb.com,05/13/2027').mapping)).toHaveLength(1);
  });
});

describe('pasted names', () => {
  test('separated by anything; a date behind a name ends its term', () => {
    const rows = rowsOf('seaholly.com 2027-05-13; https://www.tarbarrel.org/ brackenquay.net,\nmail.seaholly.com');
    expect(rows.map((row) => (isRefusal(row) ? row.code : row.name.ascii))).toEqual([
      'seaholly.com',
      'tarbarrel.org',
      'brackenquay.net',
      'name-is-host',
    ]);
    expect(rows[0]).toMatchObject({ expires: { precision: 'day' } });
    expect(rows[1]).not.toHaveProperty('expires');
  });
  test('one name alone', () => {
    expect(rowsOf('seaholly.com')).toMatchObject([{ name: { ascii: 'seaholly.com' } }]);
  });
});

describe('cells are read, or refuse their row with a reason', () => {
  const heading = 'name,auto,lock,currency,asking,purpose,registered,expires,tags';
  test.each([
    ['yes', 'on'],
    ['ON', 'on'],
    ['true', 'on'],
    ['1', 'on'],
    ['enabled', 'on'],
    ['manual', 'off'],
    ['no', 'off'],
    ['0', 'off'],
    ['Disabled', 'off'],
    ['stalled', 'stalled'],
  ])('auto-renew %s is %s', (cell, setting) => {
    expect(rowsOf(`${heading}\na.com,${cell},,,,,,,`)[0]).toMatchObject({ setting });
  });
  test.each([
    ['a.com,perhaps,,,,,,,', 'not-yes-or-no'],
    ['a.com,,,ZZ9,,,,,', 'currency-unknown'],
    ['a.com,,,,-5,,,,', 'money-negative'],
    ['a.com,,,,,,2027-01-01,2026-01-01,', 'dates-reversed'],
    ['a.com,,,,,,,30 Feb 2027,', 'date-does-not-exist'],
    ['com,,,,,,,,', 'name-is-ending'],
    [',on,,,,,,,', 'name-empty'],
  ])('%s is refused: %s', (row, code) => {
    expect(rowsOf(`${heading}\n${row}`)[0]).toMatchObject({ code });
  });
  test('what a list does not say changes nothing', () => {
    const row = rowsOf(`${heading}\na.com,,,,,,,,`)[0];
    expect(row && Object.keys(row)).toEqual(['name']);
  });
  test('a formula cell that was defused on export is read back', () => {
    expect(rowsOf("name,notes\na.com,'=1+1")[0]).toMatchObject({ notes: '=1+1' });
  });
});
