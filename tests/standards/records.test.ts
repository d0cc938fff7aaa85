import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type EppStatus, phaseOfStatuses, RDAP_STATUS, readStatus } from '@/core/records';
import { instant } from '@/core/time';
import { readBootstrap, serversFor } from '@/formats/rdap/bootstrap';
import { readCard } from '@/formats/rdap/jcard';
import { readRdapDomain, readRdapError } from '@/formats/rdap/readRdap';
import { readDay, readWhois } from '@/formats/whois/readWhois';
import { RFC9083_DOMAIN } from './vectors/rdapDomain';
import { RFC9083_ENTITY, RFC9083_ERROR, RFC9083_HELP, RFC9083_NAMESERVER } from './vectors/rdapObjects';

describe('RDAP', () => {
  /** Source: RFC 9083 section 5.3, the example of a domain object. */
  test('the domain of RFC 9083 section 5.3 is read whole', () => {
    const record = readRdapDomain(RFC9083_DOMAIN, 'xn--fo-5ja.example');
    expect(record).toMatchObject({
      ascii: 'xn--fo-5ja.example',
      unicode: 'fóo.example',
      handle: 'XXXX',
      found: true,
      statuses: ['serverHold'],
      registered: instant('1990-12-31T23:59:59Z'),
      changed: instant('1991-12-31T23:59:59Z'),
      nameServers: ['ns1.example.com', 'ns2.example.com'],
      signed: true,
      ds: ['12345 3 1 49FD46E6C4B45C55D4AC'],
      holder: {
        role: 'registrant',
        name: 'Joe User',
        organisation: 'Example',
        mail: 'joe.user@example.com',
        redacted: false,
      },
      referral: 'whois.example.net',
      conformance: ['rdap_level_0'],
      notUnderstood: ['status locked'],
    });
    expect(record?.events.map(({ action }) => action)).toEqual(['registration', 'last changed']);
  });

  /** Source: RFC 9083 sections 5.1 and 5.2, the examples of an entity and of a name server, in the domain of section 5.3. */
  test('the entity and the name server of RFC 9083 are read where a domain holds them', () => {
    const domain = { ...(RFC9083_DOMAIN as object), entities: [RFC9083_ENTITY], nameservers: [RFC9083_NAMESERVER] };
    const record = readRdapDomain(domain, 'xn--fo-5ja.example');
    expect(record).toMatchObject({
      registrar: 'Example',
      registrarId: '1',
      nameServers: ['ns1.xn--fo-5ja.example'],
      notUnderstood: ['status locked'],
    });
    expect(readCard(RFC9083_ENTITY.vcardArray)).toEqual({
      name: 'Joe User',
      organisation: 'Example',
      mail: 'joe.user@example.com',
      phone: '+1-555-555-1234;ext=102',
      country: 'Canada',
      form: null,
    });
    // Alone they are no record of a domain.
    expect(readRdapDomain(RFC9083_ENTITY, 'xn--fo-5ja.example')).toBeNull();
    expect(readRdapDomain(RFC9083_NAMESERVER, 'xn--fo-5ja.example')).toBeNull();
  });

  /** Source: RFC 9083 section 6, the error with every member, and section 7, the answer about help. */
  test('an error of RFC 9083 section 6 is told in its words; help is neither record nor error', () => {
    expect(readRdapError(RFC9083_ERROR)).toBe(
      'Your Beverage Choice is Not Available: I know coffee has more ummppphhh.: Sorry, dude!',
    );
    expect(readRdapError(RFC9083_HELP)).toBeNull();
    expect(readRdapDomain(RFC9083_HELP, 'example.com')).toBeNull();
    expect(readRdapDomain(RFC9083_ERROR, 'example.com')).toBeNull();
  });

  /** Source: RFC 8056 section 2, the table of statuses. */
  test('every status of RFC 8056 is mapped both ways', () => {
    expect(Object.keys(RDAP_STATUS)).toHaveLength(24);
    for (const [epp, rdap] of Object.entries(RDAP_STATUS)) {
      expect(readStatus(rdap)).toBe(epp);
      expect(readStatus(epp)).toBe(epp);
      expect(readStatus(`${epp} https://statuses.example/${epp}`)).toBe(epp);
    }
    expect([readStatus('active'), readStatus('associated'), readStatus('locked')]).toEqual(['ok', 'linked', null]);
  });

  test('in redemption a name carries pending delete as well; a pending restore outranks both (RFC 3915)', () => {
    const phase = (...statuses: EppStatus[]) => phaseOfStatuses(statuses);
    expect(phase('pendingDelete', 'redemptionPeriod')).toBe('redemption');
    expect(phase('pendingDelete')).toBe('pending delete');
    expect(phase('pendingDelete', 'redemptionPeriod', 'pendingRestore')).toBe('pending restore');
    expect(phase('autoRenewPeriod', 'clientTransferProhibited')).toBe('provisional');
    expect(phase('ok')).toBe('term');
  });

  /** Source: RFC 7095 section 3.3 and appendix B.1, RFC 8605 for `cc`. */
  test('a jCard: structured values, types, and the country of an address', () => {
    const card = readCard([
      'vcard',
      [
        ['version', {}, 'text', '4.0'],
        ['fn', {}, 'text', 'Simon Perreault'],
        ['org', { type: 'work' }, 'text', ['Viagenie', 'Networks']],
        ['adr', { type: 'work' }, 'text', ['', 'Suite D2-630', '2875 Laurier', 'Quebec', 'QC', 'G1V 2M2', 'Canada']],
        ['tel', { type: ['work', 'voice'] }, 'uri', 'tel:+1-418-656-9254;ext=102'],
        ['email', { type: 'work' }, 'text', 'simon.perreault@viagenie.ca'],
        ['contact-uri', {}, 'uri', 'https://forms.example/simon'],
      ],
    ]);
    expect(card).toEqual({
      name: 'Simon Perreault',
      organisation: 'Viagenie',
      mail: 'simon.perreault@viagenie.ca',
      phone: '+1-418-656-9254;ext=102',
      country: 'Canada',
      form: 'https://forms.example/simon',
    });
    expect(readCard(['vcard', [['adr', { cc: 'NL' }, 'text', ['', '', '', '', '', '', '']]]]).country).toBe('NL');
    expect(readCard('nothing of the sort').name).toBeNull();
  });

  /** Source: RFC 9537 section 4, redaction by removal and by an empty value. */
  test('a holder that is held back is marked so, whatever stands in its place', () => {
    const entity = (fn: string) => ({
      objectClassName: 'entity',
      roles: ['registrant'],
      vcardArray: ['vcard', [['fn', {}, 'text', fn]]],
    });
    const read = (fn: string, redacted: unknown[] = []) =>
      readRdapDomain({ objectClassName: 'domain', entities: [entity(fn)], redacted }, 'one.example')?.holder?.redacted;
    const path = '$.entities[?(@.roles[0]==‘registrant’)].vcardArray[1][?(@[0]==‘fn’)]';
    expect(read('', [{ name: { description: 'Registrant Name' }, prePath: path, method: 'removal' }])).toBe(true);
    expect(read('REDACTED FOR PRIVACY')).toBe(true);
    expect(read('Ketterby Boatyard')).toBe(false);
  });

  /** Source: RFC 9224 section 4, the example of a bootstrap file for domains. */
  test('the bootstrap file: the longest ending counts, secure servers come first', () => {
    const bootstrap = readBootstrap({
      version: '1.0',
      publication: '2024-01-07T10:11:12Z',
      description: 'Some text',
      services: [
        [['net', 'com'], ['https://registry.example.com/myrdap/']],
        [
          ['org', 'mytld'],
          ['http://example.org/', 'https://example.org/'],
        ],
        [['xn--zckzah'], ['https://example.net/rdap/xn--zckzah/']],
      ],
    });
    if (!bootstrap) throw new Error('the file is not read');
    expect(serversFor(bootstrap, 'example.com')).toEqual(['https://registry.example.com/myrdap/']);
    expect(serversFor(bootstrap, 'a.b.mytld')).toEqual(['https://example.org/', 'http://example.org/']);
    expect(serversFor(bootstrap, 'example.test')).toEqual([]);
    expect(readBootstrap({ services: [] })).toBeNull();
  });
});

