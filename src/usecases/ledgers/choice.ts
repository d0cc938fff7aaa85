import { type Refusal, refuse } from '@/core/refusal';
import type { Deps } from '../deps';
import { command } from '../people/command';

/** The office's own ledger, or the demo: a made-up one that can be looked at, left, and thrown away. */
export type LedgerName = 'own' | 'demo';

/** Which ledger this process has open, and whether there is another. */
export interface LedgerChoice {
  readonly open: LedgerName;
  /** The start command keeps both ledgers and can open the other one. */
  readonly mayChange: boolean;
  /** There is a demo, open or left. */
  readonly hasDemo: boolean;
}

/** As the start command has said it: a program on a database of somebody's own knows that one ledger alone. */
export function ledgerChoice(): LedgerChoice {
  const open = process.env.NAME_LEDGER_OPEN === 'demo' ? 'demo' : 'own';
  return {
    open,
    mayChange: process.env.NAME_LEDGER_OPEN !== undefined && process.send !== undefined,
    hasDemo: open === 'demo' || process.env.NAME_LEDGER_DEMO === 'there',
  };
}

/** What the application may ask of the start command. */
export const LEDGER_WISHES = ['open own', 'open demo', 'discard demo'] as const;
export type LedgerWish = (typeof LEDGER_WISHES)[number];

/** The wish that a message between the two holds; `null` for anything else. */
export function wishFrom(message: unknown): LedgerWish | null {
  const { wish } = (typeof message === 'object' && message !== null ? message : {}) as { wish?: unknown };
  return LEDGER_WISHES.find((one) => one === wish) ?? null;
}

function ask(wish: LedgerWish): true | Refusal {
  if (!ledgerChoice().mayChange) return NOBODY;
  process.send?.({ wish });
  return true;
}

const NOBODY = refuse(
  'ledger-not-changed',
  'Only the start command can open another ledger, and this program was not started by it.',
);

/** Asks the start command to open a ledger: it makes the demo where there is none, and starts the application anew. */
export const openLedger = command('openLedger', async (_deps: Deps, ledger: LedgerName): Promise<true | Refusal> => {
  return ask(`open ${ledger}`);
});

/** Asks the start command to throw the demo away. The office's own ledger is open after it. */
export const discardDemo = command('discardDemo', async (_deps: Deps): Promise<true | Refusal> => {
  return ask('discard demo');
});
