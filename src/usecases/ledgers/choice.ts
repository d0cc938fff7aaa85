import { type Refusal, refuse } from '@/core/refusal';

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

const NOBODY = refuse(
  'ledger-not-changed',
  'Only the start command can open another ledger, and this program was not started by it.',
);

/** Asks the start command to open a ledger: it makes the demo where there is none, and starts the application anew. */
export function openLedger(ledger: LedgerName): true | Refusal {
  if (!ledgerChoice().mayChange) return NOBODY;
  process.send?.({ open: ledger });
  return true;
}

/** Asks the start command to throw the demo away. The office's own ledger is open after it. */
export function discardDemo(): true | Refusal {
  if (!ledgerChoice().mayChange) return NOBODY;
  process.send?.({ discard: 'demo' });
  return true;
}
