import { expect, test } from 'vitest';
import { DamagedBackup } from '@/formats/backup/readBackup';
import { everyRow, tableNow } from './backupVersion1';

const now = (table: string, row: object, networks = new Map<unknown, string>()) =>
  JSON.parse(everyRow(table, [JSON.stringify(row)], networks)[0] ?? 'null') as unknown;

test.each([
  ['means', 'payment_methods'],
  ['venues', 'marketplaces'],
  ['letting_go', 'drops'],
  ['names', 'names'],
])('the table %s is %s now', (before, after) => expect(tableNow(before)).toBe(after));

test.each([
  [
    'names',
    { ascii: 'a.com', asked: 'off', asked_lock: true, purpose: 'let go', observed: 'moving', notes: 'let go' },
    {
      ascii: 'a.com',
      requested: 'off',
      requested_lock: true,
      purpose: 'drop',
      observed: 'pending transfer',
      notes: 'let go',
    },
  ],
  ['entries', { means: 'card', minor: 100 }, { payment_method: 'card', minor: 100 }],
  ['renewals', { status: 'asked' }, { status: 'requested' }],
  ['imports', { status: 'asked' }, { status: 'asked' }],
  ['batches', { kind: 'give back' }, { kind: 'refund' }],
  ['reminders', { kind: 'price step' }, { kind: 'deadline' }],
  ['settings', { key: 'letGoReasons', value: ['let go'] }, { key: 'dropReasons', value: ['let go'] }],
  ['sale_steps', { origin: 'venue' }, { origin: 'marketplace' }],
  ['policies', { restoring_days: 7, deleting_days: 5 }, { pending_restore_days: 7, pending_delete_days: 5 }],
  [
    'changes',
    { before: { asked: null }, after: { asked: 'on', purpose: 'let go' } },
    { before: { requested: null }, after: { requested: 'on', purpose: 'drop' } },
  ],
  ['changes', { before: null, after: {} }, { before: null, after: {} }],
  [
    'views',
    { query: 'q=moving+restoring&phase=late%2Cfree%2Cdeleting&tag=let+go&sort=-step' },
    { query: 'q=moving+restoring&phase=late%2Cavailable%2Cpending+delete&tag=let+go&sort=-deadline' },
  ],
  ['views', { query: 'phase=free,late&q=free' }, { query: 'phase=available%2Clate&q=free' }],
])('a row of %s speaks as the ledger does now', (table, before, after) => expect(now(table, before)).toEqual(after));

test('what a marketplace asked in columns of its own is a list of attributes, chosen by its listings', () => {
  const networks = new Map<unknown, string>();
  expect(
    now('venues', { id: 3, network: 'nine halls', placements: [{ label: 'front', minor: 400 }] }, networks),
  ).toEqual({
    id: 3,
    attributes: [
      { label: 'For adults only (18+)', options: [{ label: 'yes', minor: 0 }] },
      { label: 'Shown at nine halls too', options: [{ label: 'yes', minor: 0 }] },
      { label: 'Paid placement', options: [{ label: 'front', minor: 400 }] },
    ],
  });
  expect(
    now('listings', { venue_id: 3, kind: 'both', adult: false, network: true, placement: 'front' }, networks),
  ).toEqual({
    marketplace_id: 3,
    kind: 'fixed price, offers too',
    attributes: { 'Shown at nine halls too': 'yes', 'Paid placement': 'front' },
  });
  expect(now('listings', { venue_id: null, adult: true, network: false, placement: null })).toMatchObject({
    attributes: {},
  });
});

test.each(['{', 'x', `${'['.repeat(50_000)}${']'.repeat(50_000)}`])('%# is no row', (text) => {
  expect(() => everyRow('settings', [text], new Map())).toThrow(DamagedBackup);
});
