import { describe, expect, test } from 'vitest';
import { instant, parseTermEnd } from '../time';
import {
  blankRecord,
  compareRecords,
  DANGER_BANDS,
  DIFFERENCE_KINDS,
  dangerBandOf,
  holderOf,
  type LedgerSide,
  type RecordContact,
  type RegistrationRecord,
  sameRegistrar,
} from './index';

const END = '2027-03-09T10:15:00Z';
const side = (more: Partial<LedgerSide> = {}): LedgerSide => ({
  registrar: 'Quaymark Names BV',
  termEnd: parseTermEnd(END),
  phase: 'term',
  lock: true,
  privacy: null,
  nameServers: ['ns1.quaymark.test', 'ns2.quaymark.test'],
  holder: null,
  accountEnd: null,
  receipt: false,
  seenAt: instant('2026-11-24T09:00:00Z'),
  graceDays: 45,
  actedAt: null,
  ...more,
});
const contact = (more: Partial<RecordContact> = {}): RecordContact => ({
  role: 'registrant',
  name: 'Harbour Office',
  organisation: null,
  mail: null,
  phone: null,
  country: null,
  form: null,
  redacted: false,
  ...more,
});
const record = (more: Partial<RegistrationRecord> = {}): RegistrationRecord => ({
  ...blankRecord('rdap', 'copperbuoy.com'),
  statuses: ['clientTransferProhibited'],
  expires: parseTermEnd(END),
  registrar: 'QUAYMARK NAMES',
  nameServers: ['ns2.quaymark.test', 'NS1.quaymark.test.'],
  ...more,
});
const kinds = (ledger: LedgerSide, registry: RegistrationRecord | null, registrar: RegistrationRecord | null = null) =>
  compareRecords(ledger, registry, registrar).map(({ kind }) => kind);

test('a record that says the same differs in nothing, however it is written', () => {
  expect(kinds(side(), record())).toEqual([]);
  expect(kinds(side(), null)).toEqual([]);
});

describe('each difference', () => {
  test.each<[string, Partial<LedgerSide>, Partial<RegistrationRecord>, string[]]>([
    ['not registered', {}, { found: false }, ['not registered']],
    ['free, as the ledger knows', { phase: 'available' }, { found: false }, []],
    ['in redemption', {}, { statuses: ['pendingDelete', 'redemptionPeriod'] }, ['in redemption']],
    [
      'in redemption, as the ledger knows',
      { phase: 'redemption' },
      { statuses: ['pendingDelete', 'redemptionPeriod'] },
      [],
    ],
    ['not deleted, though the ledger has it so', { phase: 'redemption' }, {}, ['not deleted']],
    ['registered, though the ledger has it as free', { phase: 'available' }, {}, ['not deleted']],
    [
      'still in redemption, though the ledger has it in deletion',
      { phase: 'pending delete' },
      { statuses: ['pendingDelete', 'redemptionPeriod'] },
      ['in redemption'],
    ],
    [
      'a record from before the restore that the ledger has booked',
      { phase: 'term', actedAt: instant('2026-11-24T10:00:00Z') },
      { statuses: ['pendingDelete', 'redemptionPeriod'], expires: parseTermEnd('2026-03-09T10:15:00Z') },
      [],
    ],
    ['at another registrar', {}, { registrar: 'Wrackgate Registry Services' }, ['not at that registrar']],
    ['nobody has said which registrar', { registrar: '' }, { registrar: 'Wrackgate' }, []],
    ['a transfer', {}, { statuses: ['clientTransferProhibited', 'pendingTransfer'] }, ['transfer pending']],
    [
      'a transfer, as the ledger knows',
      { phase: 'pending transfer' },
      { statuses: ['clientTransferProhibited', 'pendingTransfer'] },
      [],
    ],
    ['a year later', {}, { expires: parseTermEnd('2028-03-09T10:15:00Z') }, ['term end']],
    ['a bare date of the same day', {}, { expires: parseTermEnd('2027-03-09') }, []],
    ['on hold', {}, { statuses: ['clientTransferProhibited', 'serverHold'] }, ['hold']],
    ['unlocked', {}, { statuses: ['ok'] }, ['unlocked']],
    ['unlocked, as the ledger knows', { lock: false }, { statuses: ['ok'] }, []],
    ['locked by the registry', {}, { statuses: ['serverTransferProhibited'] }, []],
    ['signed without a signer', {}, { signed: true }, ['security broken']],
    ['signed with one', {}, { signed: true, ds: ['1 8 2 AB'] }, []],
    ['other name servers', {}, { nameServers: ['ns9.parkwick.test'] }, ['name servers']],
    ['name servers nobody has noted', { nameServers: [] }, { nameServers: ['ns9.parkwick.test'] }, []],
    ['privacy off', { privacy: true }, { holder: contact() }, ['privacy off']],
  ])('%s', (_what, ledger, said, wanted) => {
    expect(kinds(side(ledger), record(said))).toEqual(wanted);
  });

  test('the most dangerous comes first', () => {
    const said = record({ registrar: 'Wrackgate', statuses: ['clientHold'], nameServers: ['ns9.parkwick.test'] });
    expect(kinds(side(), said)).toEqual(['hold', 'not at that registrar', 'unlocked', 'name servers']);
  });

  test('the fingerprint changes with what the record says, not with the ledger', () => {
    const print = (ledger: LedgerSide, said: RegistrationRecord) => compareRecords(ledger, said, null)[0]?.fingerprint;
    const one = record({ registrar: 'Wrackgate' });
    expect(print(side(), one)).toBe(print(side({ registrar: 'Fernhithe' }), one));
    expect(print(side(), one)).not.toBe(print(side(), record({ registrar: 'Bollard' })));
  });
});

