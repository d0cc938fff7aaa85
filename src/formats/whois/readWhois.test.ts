import { describe, expect, test } from 'vitest';
import { readWhois } from './readWhois';

const day = (at: number | undefined | null) => (at == null ? null : new Date(at).toISOString().slice(0, 10));

describe('an answer is about the name that was asked for', () => {
  test('the record of a longer name that ends in it is none', () => {
    const longer = 'Domain Name: TALLKELP.COM\nRegistrar: Quaymark\nRegistry Expiry Date: 2027-11-06T10:15:00Z';
    expect(readWhois(longer, 'kelp.com')).toBeNull();
    expect(readWhois(longer, 'tallkelp.com')).toMatchObject({ found: true });
    expect(readWhois(`${longer}\nSee also kelp.com`, 'kelp.com')).toBeNull();
  });

  test('a name in its own letters is the name', () => {
    const said = 'Domain: m\u00f6wenspeicher.de\nStatus: connect\nNserver: ns1.quaymark.test';
    expect(readWhois(said, 'xn--mwenspeicher-4ib.de')).toMatchObject({
      found: true,
      nameServers: ['ns1.quaymark.test'],
    });
  });

  test('a line in passing that something is free frees no name that is held', () => {
    const thin = 'Domain Name: KELP.COM\nRegistrar: Quaymark\nThe use of this service is free';
    expect(readWhois(thin, 'kelp.com')).toMatchObject({ found: true, registrar: 'Quaymark' });
    expect(readWhois('Domain: kelp.com\nNserver: ns1.quaymark.test\nThis service is free', 'kelp.com')?.found).toBe(
      true,
    );
    expect(readWhois('The domain kelp.com is free', 'kelp.com')).toMatchObject({ found: false });
    expect(readWhois('tallkelp.com is free', 'kelp.com')).toBeNull();
    expect(readWhois('Access to this database is free', 'kelp.com')).toBeNull();
  });
});

describe('layouts of single countries', () => {
  test('parts with plain headings: whose organisation, and whose DNSSEC', () => {
    const record = readWhois(
      `Domain:             kelpkiln.it
Status:             ok
Signed:             no
Created:            2015-11-06 10:15:00
Last Update:        2026-11-07 00:10:00
Expire Date:        2027-11-06

Registrant
  Organization:     Ketterby Boatyard
  Country:          IT

Admin Contact
  Name:             Oda Fennimore
  Organization:     Pilgrave & Sons

Registrar
  Organization:     Quaymark Names BV
  Name:             QUAYMARK-REG
  DNSSEC:           yes

Nameservers
  ns1.quaymark.test
  ns2.quaymark.test`,
      'kelpkiln.it',
    );
    expect(record).toMatchObject({ registrar: 'Quaymark Names BV', signed: false });
    expect(record?.holder).toMatchObject({ organisation: 'Ketterby Boatyard', name: null });
    expect(day(record?.expires?.at)).toBe('2027-11-06');
    expect(day(record?.changed)).toBe('2026-11-07');
  });

  test('lettered brackets with the end in the state', () => {
    const record = readWhois(
      `Domain Information:
a. [Domain Name]                KELPKILN.CO.JP
g. [Organization]               Ketterby Boatyard
p. [Name Server]                ns1.quaymark.test
p. [Name Server]                ns2.quaymark.test
s. [Signing Key]                12345 8 2 ( 1F2E3D )
[State]                         Connected (2027/11/30)
[Registered Date]               2015/11/06
[Last Update]                   2026/12/01 01:05:05 (JST)`,
      'kelpkiln.co.jp',
    );
    expect(record?.holder).toMatchObject({ organisation: 'Ketterby Boatyard' });
    expect(day(record?.expires?.at)).toBe('2027-11-30');
    expect(record).toMatchObject({ signed: true, nameServers: ['ns1.quaymark.test', 'ns2.quaymark.test'] });
    expect(day(record?.changed)).toBe('2026-12-01');
  });

  test.each([
    ['2027. 11. 06.', '2027-11-06'],
    ['2027-Nov-06.', '2027-11-06'],
    ['06-Nov-2027', '2027-11-06'],
  ])('an end written %s', (written, said) => {
    expect(day(readWhois(`Domain Name: kelpkiln.com\nExpiration Date: ${written}`, 'kelpkiln.com')?.expires?.at)).toBe(
      said,
    );
  });
});