/** Layouts as registries write them, with invented names; RFC 3912 leaves the form open. */
const LAYOUTS: Readonly<Record<string, string>> = {
  'keys and values': `Domain Name: KELPKILN.COM
   Registry Domain ID: 2336799_DOMAIN
   Registrar WHOIS Server: whois.quaymark.test
   Updated Date: 2026-11-02T10:00:00Z
   Creation Date: 2019-11-06T10:15:00Z
   Registry Expiry Date: 2027-11-06T10:15:00Z
   Registrar: Quaymark Names BV
   Registrar IANA ID: 9001
   Registrar Abuse Contact Email: abuse@quaymark.test
   Domain Status: clientTransferProhibited https://statuses.example/epp#clientTransferProhibited
   Domain Status: autoRenewPeriod https://statuses.example/epp#autoRenewPeriod
   Name Server: NS1.QUAYMARK.TEST
   Name Server: NS2.QUAYMARK.TEST
   DNSSEC: unsigned
>>> Last update of WHOIS database: 2026-11-24T09:00:00Z <<<`,
  'headings with values below': `
    Domain name:
        kelpkiln.com

    Registrant:
        Ketterby Boatyard

    Registrar:
        Quaymark Names BV [Tag = QUAYMARK]

    Relevant dates:
        Registered on: 06-Nov-2019
        Expiry date:  06-Nov-2027
        Last updated:  02-Nov-2026

    Registration status:
        clientTransferProhibited

    Name servers:
        ns1.quaymark.test
        ns2.quaymark.test  192.0.2.1

    DNSSEC:
        Signed`,
  'a registry that tells no end': `Domain: kelpkiln.com
Nserver: ns1.quaymark.test
Nserver: ns2.quaymark.test
Status: connect
Changed: 2026-11-02T10:00:00+01:00
Holder: Ketterby Boatyard`,
  brackets: `[ This database tells who looks after a name. ]
[Domain Name]                   KELPKILN.COM
[Registrant]                    Ketterby Boatyard
[Name Server]                   ns1.quaymark.test
[Name Server]                   ns2.quaymark.test
[Signing Key]
[Created on]                    2019/11/06
[Expires on]                    2027/11/06
[Status]                        Active
[Last Updated]                  2026/11/02 10:00:00 (JST)`,
  'dotted leaders': `domain.............: kelpkiln.com
status.............: ok
created............: 6.11.2019 10:15:00
expires............: 6.11.2027
modified...........: 2.11.2026
nserver............: ns1.quaymark.test [Ok]
nserver............: ns2.quaymark.test [Ok]
dnssec.............: no
holder.............: Ketterby Boatyard
registrar..........: Quaymark Names BV`,
  'small keys': `% This is the registry.
domain:        KELPKILN.COM
nserver:       ns1.quaymark.test.
nserver:       ns2.quaymark.test.
state:         ok
org:           Ketterby Boatyard
registrar:     Quaymark Names BV
created:       2019-11-06T10:15:00Z
paid-till:     2027-11-06T10:15:00Z`,
};

