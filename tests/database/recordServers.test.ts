import { afterEach, expect, test } from 'vitest';
import { askRdapAt } from '@/connectors/records/rdapClient';
import { askWhois } from '@/connectors/records/whoisClient';
import { instant } from '@/core/time';
import { selectSettings } from '@/database/settings';
import { fetchBootstrap, saveRecordServers } from '@/usecases/records/servers';
import { pointRecordsAt } from '../../practice/scenario/links';
import { type LinkedLedger, linkedLedger } from './practice';

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async () => {
  made = await linkedLedger(['copperbuoy.com'], instant('2027-03-09T10:15:00Z'));
  await pointRecordsAt(made.ledger.database, made.practice.records);
  return made;
};

test('nobody is asked at an address that is not public, however it is written, unless it is allowed', async () => {
  const { practice } = await begin();
  const url = `http://127.0.0.1:${practice.records.rdap}/registry/domain/copperbuoy.com`;
  expect(await askRdapAt(url, { allowedHosts: [] })).toMatchObject({ kind: 'failed' });
  expect(await askRdapAt(url.replace('127.0.0.1', 'localhost'), { allowedHosts: [] })).toMatchObject({
    kind: 'failed',
  });
  expect(await askRdapAt(url.replace('127.0.0.1', '[::1]'), { allowedHosts: [] })).toMatchObject({ kind: 'failed' });
  expect(await askRdapAt('file:///etc/passwd', { allowedHosts: [] })).toMatchObject({ kind: 'failed' });
  expect(await askRdapAt(url, { allowedHosts: ['127.0.0.1'] })).toMatchObject({ kind: 'found' });
  await expect(askWhois(`127.0.0.1:${practice.records.whois}`, 'a.uk', { allowedHosts: [] })).rejects.toThrow('public');
});

test('where records are asked for: a bootstrap file is read before it replaces the old one, and fetched on command', async () => {
  const { ledger, practice } = await begin();
  const form = {
    whois: ['uk 127.0.0.1:4343', '.de whois.example'],
    dns: '127.0.0.1:5353',
    allowedHosts: ['127.0.0.1'],
  };
  expect(await saveRecordServers(ledger, { ...form, bootstrap: '{"no":"file"}' })).toMatchObject({
    field: 'bootstrap',
  });
  expect(await saveRecordServers(ledger, { ...form, whois: ['uk'] })).toMatchObject({ kind: 'refusal' });
  expect(await saveRecordServers(ledger, form)).toBe(true);
  const { records } = await selectSettings(ledger.database);
  expect(records).toMatchObject({ whois: { uk: '127.0.0.1:4343', de: 'whois.example' }, dns: '127.0.0.1:5353' });
  expect(records.bootstrap).toMatchObject({ version: '1.0' });
  const rdap = `http://127.0.0.1:${practice.records.rdap}/registry/domain/copperbuoy.com`;
  expect(await fetchBootstrap(ledger, rdap)).toMatchObject({ code: 'bootstrap-unreadable' });
  expect(await fetchBootstrap(ledger, 'nowhere')).toMatchObject({ field: 'address' });
});
