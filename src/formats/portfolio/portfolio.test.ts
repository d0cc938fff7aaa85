import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { USUAL_STYLE } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { formatTermEnd } from '@/core/time';
import { openQuestions, proposeMapping, unusedColumns, withRemembered } from './columns';
import { HEADINGS, plainHeading } from './headings';
import { portfolioReader, rowAt } from './readRows';
import { readSource } from './readSource';
import { remembering } from './remembering';

const source = (text: string) => {
  const found = readSource(text);
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};
const fieldsOf = (text: string) => source(text).mapping.columns.map((column) => column.field);
const rowsOf = (text: string) => {
  const { table, mapping } = source(text);
  const rows = table.rows.slice(mapping.hasHeadings ? 1 : 0);
  const read = portfolioReader(mapping, { currency: 'USD', numberStyle: USUAL_STYLE })(rows);
  return rows.map((_, i) => rowAt(read, i));
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
        USUAL_STYLE,
      ),
    ).toMatchObject([{ about: 'dates', column: { heading: 'expires' } }]);
    expect(openQuestions(source('name,expires\na.com,05/06/2027\nb.com,05/13/2027').mapping, USUAL_STYLE)).toEqual([]);
    expect(openQuestions(source('name,expires\na.com,13/06/2027\nb.com,05/13/2027').mapping, USUAL_STYLE)).toHaveLength(
      1,
    );
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
    ['com,,,,,,,,', 'name-is-ending'],
    [',on,,,,,,,', 'name-empty'],
  ])('%s is refused: %s', (row, code) => {
    expect(rowsOf(`${heading}\n${row}`)[0]).toMatchObject({ code });
  });
  test.each([
    ['a.com,perhaps,yes,,,,,,', { lock: true }, /perhaps/],
    ['a.com,,yes,ZZ9,12.50,,,,', { lock: true }, /ZZ9.*left out/],
    ['a.com,on,,,-5,,,,', { setting: 'on' }, /negative/],
    ['a.com,on,,,,,2027-01-01,2026-01-01,', { setting: 'on' }, /ends before/],
    ['a.com,on,,,,,,30 Feb 2027,', { setting: 'on' }, /no such day/],
    ['a.com,on,,CAD,€12.00,,,,', { setting: 'on' }, /€.*CAD/],
  ])('%s loses that cell, and says so', (row, rest, said) => {
    const [read] = rowsOf(`${heading}\n${row}`);
    if (!read || isRefusal(read)) throw new Error('refused');
    const { name, lost, ...kept } = read;
    expect(kept).toEqual(rest);
    expect(lost.join(' ')).toMatch(said);
  });
  test('what a list does not say changes nothing', () => {
    const row = rowsOf(`${heading}\na.com,,,,,,,,`)[0];
    expect(row && Object.keys(row)).toEqual(['name', 'lost']);
  });
  test('a formula cell that was defused on export is read back', () => {
    expect(rowsOf("name,notes\na.com,'=1+1")[0]).toMatchObject({ notes: '=1+1' });
  });
});

