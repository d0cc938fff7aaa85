import { addDays } from '../time';
import { type LedgerDay, phaseCode } from './ledgerDay';
import type { LedgerRow } from './projection';

/** Phases in which waiting costs something whatever the deadline. */
const BEHIND = [phaseCode('late'), phaseCode('redemption'), phaseCode('pending restore')];

/**
 * The rows of which something may have to be decided within so many days: their deadline, the end of their term or their next charge
 * falls before then, they are behind their term, or their holder has to confirm a mail address. The rest is most of a ledger, and
 * needs no look.
 */
export function rowsNear(ledger: LedgerDay, days: number): LedgerRow[] {
  const { names, charges } = ledger.projection;
  const until = addDays(ledger.day, days);
  const { confirmMailBy } = names.columns.sparse;
  return ledger.rowsWhere((place) => {
    if ((ledger.deadlineAt[place] as number) < until || (ledger.termEnd[place] as number) < until) return true;
    const charge = charges.first(place);
    if (charge >= 0 && charges.at(charge) < until) return true;
    return BEHIND.includes(ledger.phase[place] as number) || confirmMailBy[place] !== undefined;
  });
}