test('a registrar’s record that has only the registry’s own end proves nothing', () => {
  const [difference] = compareRecords(
    side({ termEnd: parseTermEnd('2026-11-06T10:15:00Z'), phase: 'late' }),
    record({
      expires: parseTermEnd('2027-11-06T10:15:00Z'),
      statuses: ['clientTransferProhibited', 'autoRenewPeriod'],
    }),
    record({ expires: parseTermEnd('2027-11-06T10:15:00Z') }),
  );
  expect(difference?.term).toEqual({ kind: 'undetermined' });
});

describe('the holder', () => {
  const known = side({ holder: 'Harbour Office Ltd' });
  test('another one is told; legal forms and redaction are no change', () => {
    expect(kinds(known, record(), record({ holder: contact() }))).toEqual([]);
    expect(kinds(known, record(), record({ holder: contact({ name: 'Oda Fennimore' }) }))).toEqual(['holder changed']);
    expect(kinds(known, record({ holder: contact({ name: 'REDACTED FOR PRIVACY' }) }))).toEqual([]);
    expect(kinds(known, record({ holder: contact({ name: '', redacted: true }) }))).toEqual([]);
  });

  test('the organisation stands for the person in it', () => {
    expect(holderOf(record({ holder: contact({ organisation: 'Pilgrave & Sons' }) }))).toBe('Pilgrave & Sons');
    expect(holderOf(record({ holder: contact({ organisation: 'Privacy service, withheld' }) }))).toBeNull();
    expect(holderOf(null)).toBeNull();
  });
});

test('registrars by any of their names', () => {
  expect(sameRegistrar('Quaymark Names BV', 'QUAYMARK NAMES')).toBe(true);
  expect(sameRegistrar('Bollard Domains eG', 'Bollard')).toBe(true);
  expect(sameRegistrar('Quaymark', 'Wrackgate')).toBe(false);
  expect(sameRegistrar('Ltd', 'Inc.')).toBe(false);
});

test('the ends of terms are laid side by side with the verdict on them', () => {
  const [difference] = compareRecords(
    side({ termEnd: parseTermEnd('2026-11-06T10:15:00Z'), phase: 'late' }),
    record({
      expires: parseTermEnd('2027-11-06T10:15:00Z'),
      statuses: ['clientTransferProhibited', 'autoRenewPeriod'],
    }),
    record({ registrarExpires: { at: instant('2026-11-06T10:15:00Z'), precision: 'instant' } }),
  );
  expect(difference).toMatchObject({
    kind: 'term end',
    ledger: '2026-11-06',
    record: '2027-11-06',
    term: { kind: 'not renewed', by: 'registrar' },
  });
});

describe('names in any script', () => {
  const changed = (known: string, said: string) =>
    kinds(side({ holder: known }), record({ holder: contact({ name: said }) })).includes('holder changed');
  test.each([
    ['\u682a\u5f0f\u4f1a\u793e\u6e2f', '\u682a\u5f0f\u4f1a\u793e\u6d77', true],
    ['\u0414\u043e\u043c \u0443 \u043c\u043e\u0440\u044f', '\u0434\u043e\u043c \u0443 \u043c\u043e\u0440\u044f', false],
    ['\uff2b\uff45\uff54\uff54\uff45\uff52\uff42\uff59', 'Ketterby', false],
    ['Stra\u00dfe am Meer', 'STRASSE AM MEER', false],
    ['\u03a3\u03af\u03b3\u03bc\u03b1 \u0391\u0395', '\u03a3\u03ac\u03bc\u03bf\u03c2 \u0391\u0395', true],
  ])('%s, then %s', (known, said, isChanged) => {
    expect(changed(known, said)).toBe(isChanged);
  });

  test('a registrar whose name only begins like another is another', () => {
    expect(sameRegistrar('Sea', 'Seaholly Names')).toBe(false);
    expect(sameRegistrar('\u6e2f\u30c9\u30e1\u30a4\u30f3', '\u6d77\u30c9\u30e1\u30a4\u30f3')).toBe(false);
    expect(sameRegistrar('Wrackgate', 'Wrackgate Registry Services')).toBe(true);
  });
});

test('the bands of danger follow the order of the kinds: what does not work stands first', () => {
  const bands = DIFFERENCE_KINDS.map(dangerBandOf);
  expect(bands[0]).toBe('does not work');
  expect([...new Set(bands)]).toEqual([...DANGER_BANDS]);
  // Each band is one stretch of the order.
  expect(bands).toEqual(bands.toSorted((a, b) => DANGER_BANDS.indexOf(a) - DANGER_BANDS.indexOf(b)));
});
