import { describe, expect, test } from 'vitest';
import { compareRecords, holderOf } from '@/core/records';
import { instant } from '@/core/time';
import { readRdapDomain } from './readRdap';

const domain = (card: unknown[], redacted: unknown[] = []) =>
  readRdapDomain(
    {
      objectClassName: 'domain',
      entities: [{ objectClassName: 'entity', roles: ['registrant'], vcardArray: ['vcard', card] }],
      redacted,
    },
    'kelpkiln.com',
  );
const fn = (value: string) => ['fn', {}, 'text', value];
const org = (value: string) => ['org', {}, 'text', value];
const mail = (value: string) => ['email', {}, 'text', value];
/** Redactions as RFC 9537 section 4.2 writes them. */
const held = (what: string) => ({ name: { type: `Registrant ${what}` }, reason: { description: 'Server policy' } });

describe('only the field that is redacted is unknown (RFC 9537)', () => {
  test('an address is held back, the name is not', () => {
    const record = domain([fn('Ketterby Boatyard'), mail('x@held.example')], [held('Email')]);
    expect(record?.holder).toMatchObject({ name: 'Ketterby Boatyard', mail: null, redacted: false });
  });

  test('the organisation is held back, the name is not: a change of the name is still a change of holder', () => {
    const record = domain([fn('Oda Fennimore'), org('')], [held('Organization')]);
    expect(record?.holder).toMatchObject({ name: 'Oda Fennimore', organisation: null, redacted: false });
    if (!record) throw new Error('not read');
    const differences = compareRecords(
      {
        registrar: '',
        termEnd: null,
        phase: 'term',
        lock: null,
        privacy: null,
        nameServers: [],
        holder: 'Ketterby Boatyard',
        accountEnd: null,
        receipt: false,
        seenAt: instant('2026-11-24T09:00:00Z'),
        graceDays: 45,
        actedAt: null,
      },
      record,
      null,
    );
    expect(differences.map(({ kind }) => kind)).toEqual(['holder changed']);
  });

  test('a value that stands in the place of what is held back is not taken for it', () => {
    const record = domain([fn('Domain Protection Desk')], [{ ...held('Name'), method: 'replacementValue' }]);
    expect(record?.holder).toMatchObject({ name: null, redacted: true });
    expect(holderOf(record)).toBeNull();
  });

  test('what is held back of another contact says nothing of the holder', () => {
    const record = domain([fn('Ketterby Boatyard')], [{ name: { type: 'Tech Name' } }]);
    expect(holderOf(record)).toBe('Ketterby Boatyard');
  });
});
