import { selectQueuedNames } from '@/database/availability';
import { whileAlone } from '@/database/locks';
import type { Deps } from '../deps';
import { askLinks, sellersOf } from './askLinks';
import { askRecordsOf, beginRecordsPass } from './askRecords';

/** Names taken out of the line together: a crash leaves no more than these to be asked for again. */
const GROUP = 2500;
const RECORD_GROUP = 100;

/**
 * Asks for the names of all sets that wait: registrars' links first, in batches, then the registries' records, then the zone above. Ends
 * when nothing is left, or after `forMs`, once a group of them is settled. Safe to call again at any moment. Answers how many were settled; `null` while another process is
 * at it.
 */
export function askForNames(deps: Deps, forMs = Number.POSITIVE_INFINITY): Promise<number | null> {
  return whileAlone(deps.database, 'availability', async () => {
    const sellers = await sellersOf(deps);
    beginRecordsPass();
    const until = Date.now() + forMs;
    let settled = 0;
    do {
      const group = await selectQueuedNames(deps.database, deps.clock(), false, GROUP);
      if (group.length > 0) {
        settled += await askLinks(deps, sellers, group);
        continue;
      }
      const records = await selectQueuedNames(deps.database, deps.clock(), true, RECORD_GROUP);
      if (records.length === 0) break;
      settled += await askRecordsOf(deps, records);
    } while (Date.now() < until);
    return settled;
  });
}
