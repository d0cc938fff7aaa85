import { describe, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { instant } from '@/core/time';
import * as commands from '@/formats/epp/commands';
import { type Node, readDocument } from '@/formats/epp/document';
import { readDomainInfo, readResponse, readTaken } from '@/formats/epp/responses';
import { readTransfer } from '@/formats/epp/transfers';

/** The examples of RFC 5731 sections 3.1.3 and 3.2.4, RFC 8748 section 5.2.4, RFC 9154 section 4, from memory of their text. */
const DOMAIN = 'xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"';
const FEE = 'xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"';
const epp = (inner: string) =>
  `<?xml version="1.0" encoding="UTF-8" standalone="no"?><epp xmlns="urn:ietf:params:xml:ns:epp-1.0">${inner}</epp>`;

/** What a document says, whatever its prefixes. A code names no contact here, so `roid` is left out; `hosts="all"` is the default. */
function plain(xml: string): Node {
  const strip = (node: Node): Node => ({
    text: node.text,
    attributes: Object.fromEntries(
      Object.entries(node.attributes).filter(
        ([name, value]) => !/^(urn:ietf|https?:)/.test(value) && name !== 'roid' && name !== 'hosts',
      ),
    ),
    children: Object.fromEntries(Object.entries(node.children).map(([name, list]) => [name, list.map(strip)])),
  });
  return strip(readDocument(xml));
}
const PW = '<domain:authInfo><domain:pw roid="JD1234-REP">2fooBAR</domain:pw></domain:authInfo>';

describe('commands', () => {
  test('asking after a transfer: RFC 5731 section 3.1.3', () => {
    expect(plain(commands.transferDomain('query', { name: 'example.com', authInfo: '2fooBAR' }, 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><transfer op="query"><domain:transfer ${DOMAIN}><domain:name>example.com</domain:name>${PW}</domain:transfer></transfer>
          <clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('asking for one: RFC 5731 section 3.2.4, with its fee as RFC 8748 section 5.2.4 has it', () => {
    const order = { name: 'example.com', years: 1, authInfo: '2fooBAR' };
    const request = (extension: string) =>
      plain(
        epp(`<command><transfer op="request"><domain:transfer ${DOMAIN}><domain:name>example.com</domain:name>
          <domain:period unit="y">1</domain:period>${PW}</domain:transfer></transfer>${extension}<clTRID>ABC-12345</clTRID></command>`),
      );
    expect(plain(commands.transferDomain('request', order, 'ABC-12345'))).toEqual(request(''));
    expect(plain(commands.transferDomain('request', { ...order, fee: amount(500, 'USD') }, 'ABC-12345'))).toEqual(
      request(
        `<extension><fee:transfer ${FEE}><fee:currency>USD</fee:currency><fee:fee>5.00</fee:fee></fee:transfer></extension>`,
      ),
    );
  });
  test.each(['approve', 'reject', 'cancel'] as const)('%s: RFC 5730 section 2.9.3.4', (op) => {
    expect(plain(commands.transferDomain(op, { name: 'example.com' }, 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><transfer op="${op}"><domain:transfer ${DOMAIN}><domain:name>example.com</domain:name></domain:transfer></transfer>
          <clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });

  const CODE = 'LuQ7Bu@w9?%+_HK3cayg$55$LSft3MPP';
  const update = (inner: string) =>
    plain(
      epp(`<command><update><domain:update ${DOMAIN}><domain:name>example.com</domain:name>${inner}</domain:update></update>
        <clTRID>ABC-12345-XYZ</clTRID></command>`),
    );
  test('a code is set when it is needed, with the lock taken off: RFC 9154 section 4.2', () => {
    expect(plain(commands.updateDomain({ name: 'example.com', lock: false, authInfo: CODE }, 'ABC-12345-XYZ'))).toEqual(
      update(
        `<domain:rem><domain:status s="clientTransferProhibited"/></domain:rem><domain:chg><domain:authInfo><domain:pw>${CODE}</domain:pw></domain:authInfo></domain:chg>`,
      ),
    );
  });
  test('and unset after it, with the lock back on: RFC 9154 section 4.4', () => {
    expect(plain(commands.updateDomain({ name: 'example.com', lock: true, authInfo: null }, 'ABC-12345-XYZ'))).toEqual(
      update(
        `<domain:add><domain:status s="clientTransferProhibited"/></domain:add><domain:chg><domain:authInfo><domain:null/></domain:authInfo></domain:chg>`,
      ),
    );
  });
  test('a code is tried by info before anything is paid: RFC 9154 section 4.3', () => {
    expect(plain(commands.infoDomain('example.com', 'ABC-12345-XYZ', CODE))).toEqual(
      plain(
        epp(`<command><info><domain:info ${DOMAIN}><domain:name>example.com</domain:name><domain:authInfo><domain:pw>${CODE}</domain:pw></domain:authInfo>
          </domain:info></info><clTRID>ABC-12345-XYZ</clTRID></command>`),
      ),
    );
  });
  test('name servers come and go: RFC 5731 section 3.2.5, its hosts and a status', () => {
    const change = {
      name: 'example.com',
      lock: true,
      nameServers: { add: ['ns2.example.com'], remove: ['ns1.example.com'] },
    };
    expect(plain(commands.updateDomain(change, 'ABC-12345-XYZ'))).toEqual(
      update(
        `<domain:add><domain:ns><domain:hostObj>ns2.example.com</domain:hostObj></domain:ns><domain:status s="clientTransferProhibited"/></domain:add><domain:rem><domain:ns><domain:hostObj>ns1.example.com</domain:hostObj></domain:ns></domain:rem>`,
      ),
    );
  });
  test('a code that holds markup never becomes any', () => {
    const written = commands.transferDomain(
      'request',
      { name: 'example.com', authInfo: '</domain:pw><x a="&">' },
      'ABC-1',
    );
    expect(written.split('</domain:pw>')).toHaveLength(2);
    expect(written).toContain('&lt;/domain:pw&gt;');
  });
});

describe('answers', () => {
  const trnData = (status: string, dates: readonly [string, string], exDate = true) =>
    `<domain:trnData ${DOMAIN}><domain:name>example.com</domain:name><domain:trStatus>${status}</domain:trStatus>
      <domain:reID>ClientX</domain:reID><domain:reDate>${dates[0]}</domain:reDate><domain:acID>ClientY</domain:acID>
      <domain:acDate>${dates[1]}</domain:acDate>${exDate ? '<domain:exDate>2002-09-08T22:00:00.0Z</domain:exDate>' : ''}</domain:trnData>`;
  const answer = (code: number, data: string, extension = '') =>
    readResponse(
      epp(`<response><result code="${code}"><msg>Command completed</msg></result><resData>${data}</resData>${extension}
        <trID><clTRID>ABC-12345</clTRID><svTRID>54322-XYZ</svTRID></trID></response>`),
    );

  test('a transfer that is pending: RFC 5731 section 3.1.3', () => {
    expect(
      readTransfer(answer(1000, trnData('pending', ['2000-06-06T22:00:00.0Z', '2000-06-11T22:00:00.0Z']))),
    ).toEqual({
      name: 'example.com',
      status: 'pending',
      requestedBy: 'ClientX',
      requestedAt: instant('2000-06-06T22:00:00Z'),
      actBy: 'ClientY',
      actAt: instant('2000-06-11T22:00:00Z'),
      newEnd: instant('2002-09-08T22:00:00Z'),
    });
  });
  test('a request that is taken, to be acted on within five days: RFC 5731 section 3.2.4, its fee: RFC 8748 section 5.2.4', () => {
    const extension = `<extension><fee:trnData ${FEE}><fee:currency>USD</fee:currency><fee:fee>5.00</fee:fee></fee:trnData></extension>`;
    const response = answer(1001, trnData('pending', ['2000-06-08T22:00:00.0Z', '2000-06-13T22:00:00.0Z']), extension);
    const state = readTransfer(response);
    expect((state?.actAt ?? 0) - (state?.requestedAt ?? 0)).toBe(5 * 86_400_000);
    expect(readTaken(response)).toEqual({ taken: amount(500, 'USD'), balance: null, paymentMethod: null });
  });
  test('what a transfer that adds no year says nothing of', () => {
    const dates = ['2000-06-08T22:00:00.0Z', '2000-06-09T22:00:00.0Z'] as const;
    expect(readTransfer(answer(1000, trnData('clientApproved', dates, false)))).toMatchObject({ newEnd: null });
  });
  test('a state that the standard does not know is none', () => {
    const dates = ['2000-06-08T22:00:00.0Z', '2000-06-09T22:00:00.0Z'] as const;
    expect(readTransfer(answer(1000, trnData('escalated', dates)))).toBeNull();
    expect(readTransfer(answer(1000, '<domain:chkData/>'))).toBeNull();
  });
  test('who sponsors a name, and its last transfer: RFC 5731 section 3.1.2', () => {
    const info = answer(
      1000,
      `<domain:infData ${DOMAIN}><domain:name>example.com</domain:name><domain:roid>EXAMPLE1-REP</domain:roid><domain:status s="ok"/>
        <domain:clID>ClientX</domain:clID><domain:crDate>1999-04-03T22:00:00.0Z</domain:crDate><domain:exDate>2005-04-03T22:00:00.0Z</domain:exDate>
        <domain:trDate>2000-04-08T09:00:00.0Z</domain:trDate></domain:infData>`,
    );
    expect(readDomainInfo(info)).toMatchObject({
      sponsor: 'ClientX',
      transferredAt: instant('2000-04-08T09:00:00Z'),
    });
  });
});