describe('WHOIS', () => {
  test.each(Object.entries(LAYOUTS))('%s', (layout, raw) => {
    const record = readWhois(raw, 'kelpkiln.com');
    expect(record?.found).toBe(true);
    expect(record?.nameServers).toEqual(['ns1.quaymark.test', 'ns2.quaymark.test']);
    const end = record?.expires ? new Date(record.expires.at).toISOString().slice(0, 10) : null;
    expect(end).toBe(layout === 'a registry that tells no end' ? null : '2027-11-06');
    const born = record?.registered ? new Date(record.registered).toISOString().slice(0, 4) : null;
    expect(born).toBe(['a registry that tells no end', 'dotted leaders'].includes(layout) ? null : '2019');
  });

  test('what is not understood is named', () => {
    expect(readWhois(LAYOUTS['dotted leaders'] ?? '', 'kelpkiln.com')?.notUnderstood).toEqual([
      'date “6.11.2019 10:15:00”',
    ]);
    expect(readWhois(LAYOUTS['a registry that tells no end'] ?? '', 'kelpkiln.com')?.notUnderstood).toEqual([
      'status connect',
    ]);
  });

  test.each([
    'No match for "KELPKILN.COM".',
    'Domain not found.',
    'NOT FOUND',
    'Status: free',
    'Domain: kelpkiln.com\nStatus: available',
    '%% No entries found for the selected source',
  ])('free: %s', (raw) => {
    expect(readWhois(raw, 'kelpkiln.com')).toMatchObject({ found: false });
  });

  test('an answer about another name, an error or nothing is no record', () => {
    expect(readWhois('Domain Name: OTHER.COM\nRegistry Expiry Date: 2027-01-01', 'kelpkiln.com')).toBeNull();
    expect(readWhois('Query rate exceeded. Try again later.', 'kelpkiln.com')).toBeNull();
    expect(readWhois('', 'kelpkiln.com')).toBeNull();
  });

  test('dates: one way to read them, or none', () => {
    const read = (text: string) => {
      const end = readDay(text);
      return end && `${new Date(end.at).toISOString().slice(0, 10)} ${end.precision}`;
    };
    expect(read('2027-11-06T10:15:00Z')).toBe('2027-11-06 instant');
    expect(read('2027-11-06 10:15:00')).toBe('2027-11-06 day');
    expect(read('06-Nov-2027')).toBe('2027-11-06 day');
    expect(read('6.11.2027')).toBe('2027-11-06 day');
    expect(read('20271106')).toBe('2027-11-06 day');
    for (const odd of ['11/06/2027', '06-11-27', '2027-13-45', 'soon', '31-Feb-2027', '']) expect(read(odd)).toBeNull();
  });
});

