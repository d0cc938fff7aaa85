import { expect, test } from 'vitest';
import { viewFromQuery } from '@/core/ledger';
import { COMMANDS, findCommands } from './commands';

test.each([
  ['grace period', 'late'],
  ['expires', 'soon'],
  ['due', 'soon'],
  ['import', 'add'],
  ['rgp', 'redemption'],
  ['autorenew', 'off'],
  ['tld', 'policies'],
  ['ical', 'office'],
  ['back up', 'backup'],
])('the trade’s word “%s” finds its command', (words, id) => {
  expect(findCommands(words).map((command) => command.id)).toContain(id);
});

test('every piece of what is typed must fit', () => {
  expect(findCommands('late window zebra')).toEqual([]);
  expect(findCommands('')).toHaveLength(COMMANDS.length);
});

test('every command that opens a view opens one that the ledger understands', () => {
  for (const { href } of COMMANDS.filter((command) => command.href.startsWith('/ledger?'))) {
    const query = href.slice(href.indexOf('?') + 1);
    expect(viewFromQuery(new URLSearchParams(query))).not.toEqual(viewFromQuery(new URLSearchParams()));
  }
});