describe('headings in the languages most used by registrars', () => {
  test.each([
    ['Domäne;Ablaufdatum;Automatische Verlängerung;Preis pro Jahr', 'German'],
    ["Nom de domaine;Date d'expiration;Renouvellement automatique;Prix annuel", 'French'],
    ['Nombre de dominio;Fecha de vencimiento;Renovación automática;Precio anual', 'Spanish'],
    ['Nome dominio;Data di scadenza;Rinnovo automatico;Prezzo annuale', 'Italian'],
    ['Domeinnaam;Vervaldatum;Automatische verlenging;Jaarprijs', 'Dutch'],
    ['Nome de domínio;Data de expiração;Renovação automática;Preço anual', 'Portuguese'],
    ['Nazwa domeny;Data wygaśnięcia;Automatyczne odnowienie;Cena roczna', 'Polish'],
    ['Domännamn;Utgångsdatum;Automatisk förnyelse;Årspris', 'Swedish'],
    ['Alan adı;Bitiş tarihi;Otomatik yenileme;Yıllık ücret', 'Turkish'],
    ['ドメイン名;有効期限;自動更新;年額', 'Japanese'],
    ['Domain name;Expiry date;Auto-renew;Renewal price', 'English'],
  ])('%s (%s)', (headings) => {
    expect(fieldsOf(`${headings}\nkelpkiln.com;2027-05-13;1;12.50`)).toEqual([
      'name',
      'expires',
      'autoRenew',
      'renewalPrice',
    ]);
  });

  test('no word is told of two fields, whatever its capitals and signs', () => {
    const seen = new Map<string, string>();
    for (const [field, words] of Object.entries(HEADINGS))
      for (const word of new Set(words.split(/\s+/).map(plainHeading))) {
        if (word === '') continue;
        // What two languages share belongs to the first, and only where it is a word of sorting.
        if (seen.has(word))
          expect(
            [
              'kategorie',
              'etiquetas',
              'grupo',
              'categoria',
              'kategori',
              'nota',
              'valuta',
              'utgångspris',
              'prezzo',
              'konto',
              'conta',
              'nombre',
              'bin',
              'due',
              'ns',
            ],
            `${word} of ${field} and ${seen.get(word)}`,
          ).toContain(word);
        seen.set(word, field);
      }
  });
});

describe('content decides where a heading says nothing or contradicts it', () => {
  test('“Renewal” over amounts is a price, though “Auto-Renew” stands beside it', () => {
    expect(fieldsOf('Domain,Renewal,Auto-Renew\na.com,$11.38,on\nb.com,$11.38,off')).toEqual([
      'name',
      'renewalPrice',
      'autoRenew',
    ]);
  });
  test('“Renewal” over days is the end of the term, over words the setting', () => {
    expect(fieldsOf('Domain,Renewal\na.com,2027-01-01')).toEqual(['name', 'expires']);
    expect(fieldsOf('Domain,Renewal\na.com,manual')).toEqual(['name', 'autoRenew']);
  });
  test('an unknown heading over days ends the term, unless it speaks of another day', () => {
    expect(fieldsOf('Domain,Laufzeitende\na.com,2027-01-01')).toEqual(['name', 'expires']);
    expect(fieldsOf('Domain,Last updated\na.com,2027-01-01')).toEqual(['name', null]);
  });
  test('a heading that its cells contradict is left out, and named', () => {
    const { mapping } = source('Domain,Lock,Colour\na.com,12.50 EUR,red\nb.com,9.90 EUR,blue');
    expect(mapping.columns.map(({ field }) => field)).toEqual(['name', null, null]);
    expect(unusedColumns(mapping)).toEqual(['Lock', 'Colour']);
  });
});

describe('tables of two columns', () => {
  test.each(['\t', ';', '|'])('separated by %j, with headings or without', (delimiter) => {
    expect(rowsOf(`Domain${delimiter}Expires\na.com${delimiter}2027-01-01`)).toMatchObject([
      { name: { ascii: 'a.com' }, expires: {} },
    ]);
    expect(rowsOf(`a.com${delimiter}2027-01-01`)).toMatchObject([{ name: { ascii: 'a.com' }, expires: {} }]);
    expect(unusedColumns(source(`a.com${delimiter}red`).mapping)).toEqual(['column 2']);
  });
  test('several names in a row are a list of names', () => {
    expect(rowsOf('a.com | b.com\nc.com | d.com').map((row) => (isRefusal(row) ? row.code : row.name.ascii))).toEqual([
      'a.com',
      'b.com',
      'c.com',
      'd.com',
    ]);
  });
});

describe('amounts in a column', () => {
  test('are asked about where neither the cells nor the office decide', () => {
    const { mapping } = source('name;asking\na.com;1.200\nb.com;2.400');
    expect(openQuestions(mapping, '1,234.50')).toMatchObject([{ about: 'amounts', column: { heading: 'asking' } }]);
    expect(openQuestions(mapping, '1.234,50')).toEqual([]);
  });
  test('are read as the column shows', () => {
    const read = rowsOf('name;asking\na.com;1.200\nb.com;2.400,50');
    expect(read.map((row) => !isRefusal(row) && row.asking?.minor)).toEqual([120_000, 240_050]);
  });
});

