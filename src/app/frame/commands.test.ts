import { expect, test } from 'vitest';
import { viewFromQuery } from '@/core/ledger';
import { accountCommands, COMMANDS, findCommands } from './commands';

test.each([
  ['grace period', 'late'],
  ['expires', 'soon'],
  ['due', 'soon'],
  ['import', 'add'],
  ['rgp', 'redemption'],
  ['autorenew', 'off'],
  ['tld', 'policies'],
  ['ical', 'mail'],
  ['smtp', 'mail'],
  ['webhook', 'programs'],
  ['eml', 'mails'],
  ['api', 'programs'],
  ['invite', 'people'],
  ['permissions', 'people'],
  ['audit', 'audit'],
  ['missing', 'unknown'],
  ['back up', 'backup'],
  ['expiry', 'soon'],
  ['extension', 'renewals'],
  ['transfer', 'transfers'],
  ['backorder', 'record'],
  ['backorder', 'waited-for'],
  ['pending delete', 'waited-for'],
  ['spelling', 'shortlist'],
  ['availability', 'acquire'],
  ['coupon', 'renewals'],
  ['available', 'record'],
  ['cancel', 'dropped'],
  ['let go', 'dropped'],
  ['undo', 'undo'],
  ['night', 'night'],
  ['back up', 'back up now'],
])('the trade’s word “%s” finds its command', (words, id) => {
  expect(findCommands(words).map((command) => command.id)).toContain(id);
});

test('every piece of what is typed must fit', () => {
  expect(findCommands('late window zebra')).toEqual([]);
  expect(findCommands('')).toHaveLength(COMMANDS.length);
});

test('every command that opens a view opens one that the ledger understands', () => {
  const views = COMMANDS.flatMap(({ does }) =>
    does.kind === 'go' && does.href.startsWith('/ledger?') ? [does.href] : [],
  );
  expect(views.length).toBeGreaterThan(8);
  for (const href of views) {
    const query = href.slice(href.indexOf('?') + 1);
    expect(viewFromQuery(new URLSearchParams(query))).not.toEqual(viewFromQuery(new URLSearchParams()));
  }
});

test('every account is found by its name, to see its names or to set it up', () => {
  const commands = accountCommands([{ id: 3, label: 'Wrackgate' }]);
  expect(findCommands('wrackg', commands).map(({ does }) => does)).toEqual([
    { kind: 'go', href: '/ledger?account=3' },
    { kind: 'go', href: '/setup/accounts/3' },
  ]);
});
