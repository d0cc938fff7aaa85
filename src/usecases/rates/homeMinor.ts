import { type Amount, sumIn } from '@/core/money';
import { dayOf } from '@/core/time';
import { selectRates } from '@/database/rates';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';

/** What amounts come to in minor units of the home currency, by the rates of today; `null` where one has no rate. */
export async function homeMinor(deps: Deps, amounts: readonly (Amount | null)[]): Promise<number | null> {
  if (amounts.includes(null)) return null;
  const [{ homeCurrency }, rates] = await Promise.all([selectSettings(deps.database), selectRates(deps.database)]);
  return sumIn(amounts as readonly Amount[], homeCurrency, rates, dayOf(deps.clock()))?.minor ?? null;
}
