import { describe, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { instant } from '@/core/time';
import * as commands from '@/formats/epp/commands';
import { type Node, readDocument } from '@/formats/epp/document';
import { frame, frameReader } from '@/formats/epp/frames';
import { readEvent } from '@/formats/epp/messages';
import {
  readDomainInfo,
  readFeeCheck,
  readGreeting,
  readHolding,
  readRenewal,
  readResponse,
  readTaken,
} from '@/formats/epp/responses';
import { STATEMENTS } from '@/usecases/orders/restoreReport';

/** A document without its namespace declarations, to compare what it says whatever its prefixes. */
function plain(xml: string): Node {
  const strip = (node: Node): Node => ({
    text: node.text,
    attributes: Object.fromEntries(
      Object.entries(node.attributes).filter(([, value]) => !/^(urn:ietf|https?:)/.test(value)),
    ),
    children: Object.fromEntries(Object.entries(node.children).map(([name, list]) => [name, list.map(strip)])),
  });
  return strip(readDocument(xml));
}
const epp = (inner: string) =>
  `<?xml version="1.0" encoding="UTF-8" standalone="no"?><epp xmlns="urn:ietf:params:xml:ns:epp-1.0">${inner}</epp>`;

describe('commands are written as the RFCs’ own examples', () => {
  test('login: RFC 5730 section 2.9.1.1', () => {
    expect(
      plain(
        commands.login(
          { login: 'ClientX', password: 'foo-BAR2' },
          { objects: ['urn:ietf:params:xml:ns:obj1'], extensions: ['http://custom/obj1ext-1.0'] },
          'ABC-12345',
        ),
      ),
    ).toEqual(
      plain(
        epp(`<command><login><clID>ClientX</clID><pw>foo-BAR2</pw><options><version>1.0</version><lang>en</lang></options>
          <svcs><objURI>urn:ietf:params:xml:ns:obj1</objURI><svcExtension><extURI>http://custom/obj1ext-1.0</extURI></svcExtension></svcs>
          </login><clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('hello and logout: RFC 5730 sections 2.3 and 2.9.1.2', () => {
    expect(plain(commands.hello())).toEqual(plain(epp('<hello/>')));
    expect(plain(commands.logout('ABC-12345'))).toEqual(
      plain(epp('<command><logout/><clTRID>ABC-12345</clTRID></command>')),
    );
  });
  test('poll: RFC 5730 section 2.9.2.3', () => {
    expect(plain(commands.pollRequest('ABC-12345'))).toEqual(
      plain(epp('<command><poll op="req"/><clTRID>ABC-12345</clTRID></command>')),
    );
    expect(plain(commands.pollAcknowledge('12345', 'ABC-12346'))).toEqual(
      plain(epp('<command><poll op="ack" msgID="12345"/><clTRID>ABC-12346</clTRID></command>')),
    );
  });
  test('info: RFC 5731 section 3.1.2', () => {
    expect(plain(commands.infoDomain('example.com', 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><info><domain:info xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name hosts="all">example.com</domain:name>
          </domain:info></info><clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('renew: RFC 5731 section 3.2.3', () => {
    const order = { name: 'example.com', curExpDate: '2000-04-03', years: 5, fee: null };
    expect(plain(commands.renewDomain(order, 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><renew><domain:renew xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name>
          <domain:curExpDate>2000-04-03</domain:curExpDate><domain:period unit="y">5</domain:period></domain:renew></renew>
          <clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('renew with a fee: RFC 8748 section 5.2.3', () => {
    const order = { name: 'example.com', curExpDate: '2000-04-03', years: 5, fee: amount(500, 'USD') };
    expect(plain(commands.renewDomain(order, 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><renew><domain:renew xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name>
          <domain:curExpDate>2000-04-03</domain:curExpDate><domain:period unit="y">5</domain:period></domain:renew></renew>
          <extension><fee:renew xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency><fee:fee>5.00</fee:fee>
          </fee:renew></extension><clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('restore request: RFC 3915 section 4.2.5', () => {
    expect(plain(commands.requestRestore('example.com', null, null, 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><update><domain:update xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name><domain:chg/>
          </domain:update></update><extension><rgp:update xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0"><rgp:restore op="request"/></rgp:update></extension>
          <clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('restore report: RFC 3915 section 4.2.5', () => {
    const statements = [
      'This registrar has not restored the Registered Name in order to assume the rights to use or sell the Registered Name for itself or for any third party.',
      "The information in this report is true to best of this registrar's knowledge, and this registrar acknowledges that intentionally supplying false information in this report shall constitute an incurable material breach of the Registry-Registrar Agreement.",
    ] as const;
    const report = {
      preData: 'Pre-delete registration data goes here. Both XML and free text are allowed.',
      postData: 'Post-restore registration data goes here. Both XML and free text are allowed.',
      delTime: '2003-07-10T22:00:00.0Z',
      resTime: '2003-07-20T22:00:00.0Z',
      resReason: 'Registrant error.',
      statements,
      other: 'Supporting information goes here.',
    };
    expect(plain(commands.reportRestore('example.com', report, 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><update><domain:update xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name><domain:chg/>
          </domain:update></update><extension><rgp:update xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0"><rgp:restore op="report"><rgp:report>
          <rgp:preData>${report.preData}</rgp:preData><rgp:postData>${report.postData}</rgp:postData>
          <rgp:delTime>2003-07-10T22:00:00.0Z</rgp:delTime><rgp:resTime>2003-07-20T22:00:00.0Z</rgp:resTime><rgp:resReason>Registrant error.</rgp:resReason>
          <rgp:statement>${statements[0]}</rgp:statement><rgp:statement>${statements[1]}</rgp:statement>
          <rgp:other>Supporting information goes here.</rgp:other></rgp:report></rgp:restore></rgp:update></extension>
          <clTRID>ABC-12345</clTRID></command>`),
      ),
    );
    expect(STATEMENTS.map((text) => text.replace('’', "'"))).toEqual(statements);
  });
  test('delete: RFC 5731 section 3.2.2', () => {
    expect(plain(commands.deleteDomain('example.com', 'ABC-12345'))).toEqual(
      plain(
        epp(`<command><delete><domain:delete xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name>
          </domain:delete></delete><clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('fee check: RFC 8748 section 5.1.1, its renew command', () => {
    expect(
      plain(commands.checkFees(['example.com'], [{ command: 'renew', years: 1 }], 'USD', null, 'ABC-12345')),
    ).toEqual(
      plain(
        epp(`<command><check><domain:check xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name></domain:check></check>
          <extension><fee:check xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency>
          <fee:command name="renew"><fee:period unit="y">1</fee:period></fee:command></fee:check></extension><clTRID>ABC-12345</clTRID></command>`),
      ),
    );
  });
  test('what a person writes never becomes markup', () => {
    const xml = commands.updateDomain({ name: '</domain:name><x>&"\'', auto: 'on' }, 'NL-1');
    expect(plain(xml).children.command?.[0]?.children.update?.[0]?.children.update?.[0]?.children.name?.[0]?.text).toBe(
      '</domain:name><x>&"\'',
    );
  });
});

const TRID = '<trID><clTRID>ABC-12345</clTRID><svTRID>54321-XYZ</svTRID></trID>';
const OK = '<result code="1000"><msg>Command completed successfully</msg></result>';

describe('answers are read as the RFCs’ own examples', () => {
  test('greeting: RFC 5730 section 2.4', () => {
    expect(
      readGreeting(
        epp(`<greeting><svID>Example EPP server epp.example.com</svID><svDate>1999-11-12T12:34:56.0Z</svDate><svcMenu><version>1.0</version>
          <lang>en</lang><lang>fr</lang><objURI>urn:ietf:params:xml:ns:obj1</objURI><objURI>urn:ietf:params:xml:ns:obj2</objURI>
          <svcExtension><extURI>http://custom/obj1ext-1.0</extURI></svcExtension></svcMenu><dcp><access><all/></access></dcp></greeting>`),
      ),
    ).toEqual({
      title: 'Example EPP server epp.example.com',
      objects: ['urn:ietf:params:xml:ns:obj1', 'urn:ietf:params:xml:ns:obj2'],
      extensions: ['http://custom/obj1ext-1.0'],
    });
  });
  test('an error with its reason: RFC 5730 section 2.6', () => {
    expect(
      readResponse(
        epp(`<response><result code="2004"><msg>Parameter value range error</msg><value xmlns:obj="urn:ietf:params:xml:ns:obj"><obj:elem1>2525</obj:elem1></value>
          <extValue><value xmlns:obj="urn:ietf:params:xml:ns:obj"><obj:elem3>ex(ample</obj:elem3></value><reason>Invalid character found.</reason></extValue>
          </result>${TRID}</response>`),
      ),
    ).toMatchObject({ code: 2004, reason: 'Invalid character found.', clTRID: 'ABC-12345', svTRID: '54321-XYZ' });
  });
  test('a message of the queue, then none: RFC 5730 section 2.9.2.3', () => {
    expect(
      readResponse(
        epp(`<response><result code="1301"><msg>Command completed successfully; ack to dequeue</msg></result>
          <msgQ count="5" id="12345"><qDate>2000-06-08T22:00:00.0Z</qDate><msg>Transfer requested.</msg></msgQ>
          <resData><obj:trnData xmlns:obj="urn:ietf:params:xml:ns:obj-1.0"><obj:name>example.com</obj:name><obj:trStatus>pending</obj:trStatus></obj:trnData></resData>
          ${TRID}</response>`),
      ).queue,
    ).toEqual({ id: '12345', count: 5, at: instant('2000-06-08T22:00:00Z'), text: 'Transfer requested.' });
    expect(
      readResponse(
        epp(
          `<response><result code="1300"><msg>Command completed successfully; no messages</msg></result>${TRID}</response>`,
        ),
      ),
    ).toMatchObject({ code: 1300, queue: null });
  });
  test('a name: RFC 5731 section 3.1.2, in redemption as RFC 3915 section 4.1.2 has it', () => {
    const info = readDomainInfo(
      readResponse(
        epp(`<response>${OK}<resData><domain:infData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name>
          <domain:roid>EXAMPLE1-REP</domain:roid><domain:status s="pendingDelete"/><domain:ns><domain:hostObj>ns1.example.com</domain:hostObj>
          <domain:hostObj>ns1.example.net</domain:hostObj></domain:ns><domain:clID>ClientX</domain:clID><domain:crDate>1999-04-03T22:00:00.0Z</domain:crDate>
          <domain:exDate>2005-04-03T22:00:00.0Z</domain:exDate></domain:infData></resData><extension><rgp:infData xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0">
          <rgp:rgpStatus s="redemptionPeriod"/></rgp:infData></extension>${TRID}</response>`),
      ),
    );
    expect(info).toMatchObject({
      name: 'example.com',
      paidThrough: instant('2005-04-03T22:00:00Z'),
      registeredAt: instant('1999-04-03T22:00:00Z'),
      statuses: ['pendingDelete', 'redemptionPeriod'],
      nameServers: ['ns1.example.com', 'ns1.example.net'],
      setting: 'unknown',
      lock: false,
    });
  });
  test('a restore that waits for its report: RFC 3915 section 4.2.5, with its fee as RFC 8748 section 5.2.5', () => {
    const response = readResponse(
      epp(`<response>${OK}<extension><rgp:upData xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0"><rgp:rgpStatus s="pendingRestore"/></rgp:upData>
        <fee:updData xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency><fee:fee>5.00</fee:fee></fee:updData>
        </extension>${TRID}</response>`),
    );
    expect(readTaken(response)).toEqual({ taken: amount(500, 'USD'), balance: null, paymentMethod: null });
  });
  test('a deletion in the first days: credited as RFC 8748 section 5.2.2 has it', () => {
    const response = readResponse(
      epp(`<response>${OK}<extension><fee:delData xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency>
        <fee:credit description="AGP Credit">-5.00</fee:credit><fee:balance>1005.00</fee:balance></fee:delData></extension>${TRID}</response>`),
    );
    expect(readTaken(response)).toEqual({
      taken: amount(-500, 'USD'),
      balance: amount(100_500, 'USD'),
      paymentMethod: null,
    });
  });
  test('a renewal for five years: RFC 5731 section 3.2.3, with its fee as RFC 8748 section 5.2.3', () => {
    const renewed = readRenewal(
      readResponse(
        epp(`<response>${OK}<resData><domain:renData xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"><domain:name>example.com</domain:name>
          <domain:exDate>2005-04-03T22:00:00.0Z</domain:exDate></domain:renData></resData><extension><fee:renData xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0">
          <fee:currency>USD</fee:currency><fee:fee refundable="1">5.00</fee:fee><fee:balance>1000.00</fee:balance></fee:renData></extension>${TRID}</response>`),
      ),
    );
    expect(renewed).toEqual({
      paidThrough: instant('2005-04-03T22:00:00Z'),
      taken: amount(500, 'USD'),
      balance: amount(100_000, 'USD'),
      paymentMethod: null,
    });
  });
  test('prices, standard and premium: RFC 8748 section 5.1.1', () => {
    const fees = readFeeCheck(
      readResponse(
        epp(`<response>${OK}<extension><fee:chkData xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"><fee:currency>USD</fee:currency>
          <fee:cd avail="1"><fee:objID>example.com</fee:objID><fee:class>Premium</fee:class><fee:command name="create"><fee:period unit="y">2</fee:period>
          <fee:fee description="Registration Fee" refundable="1" grace-period="P5D">10.00</fee:fee></fee:command></fee:cd>
          <fee:cd avail="1"><fee:objID>example.net</fee:objID><fee:class>standard</fee:class><fee:command name="create"><fee:period unit="y">2</fee:period>
          <fee:fee>5.00</fee:fee></fee:command></fee:cd><fee:cd avail="0"><fee:objID>example.xyz</fee:objID><fee:command name="create">
          <fee:period unit="y">2</fee:period><fee:reason>Only 1 year registration periods are valid.</fee:reason></fee:command></fee:cd>
          </fee:chkData></extension>${TRID}</response>`),
      ),
    );
    expect(fees.map(({ name, premium, fees: [fee] }) => [name, premium, fee?.total?.minor ?? null])).toEqual([
      ['example.com', true, 1000],
      ['example.net', false, 500],
      ['example.xyz', false, null],
    ]);
  });
  test.each([
    ['not XML', 'EPP 1.0'],
    ['cut short', epp('<response><result code="1000">').slice(0, 90)],
    ['another root', '<html/>'],
    ['a document type', '<!DOCTYPE x [<!ENTITY e "boom">]><epp>&e;</epp>'],
    ['no code', epp('<response/>')],
    ['two roots', `${epp('<response/>')}<epp/>`],
    ['an entity that nobody declared', epp('<response>&boom;</response>')],
    ['an attribute twice', epp('<response a="1" a="2"/>')],
    ['an element called like a prototype', epp('<__proto__><response/></__proto__>')],
  ])('%s is no answer', (_what, xml) => {
    expect(() => readResponse(xml)).toThrow();
  });
});

describe('frames: RFC 5734 section 4', () => {
  test('the length counts its own four octets', () => {
    expect(frame('<epp/>').readUInt32BE(0)).toBe('<epp/>'.length + 4);
    expect(frame('é').readUInt32BE(0)).toBe(6);
  });
  test('frames come whole however the stream is cut', () => {
    const stream = Buffer.concat([frame('<a/>'), frame('<bé/>'), frame('<c/>')]);
    for (let size = 1; size <= stream.length; size += 1) {
      const read = frameReader();
      const got: string[] = [];
      for (let start = 0; start < stream.length; start += size) got.push(...read(stream.subarray(start, start + size)));
      expect(got).toEqual(['<a/>', '<bé/>', '<c/>']);
    }
  });
  test('a length that is none is refused', () => {
    expect(() => frameReader()(Buffer.from([0, 0, 0, 2]))).toThrow();
    expect(() => frameReader()(Buffer.from([255, 255, 255, 255]))).toThrow();
  });
});

test('our own extension: what a login holds, and what happened by itself (docs/epp-holding.md)', () => {
  const page = readHolding(
    readResponse(
      epp(`<response>${OK}<resData><holding:infData xmlns:holding="${commands.HOLDING}"><holding:balance currency="EUR">94.50</holding:balance>
        <holding:paymentMethod kind="card" ends="2027-03">blue card</holding:paymentMethod><holding:rules lead="15" late="10" lateFee="0.00" years="asBought" retry="10 5" tax="19" auction="6"/>
        <holding:name exDate="2027-01-13T08:00:00Z" autoRenew="stalled" failure="card ended" lock="true" privacy="false" statuses="clientTransferProhibited"
        receipt="b-7" receiptFor="NL-1" taken="9.40" currency="EUR">eelgrassmill.de</holding:name><holding:more/></holding:infData></resData>${TRID}</response>`),
    ),
  );
  expect(page).toMatchObject({
    balance: amount(9450, 'EUR'),
    paymentMethods: [{ kind: 'card', label: 'blue card', endsMonth: '2027-03' }],
    rules: { leadDays: 15, lateDays: 10, yearsPerCharge: null, retryDays: [10, 5], auctionDay: 6, taxPercent: 19 },
    names: [{ name: 'eelgrassmill.de', setting: 'stalled', failure: 'card ended', lock: true, privacy: false }],
    more: true,
  });
  expect(page?.names[0]?.receipt).toEqual({
    clTRID: 'NL-1',
    svTRID: 'b-7',
    amount: amount(940, 'EUR'),
    paymentMethod: null,
  });
  const event = readEvent(
    readResponse(
      epp(`<response><result code="1301"><msg>x</msg></result><msgQ count="1" id="9"/><resData><holding:event xmlns:holding="${commands.HOLDING}" kind="charged"
        exDate="2028-01-13T08:00:00Z" amount="9.40" currency="EUR" paymentMethod="balance">eelgrassmill.de</holding:event></resData>${TRID}</response>`),
    ),
  );
  expect(event).toEqual({
    kind: 'charged',
    name: 'eelgrassmill.de',
    paidThrough: instant('2028-01-13T08:00:00Z'),
    amount: amount(940, 'EUR'),
    paymentMethod: 'balance',
    until: null,
  });
});
