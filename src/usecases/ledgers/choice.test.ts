import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Deps } from '../deps';
import { discardDemo, ledgerChoice, openLedger, wishFrom } from './choice';

/** Nothing of the world is looked at for it. */
const NOBODY = {} as Deps;

const before = process.send;
const sent = vi.fn();
beforeEach(() => {
  sent.mockReset();
  process.send = sent as never;
});
afterEach(() => {
  vi.unstubAllEnvs();
  if (before) process.send = before;
  else delete process.send;
});

test('the start command says which ledger is open, and whether there is a demo', () => {
  vi.stubEnv('NAME_LEDGER_OPEN', 'own');
  vi.stubEnv('NAME_LEDGER_DEMO', '');
  expect(ledgerChoice()).toEqual({ open: 'own', mayChange: true, hasDemo: false });
  vi.stubEnv('NAME_LEDGER_DEMO', 'there');
  expect(ledgerChoice()).toEqual({ open: 'own', mayChange: true, hasDemo: true });
  vi.stubEnv('NAME_LEDGER_OPEN', 'demo');
  vi.stubEnv('NAME_LEDGER_DEMO', '');
  expect(ledgerChoice()).toEqual({ open: 'demo', mayChange: true, hasDemo: true });
});

test('what is wished is asked of the start command', async () => {
  vi.stubEnv('NAME_LEDGER_OPEN', 'own');
  expect(await openLedger(NOBODY, 'demo')).toBe(true);
  expect(await discardDemo(NOBODY)).toBe(true);
  expect(await openLedger(NOBODY, 'own')).toBe(true);
  // The start command reads exactly what was sent.
  expect(sent.mock.calls.map(([message]) => wishFrom(message))).toEqual(['open demo', 'discard demo', 'open own']);
});

test.each([
  null,
  undefined,
  'open demo',
  7,
  {},
  { wish: 'drop everything' },
  { wish: ['open demo'] },
  { open: 'demo' },
])('what is no wish is none: %j', (message) => {
  expect(wishFrom(message)).toBeNull();
});

test('a program on a database of somebody’s own has one ledger, and asks nobody for another', async () => {
  vi.stubEnv('NAME_LEDGER_OPEN', undefined);
  expect(ledgerChoice()).toEqual({ open: 'own', mayChange: false, hasDemo: false });
  expect(await openLedger(NOBODY, 'demo')).toMatchObject({ code: 'ledger-not-changed' });
  expect(await discardDemo(NOBODY)).toMatchObject({ code: 'ledger-not-changed' });
  expect(sent).not.toHaveBeenCalled();
});

test('nor does one that the start command did not start', async () => {
  vi.stubEnv('NAME_LEDGER_OPEN', 'own');
  delete process.send;
  expect(ledgerChoice().mayChange).toBe(false);
  expect(await openLedger(NOBODY, 'demo')).toMatchObject({ code: 'ledger-not-changed' });
});
