import { describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { readZone } from '@/formats/zone/readZone';
import { quoteText, writeZone, type Zone } from '@/formats/zone/zoneFile';
import { chanceFrom } from '../../practice/scenario/chance';

const read = (text: string, zone = 'isi.edu') => {
  const found = readZone(text, zone);
  if (isRefusal(found)) throw new Error(found.message);
  return found.records.map(({ name, ttl, type, data }) => `${name} ${ttl} ${type} ${data}`);
};

describe('master files', () => {
  test('the example of RFC 1035 section 5.3, but for its $INCLUDE', () => {
    const text = `@   IN  SOA     VENERA      Action\\.domains (
                                 20     ; SERIAL
                                 7200   ; REFRESH
                                 600    ; RETRY
                                 3600000; EXPIRE
                                 60)    ; MINIMUM

        NS      A.ISI.EDU.
        NS      VENERA
        NS      VAXA
        MX      10      VENERA
        MX      20      VAXA

A       A       26.3.0.103

VENERA  A       10.1.0.52
        A       128.9.0.32

VAXA    A       10.2.0.27
        A       128.9.0.33
`;
    expect(read(text)).toEqual([
      '@ 3600 SOA VENERA Action\\.domains 20 7200 600 3600000 60',
      '@ 3600 NS A.ISI.EDU.',
      '@ 3600 NS VENERA',
      '@ 3600 NS VAXA',
      '@ 3600 MX 10 VENERA',
      '@ 3600 MX 20 VAXA',
      'a 3600 A 26.3.0.103',
      'venera 3600 A 10.1.0.52',
      'venera 3600 A 128.9.0.32',
      'vaxa 3600 A 10.2.0.27',
      'vaxa 3600 A 128.9.0.33',
    ]);
  });
  test('$TTL (RFC 2308 section 4), $ORIGIN, class and time in either order, types that nobody knows (RFC 3597)', () => {
    expect(
      read(`$TTL 1h30m
$ORIGIN mail.isi.edu.
@ 300 IN A 192.0.2.1
@ IN 60 AAAA 2001:db8::1
host TYPE62347 \\# 4 0A000001
other.example. A 192.0.2.2
`),
    ).toEqual([
      'mail 300 A 192.0.2.1',
      'mail 60 AAAA 2001:db8::1',
      'host.mail 5400 TYPE62347 \\# 4 0A000001',
      'other.example. 5400 A 192.0.2.2',
    ]);
  });
  test('quotes hold signs that mean something elsewhere', () => {
    expect(read('@ TXT "a; (b) \\"c\\"" "d"')).toEqual(['@ 3600 TXT "a; (b) \\"c\\"" "d"']);
  });
  test.each([
    ['$INCLUDE other.zone', 'Line 1 of the zone file could not be read: $INCLUDE is not understood.'],
    ['\n@ SOA a b (1 2', 'Line 2 of the zone file could not be read: a parenthesis is not closed.'],
    ['@ A)', 'Line 1 of the zone file could not be read: a parenthesis closes that was not opened.'],
    ['; nothing', 'Line 1 of the zone file could not be read: it holds no record.'],
    ['<html><body>not found', 'Line 1 of the zone file could not be read: a name, a type and its data are expected.'],
  ])('%s is refused with its line', (text, message) => {
    expect(readZone(text, 'isi.edu')).toMatchObject({ message });
  });
});

test('five hundred random zones are read as they were written', () => {
  const chance = chanceFrom(1035);
  const texts = ['v=spf1 -all', 'a "quoted" word', 'semi; colon', 'back\\slash', '(in parentheses)'];
  for (let round = 0; round < 500; round += 1) {
    const zone: Zone = {
      origin: 'kelpkiln.com',
      records: Array.from({ length: 1 + chance.whole(20) }, (_, i) => ({
        name: chance.pick(['@', 'www', `h${i}`, '_dmarc', 'a.b']),
        ttl: chance.whole(100_000),
        ...chance.pick([
          { type: 'A', data: '192.0.2.7' },
          { type: 'MX', data: '10 mail.kelpkiln.com.' },
          { type: 'TXT', data: quoteText(chance.pick(texts)) },
          { type: 'SRV', data: '0 5 5060 sip.kelpkiln.com.' },
        ]),
      })),
    };
    expect(readZone(writeZone(zone), 'kelpkiln.com')).toEqual(zone);
  }
});
