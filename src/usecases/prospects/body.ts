import type { OfferFacts } from '@/core/prospects';
import { packed } from '@/core/table';
import { selectSettings } from '@/database/settings';
import { selectViews } from '@/database/views';
import type { Deps } from '../deps';
import { offerFacts } from './offerFacts';

/** What a window is told of offers, beside the ledger. */
export interface ProspectsBody {
  readonly facts: OfferFacts;
  /** The query of the saved view by which the office groups its names; `null` for another grouping. */
  readonly view: string | null;
}

/** What is known of own names on offer, for a browser's worker: a `ProspectsBody`, packed. */
export async function prospectsBytes(deps: Deps): Promise<Uint8Array> {
  const [facts, views, { saleOdds }] = await Promise.all([
    offerFacts(deps),
    selectViews(deps.database),
    selectSettings(deps.database),
  ]);
  const chosen = saleOdds.grouping === 'view' ? views.find(({ id }) => id === saleOdds.viewId) : undefined;
  const body: ProspectsBody = { facts, view: chosen?.query ?? null };
  return packed(body);
}
