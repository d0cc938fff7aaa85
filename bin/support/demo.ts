import {
  linkDemo,
  pointMailAt,
  pointMailboxAt,
  pointRatesAt,
  pointRecordsAt,
  pointShopAt,
} from '../../practice/scenario/links';
import { moveMarketplace } from '../../practice/scenario/marketplaces';
import { seedSelling } from '../../practice/scenario/selling';
import { httpMarketplace } from '../../src/connectors/marketplace/httpMarketplace';
import { eppLink } from '../../src/connectors/registrar/eppLink';
import type { Instant } from '../../src/core/time';
import { moveLinks } from '../../src/database/links';
import type { Database } from '../../src/database/pool';
import { loadClock } from '../../src/usecases/clock';
import type { Deps } from '../../src/usecases/deps';
import { makeLog } from '../../src/usecases/log';
import { keyFrom } from '../../src/usecases/secrets/seal';
import type { PracticeAt } from './companions';

/** What the demo is made and linked with, before its parts run. */
export async function demoDeps(database: Database, clock: () => Instant, key: string): Promise<Deps> {
  const time = { offsetMs: 0 };
  const deps: Deps = {
    database,
    time,
    clock: () => (clock() + time.offsetMs) as Instant,
    key: keyFrom(key),
    log: makeLog('start'),
    connect: eppLink,
    marketplace: httpMarketplace,
    links: new Map(),
  };
  await loadClock(deps);
  return deps;
}

/** Points the demo ledger at its practice world, wherever that listens; `fresh` makes what stands there as well. */
export async function linkPractice(
  deps: Deps,
  practice: PracticeAt,
  fresh: boolean,
  baseUrl: string,
  shopPort: number | null = null,
): Promise<void> {
  // First of all: it allows this machine to be asked.
  await pointRecordsAt(deps.database, practice.records);
  if (fresh) await linkDemo(deps, practice.logins);
  else await moveLinks(deps.database, practice.logins);
  await pointMailAt(deps.database, practice.mail, baseUrl);
  await pointMailboxAt(deps, practice.mailbox);
  await pointRatesAt(deps.database, practice.rates);
  if (shopPort !== null) await pointShopAt(deps.database, shopPort, practice.acme);
  if (fresh) await seedSelling(deps, practice.marketplace);
  else await moveMarketplace(deps.database, practice.marketplace);
}