describe('names among words', () => {
  const found = (text: string) =>
    rowsOf(text).map((row) =>
      isRefusal(row) ? row.code : [row.name.ascii, row.expires ? formatTermEnd(row.expires) : null],
    );
  test('a day beside a name is read, the words are counted', () => {
    const text =
      'Dear Oda, please look after kelpkiln.com (expires 2027-02-02) and also seaholly.com renews 3 Mar 2027.\nThanks a lot!';
    expect(found(text)).toEqual([
      ['kelpkiln.com', '2027-02-02'],
      ['seaholly.com', '2027-03-03'],
    ]);
    expect(source(text).leftOut).toBe(12);
  });
  test('a day of registration is no end', () => {
    expect(rowsOf('kelpkiln.com registered 3 Mar 2019, expires on March 3, 2027')).toMatchObject([
      { registered: { at: Date.UTC(2019, 2, 3) }, expires: { at: Date.UTC(2027, 2, 3) } },
    ]);
  });
  test('what was meant for a name is refused, not passed over', () => {
    expect(found('seaholly.nosuchending and kelpkiln.com')).toEqual(['name-unknown-ending', ['kelpkiln.com', null]]);
    expect(found('seaholly\nkelpkiln.com')).toEqual(['name-without-ending', ['kelpkiln.com', null]]);
  });
  test('words alone are no list', () => {
    expect(readSource('there is nothing here to read')).toMatchObject({ code: 'no-names' });
  });
});

describe('rows are read the same, however many at once', () => {
  const CELLS: readonly string[][] = [
    ['kelpkiln.com', 'seaholly.com', 'no name', '', 'com', "'=1+1", 'möwenkai.de'],
    ['Quaymark', 'Wrackgate', '', 'two\nlines'],
    ['2027-05-13', '2019-01-01', '30 Feb 2027', 'soon', '', 'n/a'],
    ['2028-05-13', '2018-01-01', '', 'never'],
    ['on', 'off', 'perhaps', ''],
    ['12.50', '-5', '€ 7', '', 'free'],
    ['USD', 'eur', 'ZZ9', ''],
    ['a, b', 'b|a', ''],
  ];
  const table = fc.array(fc.tuple(...CELLS.map((cells) => fc.constantFrom(...cells))), { maxLength: 12 });
  const HEADINGS_OF = ['name', 'account', 'registered', 'expires', 'auto-renew', 'renewal price', 'currency', 'tags'];
  const { mapping } = source(`${HEADINGS_OF.join(';')}\nkelpkiln.com;Quaymark;2019-01-01;2027-05-13;on;12.50;USD;a`);
  const rules = { currency: 'USD', numberStyle: USUAL_STYLE };
  test('all of a list, some of it, or each by itself', () => {
    fc.assert(
      fc.property(table, fc.nat(12), (cells, cut) => {
        const rows = cells.map((row, i) => ({ line: i + 2, cells: row }));
        const together = portfolioReader(mapping, rules)(rows);
        const alone = rows.map((row) => rowAt(portfolioReader(mapping, rules)([row]), 0));
        const reader = portfolioReader(mapping, rules);
        const pieces = [rows.slice(0, cut), rows.slice(cut)].flatMap((piece) => {
          const read = reader(piece);
          return piece.map((_, i) => rowAt(read, i));
        });
        expect(rows.map((_, i) => rowAt(together, i))).toEqual(alone);
        expect(pieces).toEqual(alone);
      }),
    );
  });
});

test('a reader of cells reads each of them once, and those beyond what it keeps anew', () => {
  const read: string[] = [];
  const reader = remembering((text) => {
    read.push(text);
    return text === 'nothing' ? undefined : text.length;
  });
  const asked = ['kelp', 'kelp', 'nothing', 'tide', 'kelp', 'nothing'];
  expect(asked.map(reader)).toEqual([4, 4, undefined, 4, 4, undefined]);
  expect(read).toEqual(['kelp', 'nothing', 'tide']);
  const many = Array.from({ length: 30_000 }, (_, i) => `kelp${i}`);
  expect([...many, ...many].map(reader)).toEqual([...many, ...many].map(({ length }) => length));
});
