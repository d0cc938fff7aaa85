import type { MarketplaceLink } from '@/connectors/marketplace/port';
import { type MarketplaceRow, noteMarketplace, selectMarketplaces } from '@/database/marketplaces';
import type { Deps } from '../deps';
import { marketplaceLink } from '../marketplaces/marketplaces';
import { eachPartner, type Patience } from '../partners';
import { itself } from '../people/command';
import { closeDueAuctions } from './auctions';
import { lapseOffers } from './offers';
import { followHandovers } from './sales';
import { readEventsOf } from './takeEvents';
import { tellMarketplace } from './tellMarketplace';

/**
 * Everything of selling that happens without anyone clicking: marketplaces are told what was decided, what happened there is taken
 * down, auctions close, figures lapse, handovers go on. Safe at any moment and as often as wished.
 */
export const followSelling = itself(async (deps: Deps, patience: Patience = 'at once'): Promise<void> => {
  await closeDueAuctions(deps);
  const marketplaces = new Map(
    (await selectMarketplaces(deps.database)).map((marketplace) => [marketplace.id, marketplace]),
  );
  const follow = async (id: number) => {
    const marketplace = marketplaces.get(id);
    const link = marketplace && (await marketplaceLink(deps, marketplace));
    return link ? followMarketplace(deps, marketplace, link) : null;
  };
  await eachPartner(deps, 'marketplace', 'selling', [...marketplaces.keys()], follow, patience);
  // Also what has just come in and is late already.
  await lapseOffers(deps);
  await followHandovers(deps);
});

async function followMarketplace(
  deps: Deps,
  marketplace: MarketplaceRow,
  link: MarketplaceLink,
): Promise<string | null> {
  const told = await tellMarketplace(deps, marketplace, link);
  const read = told === null ? await readEventsOf(deps, marketplace, link) : null;
  await noteMarketplace(deps.database, marketplace.id, { at: deps.clock(), cursor: null, problem: told ?? read });
  // What came in may have to be answered at once.
  return told ?? read ?? (await tellMarketplace(deps, marketplace, link));
}
