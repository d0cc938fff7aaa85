import type { VenueLink } from '@/connectors/venue/port';
import { noteVenue, selectVenues, type VenueRow } from '@/database/venues';
import type { Deps } from '../deps';
import { eachPartner, type Patience } from '../partners';
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
export async function followSelling(deps: Deps, patience: Patience = 'at once'): Promise<void> {
  await closeDueAuctions(deps);
  const venues = new Map((await selectVenues(deps.database)).map((venue) => [venue.id, venue]));
  const follow = async (id: number) => {
    const venue = venues.get(id);
    const link = venue && (await venueLink(deps, venue));
    return link ? followVenue(deps, venue, link) : null;
  };
  await eachPartner(deps, 'venue', 'selling', [...venues.keys()], follow, patience);
  // Also what has just come in and is late already.
  await lapseOffers(deps);
  await followHandovers(deps);
}

async function followVenue(deps: Deps, venue: VenueRow, link: VenueLink): Promise<string | null> {
  const told = await tellVenue(deps, venue, link);
  const read = told === null ? await readEventsOf(deps, venue, link) : null;
  await noteVenue(deps.database, venue.id, { at: deps.clock(), cursor: null, problem: told ?? read });
  // What came in may have to be answered at once.
  return told ?? read ?? (await tellVenue(deps, venue, link));
}
