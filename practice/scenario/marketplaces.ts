import { isRefusal } from '@/core/refusal';
import { selectMarketplaces } from '@/database/marketplaces';
import type { Database } from '@/database/pool';
import type { Deps } from '@/usecases/deps';
import { saveMarketplace, saveMarketplaceLink } from '@/usecases/marketplaces/marketplaces';
import { MARKETPLACE_RULES, MARKETPLACE_TITLE } from '../marketplace/market';
import { MARKETPLACE_KEY } from '../marketplace/server';

/** What a command of the scenario answered; a refusal is a mistake in the scenario. */
export function must<T>(answer: T): Exclude<T, { kind: 'refusal' }> {
  if (isRefusal(answer)) throw new Error(answer.message);
  return answer as Exclude<T, { kind: 'refusal' }>;
}

/** Another marketplace of the office, which has no link. */
export const ROOMS = 'Brackwater Rooms';

/** The office's marketplaces: one with a link, one that takes CSV, and one that is not used yet. */
export async function seedMarketplaces(deps: Deps, port: number): Promise<{ hall: number; rooms: number }> {
  const hall = await seedHall(deps, port);
  const rooms = must(
    await saveMarketplace(deps, {
      label: ROOMS,
      currencies: ['USD', 'GBP'],
      feesCurrency: 'USD',
      percent: 20,
      floorMinor: 1000,
      steps: [
        { fromMinor: 200_000, percent: 12 },
        { fromMinor: 1_000_000, percent: 6 },
      ],
      saleFeeMinor: 0,
      listingFeeMinor: 600,
      membershipMinor: 0,
      wholeUnits: true,
      auctionDays: [4, 10],
      reviewHours: 48,
      payoutSet: true,
      attributes: [],
      categories: ['Craft', 'Sea', 'Trade'],
      categoryMinor: 200,
      csvColumns: [
        { heading: 'Name', field: 'name' },
        { heading: 'Asking', field: 'asking' },
        { heading: 'Least offer', field: 'minimum offer' },
        { heading: 'Money', field: 'currency' },
        { heading: 'Shelf', field: 'category' },
      ],
    }),
  );
  must(
    await saveMarketplace(deps, {
      label: 'Lighterage List',
      currencies: [],
      feesCurrency: 'EUR',
      percent: 9,
      floorMinor: 0,
      steps: [],
      saleFeeMinor: 1500,
      listingFeeMinor: 0,
      membershipMinor: 12_000,
      wholeUnits: true,
      auctionDays: [],
      reviewHours: 0,
      payoutSet: false,
      attributes: [],
      categories: [],
      categoryMinor: 0,
    }),
  );
  return { hall, rooms };
}

async function seedHall(deps: Deps, port: number): Promise<number> {
  const { fees } = MARKETPLACE_RULES;
  const hall = must(
    await saveMarketplace(deps, {
      label: MARKETPLACE_TITLE,
      currencies: MARKETPLACE_RULES.currencies,
      feesCurrency: 'USD',
      ...fees,
      membershipMinor: 0,
      wholeUnits: true,
      auctionDays: MARKETPLACE_RULES.auctionDays,
      reviewHours: MARKETPLACE_RULES.reviewHours,
      payoutSet: true,
      attributes: [
        { label: 'For adults only (18+)', options: [{ label: 'yes', minor: 0 }] },
        { label: 'Shown at twelve partner halls too', options: [{ label: 'yes', minor: 0 }] },
        { label: 'Paid placement', options: [{ label: 'first page for a week', minor: 4000 }] },
      ],
      categories: ['Boats', 'Coast', 'Crafts', 'Weather', 'Workshops'],
      categoryMinor: 0,
    }),
  );
  must(
    await saveMarketplaceLink(deps, {
      marketplaceId: hall,
      url: `http://127.0.0.1:${port}`,
      key: MARKETPLACE_KEY,
    }),
  );
  return hall;
}

/** The demo's marketplace listens somewhere else after each start. */
export async function moveMarketplace(database: Database, port: number): Promise<void> {
  const hall = (await selectMarketplaces(database)).find(({ label }) => label === MARKETPLACE_TITLE);
  if (hall?.linkUrl?.startsWith('http://127.0.0.1:'))
    await database.query('update marketplaces set link_url = $2 where id = $1', [hall.id, `http://127.0.0.1:${port}`]);
}
