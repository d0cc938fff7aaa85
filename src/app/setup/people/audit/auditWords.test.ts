import { expect, test } from 'vitest';
import { auditWords } from './auditWords';

test.each([
  [
    { action: 'signed in', detail: { way: 'passkey', address: '192.0.2.7' } },
    'signed in · way passkey, address 192.0.2.7',
  ],
  [
    {
      action: 'command',
      detail: { command: 'editNames', arguments: [{ nameIds: [7, 8], edit: { askingMinor: null } }] },
    },
    'edit names · name ids 7, 8',
  ],
  [
    { action: 'command', detail: { command: 'invite', arguments: [{ name: 'Una Fell', monthlyLimitMinor: 400 }] } },
    'invite people · name Una Fell, monthly limit minor 400',
  ],
  [{ action: 'not allowed', detail: { command: 'invite' } }, 'not allowed: invite people'],
  [
    { action: 'asked a second person', detail: { command: 'startRun', what: 'Restore tarbarrel.com' } },
    'asked a second person: start runs · what Restore tarbarrel.com',
  ],
  [{ action: 'command', detail: { command: 'gone since', arguments: [] } }, 'gone since'],
])('%o reads %s', (line, words) => {
  expect(auditWords(line)).toBe(words);
});
