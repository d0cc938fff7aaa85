import {
  perhapsMeant,
  type Spelling,
  type StarvedCharge,
  slipIn,
  spellingOf,
  starvedBy,
  wordsOfIdeas,
} from '@/core/acquiring';
import { selectIdeaSets } from '@/database/ideaSets';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { labelOf, ownNames } from './ownNames';

/** A name as it is spelt out, with what it was perhaps meant to be, and whether it is one's own already. */
export interface Spelled {
  readonly spelling: Spelling;
  readonly meant: readonly { readonly piece: string; readonly meant: string }[];
  readonly isOurs: boolean;
}

/** Spells names out, held against every name of one's own and the words of all ideas. `names` in U-labels. */
export async function spellNames(deps: Deps, names: readonly string[]): Promise<Spelled[]> {
  const [own, sets] = await Promise.all([ownNames(deps), selectIdeaSets(deps.database)]);
  const words = wordsOfIdeas(sets.map(({ ideas }) => ideas));
  return names.map((unicode): Spelled => {
    const label = labelOf(unicode);
    const meant = perhapsMeant(label, own.labels);
    const slip = meant === null ? slipIn(label, words) : { piece: label, meant };
    return {
      spelling: spellingOf(label, [label], own.skeletons),
      meant: slip === null ? [] : [slip],
      isOurs: own.unicode.has(unicode),
    };
  });
}

/** What would be taken off the balance of an account, minor units of its currency. */
export interface Spending {
  readonly accountId: number;
  readonly minor: number;
}

/** The first coming charge of each account that would fail once so much is taken off its balance. */
export async function starvedCharges(deps: Deps, spendings: readonly Spending[]): Promise<(StarvedCharge | null)[]> {
  if (spendings.length === 0) return [];
  const projection = await projectedLedger(deps);
  return spendings.map(({ accountId, minor }) => starvedBy(projection, accountId, minor));
}
