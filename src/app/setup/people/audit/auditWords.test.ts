import { expect, test } from 'vitest';
import { auditWords } from './auditWords';

test.each([
  [
    { action: 'signed in', detail: { way: 'passkey', address: '192.0.2.7' } },
    'signed in · way passkey · address 192.0.2.7',
  ],
  [
    { action: 'command', detail: { command: 'editNames', arguments: [{ nameIds: [7] }] } },
    'edit names · arguments [{"nameIds":[7]}]',
  ],
  [{ action: 'not allowed', detail: { command: 'invite' } }, 'not allowed: invite people'],
  [
    { action: 'asked a second person', detail: { command: 'startRun', what: 'Restore tarbarrel.com' } },
    'asked a second person: start runs · what Restore tarbarrel.com',
  ],
  [{ action: 'command', detail: { command: 'gone since' } }, 'gone since'],
])('%o reads %s', (line, words) => {
  expect(auditWords(line)).toBe(words);
});
