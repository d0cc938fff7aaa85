import { holdingOf } from '@/core/acquiring';
import { indexRules, pricedEndings } from '@/core/ledger';
import { dayOf } from '@/core/time';
import { selectLedgerRules } from '@/database/ledger';
import { countEndings } from '@/database/names';
import type { Deps } from '../deps';

/** An ending that some account's price list has. */
export interface OfferedEnding {
  readonly ending: string;
  /** The cheapest first payment and the cheapest five years, in the office's currency; `null` where no price can be compared. */
  readonly firstMinor: number | null;
  readonly fiveYearsMinor: number | null;
  /** Names of one's own under it. */
  readonly own: number;
}

const FIVE_YEARS = 5;

/** Every ending that can be bought somewhere, those of most own names first. */
export async function offeredEndings(deps: Deps): Promise<OfferedEnding[]> {
  const [rules, own] = await Promise.all([selectLedgerRules(deps.database), countEndings(deps.database)]);
  const index = indexRules(rules);
  const asked = { day: dayOf(deps.clock()), newAt: new Set<number>(), codes: [], privacy: false };
  return pricedEndings(index)
    .map((ending): OfferedEnding => {
      const { best } = holdingOf(index, ending, asked);
      return {
        ending,
        firstMinor: best[0]?.nowMinor ?? null,
        fiveYearsMinor: best[FIVE_YEARS - 1]?.totalMinor ?? null,
        own: own.get(ending) ?? 0,
      };
    })
    .sort((a, b) => b.own - a.own || (a.ending < b.ending ? -1 : 1));
}
