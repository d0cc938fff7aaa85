import type { VenueLink } from '@/connectors/venue/port';
import { whileAlone } from '@/database/locks';
import { noteVenue, selectVenues, type VenueRow } from '@/database/venues';
import type { Deps } from '../deps';
import { venueLink } from '../venues/venues';
import { closeDueAuctions } from './auctions';
import { lapseOffers } from './offers';
import { followHandovers } from './sales';
import { readEventsOf } from './takeEvents';
import { tellVenue } from './tellVenue';

/**
 * Everything of selling that happens without anyone clicking: venues are told what was decided, what happened there is taken
 * down, auctions close, figures lapse, handovers go on. Safe at any moment and as often as wished.
 */
export async function followSelling(deps: Deps): Promise<void> {
  await closeDueAuctions(deps);
  await whileAlone(deps.database, 'venues', async () => {
    for (const venue of await selectVenues(deps.database)) {
      const link = await venueLink(deps, venue);
      if (link) await followVenue(deps, venue, link);
    }
    return 0;
  });
  // Also what has just come in and is late already.
  await lapseOffers(deps);
  await followHandovers(deps);
}

async function followVenue(deps: Deps, venue: VenueRow, link: VenueLink): Promise<void> {
  const told = await tellVenue(deps, venue, link);
  const read = told === null ? await readEventsOf(deps, venue, link) : null;
  await noteVenue(deps.database, venue.id, { at: deps.clock(), cursor: null, problem: told ?? read });
  // What came in may have to be answered at once.
  if (told === null && read === null) await tellVenue(deps, venue, link);
}
