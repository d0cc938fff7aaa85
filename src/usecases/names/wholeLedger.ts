import { compute } from '../computing';
import type { Deps } from '../deps';
import { ledgerVersion } from './ledger';

/** The ledger as it goes to a browser, with the state it is of. */
export interface WholeLedger {
  readonly version: string;
  readonly body: Uint8Array;
}

let kept: { readonly version: string; readonly ledger: Promise<WholeLedger> } | null = null;
const KEPT_MS = 30_000;

/** The whole ledger, written once for each state of it, however many windows ask. */
export async function wholeLedger(deps: Deps): Promise<WholeLedger> {
  const version = await ledgerVersion(deps);
  if (kept?.version === version) return kept.ledger;
  const ledger = compute(deps, 'ledger');
  const mine = { version, ledger };
  kept = mine;
  const drop = () => {
    if (kept === mine) kept = null;
  };
  ledger.catch(drop);
  setTimeout(drop, KEPT_MS).unref();
  return ledger;
}