describe('whatever a server sends', () => {
  const seeds = [...Object.values(LAYOUTS), JSON.stringify(RFC9083_DOMAIN)];
  const mutated = fc
    .tuple(
      fc.constantFrom(...seeds),
      fc.array(fc.tuple(fc.nat(2000), fc.constantFrom('', '\n', ':', '9', '[', ' ', '"', 'é', '\u0000', '2026')), {
        maxLength: 6,
      }),
      fc.nat(2500),
    )
    .map(([seed, edits, cut]) =>
      edits.reduce((text, [at, put]) => text.slice(0, at) + put + text.slice(at + 1), seed).slice(0, cut),
    );
  const digits = (text: string) => text.replace(/\D/g, '');

  test('10,000 mutated WHOIS answers: never a crash, never a date that was not there', () => {
    fc.assert(
      fc.property(mutated, (raw) => {
        const record = readWhois(raw, 'kelpkiln.com');
        for (const end of [record?.expires, record?.registrarExpires]) {
          if (!end || end.precision === 'instant') continue;
          expect(digits(raw)).toContain(String(new Date(end.at).getUTCFullYear()));
        }
      }),
      { numRuns: 10_000 },
    );
  });

  test('10,000 mutated RDAP answers: never a crash, never a date that was not there', () => {
    fc.assert(
      fc.property(mutated, fc.jsonValue(), (raw, junk) => {
        let json: unknown;
        try {
          json = JSON.parse(raw);
        } catch {
          json = {
            ...(RFC9083_DOMAIN as object),
            events: junk,
            entities: junk,
            status: junk,
            nameservers: junk,
            secureDNS: junk,
          };
        }
        const record = readRdapDomain(json, 'xn--fo-5ja.example');
        for (const event of record?.events ?? [])
          expect(JSON.stringify(json)).toContain(String(new Date(event.at).getUTCFullYear()).slice(0, 2));
      }),
      { numRuns: 10_000 },
    );
  }, 60_000);
});
