import { describe, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { instant } from '@/core/time';
import * as commands from '@/formats/epp/commands';
import { at, readDocument, textAt } from '@/formats/epp/document';
import { readAvailability, readCreation } from '@/formats/epp/registering';
import { readResponse } from '@/formats/epp/responses';

const epp = (inner: string) =>
  `<?xml version="1.0" encoding="UTF-8" standalone="no"?><epp xmlns="urn:ietf:params:xml:ns:epp-1.0">${inner}</epp>`;
const OK = '<result code="1000"><msg>Command completed successfully</msg></result>';
const TRID = '<trID><clTRID>ABC-12345</clTRID><svTRID>54322-XYZ</svTRID></trID>';

describe('what may be registered: RFC 5731 section 3.1.1', () => {
  const answer = readResponse(
    epp(`<response>${OK}<resData><domain:chkData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0">
      <domain:cd><domain:name avail="1">example.com</domain:name></domain:cd>
      <domain:cd><domain:name avail="0">example.net</domain:name><domain:reason>In use</domain:reason></domain:cd>
      <domain:cd><domain:name avail="1">example.org</domain:name></domain:cd></domain:chkData></resData>${TRID}</response>`),
  );

  test('each name with its answer, and why not; without a price where none is told', () => {
    expect(readAvailability(answer)).toEqual([
      { name: 'example.com', avail: true, reason: null, premium: false, register: null, renew: null },
      { name: 'example.net', avail: false, reason: 'In use', premium: false, register: null, renew: null },
      { name: 'example.org', avail: true, reason: null, premium: false, register: null, renew: null },
    ]);
  });

  test.each([
    ['true', true],
    ['false', false],
    ['1', true],
    ['0', false],
  ])('avail is a boolean of XML Schema: %s', (written, avail) => {
    const one = readResponse(
      epp(`<response>${OK}<resData><domain:chkData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:cd>
        <domain:name avail="${written}">Example.COM</domain:name></domain:cd></domain:chkData></resData>${TRID}</response>`),
    );
    expect(readAvailability(one)).toMatchObject([{ name: 'example.com', avail }]);
  });

  test('an answer without one is not taken for yes', () => {
    const bad = readResponse(
      epp(`<response>${OK}<resData><domain:chkData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:cd>
        <domain:name>example.com</domain:name></domain:cd><domain:cd/></domain:chkData></resData>${TRID}</response>`),
    );
    expect(readAvailability(bad)).toEqual([]);
  });
});

/** `fee:cd avail` is about the fee, not about the name. */
test('prices beside it, a class of their own told apart: RFC 8748 section 5.1.1', () => {
  const answer = readResponse(
    epp(`<response>${OK}<resData><domain:chkData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0">
      <domain:cd><domain:name avail="1">example.com</domain:name></domain:cd><domain:cd><domain:name avail="1">example.net</domain:name></domain:cd>
      <domain:cd><domain:name avail="0">example.xyz</domain:name></domain:cd></domain:chkData></resData>
      <extension><fee:chkData xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency>
      <fee:cd avail="1"><fee:objID>example.com</fee:objID><fee:class>Premium</fee:class><fee:command name="create"><fee:period unit="y">2</fee:period>
      <fee:fee description="Registration Fee" refundable="1" grace-period="P5D">10.00</fee:fee></fee:command>
      <fee:command name="renew"><fee:period unit="y">1</fee:period><fee:fee description="Renewal Fee">10.00</fee:fee></fee:command></fee:cd>
      <fee:cd avail="1"><fee:objID>example.net</fee:objID><fee:class>Standard</fee:class><fee:command name="create"><fee:period unit="y">2</fee:period>
      <fee:fee>5.00</fee:fee></fee:command></fee:cd><fee:cd avail="1"><fee:objID>example.xyz</fee:objID><fee:command name="create">
      <fee:period unit="y">2</fee:period><fee:fee>8.00</fee:fee></fee:command></fee:cd></fee:chkData></extension>${TRID}</response>`),
  );
  expect(readAvailability(answer)).toEqual([
    {
      name: 'example.com',
      avail: true,
      reason: null,
      premium: true,
      register: amount(1000, 'USD'),
      renew: amount(1000, 'USD'),
    },
    { name: 'example.net', avail: true, reason: null, premium: false, register: amount(500, 'USD'), renew: null },
    { name: 'example.xyz', avail: false, reason: null, premium: false, register: amount(800, 'USD'), renew: null },
  ]);
});

describe('registering: RFC 5731 section 3.2.1, with its fee as RFC 8748 section 5.2.1', () => {
  test('the order', () => {
    const xml = commands.createDomain(
      {
        name: 'example.com',
        years: 2,
        fee: amount(500, 'USD'),
        authInfo: '2fooBAR',
        nameServers: ['ns1.example.net', 'ns2.example.net'],
      },
      'ABC-12345',
    );
    const command = at(readDocument(xml), 'command');
    const create = at(command, 'create', 'create');
    expect(textAt(create, 'name')).toBe('example.com');
    expect(at(create, 'period')).toMatchObject({ text: '2', attributes: { unit: 'y' } });
    expect(at(create, 'ns')?.children.hostObj?.map(({ text }) => text)).toEqual(['ns1.example.net', 'ns2.example.net']);
    expect(textAt(create, 'authInfo', 'pw')).toBe('2fooBAR');
    // The schema wants them in this order: name, period, ns, registrant, contact, authInfo (RFC 5731 section 4).
    expect(xml).toMatch(/<domain:name>.*<domain:period.*<domain:ns>.*<domain:authInfo>/s);
    expect(textAt(command, 'extension', 'create', 'fee')).toBe('5.00');
    expect(textAt(command, 'extension', 'create', 'currency')).toBe('USD');
    expect(textAt(command, 'clTRID')).toBe('ABC-12345');
  });

  test('the answer: since when, until when, what was taken and what is left', () => {
    const answer = readResponse(
      epp(`<response>${OK}<resData><domain:creData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name>
        <domain:crDate>1999-04-03T22:00:00.0Z</domain:crDate><domain:exDate>2001-04-03T22:00:00.0Z</domain:exDate></domain:creData></resData>
        <extension><fee:creData xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency>
        <fee:fee description="Registration Fee" lookup="1" grace-period="P5D">5.00</fee:fee><fee:balance>-5.00</fee:balance><fee:creditLimit>1000.00</fee:creditLimit>
        </fee:creData></extension>${TRID}</response>`),
    );
    expect(readCreation(answer)).toEqual({
      createdAt: instant('1999-04-03T22:00:00Z'),
      paidThrough: instant('2001-04-03T22:00:00Z'),
      taken: amount(500, 'USD'),
      balance: amount(-500, 'USD'),
      paymentMethod: null,
    });
  });

  test('an answer without its dates is none', () => {
    expect(readCreation(readResponse(epp(`<response>${OK}${TRID}</response>`)))).toBeNull();
  });
});
