import type { AutoRenewSetting } from '../funding';
import type { Amount } from '../money';
import { SAME_END_HOURS } from '../records/provisional';
import { HOUR_MS, type TermEnd } from '../time';
import type { NewsOfName } from './readNews';
import type { NewsKind } from './words';

/** What may follow for a name from what a mail says of it: a person takes it over, or leaves it. */
export type Proposal =
  | { readonly what: 'auto-renew'; readonly setting: 'on' | 'stalled' }
  | { readonly what: 'term end'; readonly end: TermEnd; readonly charged: Amount | null }
  | { readonly what: 'confirm mail'; readonly by: TermEnd };

/** How a name stands in the ledger, as far as a mail may say otherwise. */
export interface StandingNow {
  readonly termEnd: TermEnd | null;
  readonly setting: AutoRenewSetting;
}

/** What follows from news of a kind for a name; `null` where nothing does, or the ledger has it so already. */
export function proposalOf(
  kind: NewsKind,
  { date, amount }: Pick<NewsOfName, 'date' | 'amount'>,
  now: StandingNow,
): Proposal | null {
  switch (kind) {
    case 'renewal ahead':
      return now.setting === 'on' ? null : { what: 'auto-renew', setting: 'on' };
    case 'charge failed':
      return now.setting === 'stalled' ? null : { what: 'auto-renew', setting: 'stalled' };
    case 'renewed': {
      if (date === null) return null;
      const isKnown = now.termEnd !== null && Math.abs(now.termEnd.at - date.at) <= SAME_END_HOURS * HOUR_MS;
      // A renewal never ends a term sooner.
      const isSooner = now.termEnd !== null && date.at < now.termEnd.at;
      return isKnown || isSooner ? null : { what: 'term end', end: date, charged: amount };
    }
    case 'confirm address':
      return date === null ? null : { what: 'confirm mail', by: date };
    default:
      return null;
  }
}
