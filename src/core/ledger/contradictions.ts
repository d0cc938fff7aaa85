import { addDays, type Instant } from '../time';
import type { LedgerAccount } from './data';
import type { LedgerDay } from './ledgerDay';
import { type LedgerRow, rowsOn } from './projection';

/** What about a name's setting contradicts what is wanted of it, before it costs anything. */
export type Contradiction =
  | { readonly kind: 'on for a name being dropped' }
  | { readonly kind: 'off for a name never to be lost' }
  | { readonly kind: 'believed, never confirmed' }
  | { readonly kind: 'several years a charge'; readonly years: number };

/** How many days before its charge a setting that nobody has confirmed is worth a look. */
const RELIED_ON_DAYS = 30;

/** The first contradiction of a row, the most dangerous first, or `null`. */
export function contradictionOf(
  row: LedgerRow,
  account: LedgerAccount | undefined,
  asOf: Instant,
): Contradiction | null {
  const { name, setting, coming } = row;
  if (name.neverLost && setting !== 'on') return { kind: 'off for a name never to be lost' };
  if (name.purpose === 'drop' && setting === 'on') return { kind: 'on for a name being dropped' };
  const relied = name.neverLost || (coming !== null && coming.at < addDays(asOf, RELIED_ON_DAYS));
  if (setting === 'on' && name.standing === 'believed' && relied) return { kind: 'believed, never confirmed' };
  const years = coming?.years ?? 1;
  if (account && account.yearsPerCharge > 1 && years > 1) return { kind: 'several years a charge', years };
  return null;
}

/** A name whose setting contradicts what is wanted of it. */
export interface Contradicting {
  readonly row: LedgerRow;
  readonly contradiction: Contradiction;
}

/** The first `limit` names that contradict themselves on a day. Most of a ledger cannot, by its columns alone, and is not read. */
export function contradictionsOn(ledger: LedgerDay, limit: number): Contradicting[] {
  const { names, index, asOf, charges } = ledger.projection;
  const relied = addDays(asOf, RELIED_ON_DAYS);
  const may = (place: number) => {
    if (names.flag(place, 'neverLost') || names.flag(place, 'purpose') === 'drop') return true;
    const charge = charges.first(place);
    if (charge < 0) return false;
    const account = index.accounts.get(names.accountId(place));
    return charges.at(charge) < relied || (account?.yearsPerCharge ?? 1) > 1;
  };
  const read = rowsOn(ledger.projection, ledger.day);
  const found: Contradicting[] = [];
  for (let place = 0; place < ledger.length && found.length < limit; place += 1) {
    if (!may(place)) continue;
    const row = read(place);
    const contradiction = contradictionOf(row, index.accounts.get(row.name.accountId), asOf);
    if (contradiction) found.push({ row, contradiction });
  }
  return found;
}
