import { afterEach } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays, DAY_MS, HOUR_MS, type Instant } from '@/core/time';
import { selectListings } from '@/database/listings';
import { selectSales } from '@/database/sales';
import { saveMarketplace, saveMarketplaceLink } from '@/usecases/marketplaces/marketplaces';
import { followSelling } from '@/usecases/selling/follow';
import { saveListings } from '@/usecases/selling/listings';
import { sellingAgenda } from '@/usecases/selling/report';
import { MARKETPLACE_KEY } from '../../practice/marketplace/server';
import type { BuyerAct, BuyerReply } from '../../practice/marketplace/types';
import { pointRecordsAt } from '../../practice/scenario/links';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

/** A linked ledger with a marketplace whose buyers do what they are told. */
export interface SellingLedger extends LinkedLedger {
  readonly marketplaceId: number;
  /** What buyers will do, by name. */
  readonly acts: Map<string, BuyerAct[]>;
  /** What they answer to the owner's figures. */
  reply: BuyerReply;
  /** Buyers who never pay. */
  readonly poor: Set<string>;
  /** Lists names at the marketplace; answers the ids of the listings. */
  list(names: readonly string[], listing?: object): Promise<readonly number[]>;
  /** Lets days pass outside and here, and follows what happened. */
  pass(days: number): Promise<void>;
}

export const MARKETPLACE = {
  label: 'Test Hall',
  currencies: ['USD', 'EUR'],
  feesCurrency: 'USD',
  percent: 15,
  floorMinor: 2500,
  steps: [{ fromMinor: 500_000, percent: 10 }],
  saleFeeMinor: 0,
  listingFeeMinor: 0,
  membershipMinor: 0,
  wholeUnits: true,
  auctionDays: [4, 10, 21],
  reviewHours: 72,
  payoutSet: true,
  attributes: [],
  categories: [],
  categoryMinor: 0,
};

export const LISTING = {
  kind: 'fixed price, offers too',
  currency: 'USD',
  prices: { minimum: 20_000, asking: 50_000, buyNow: 60_000 },
  auctionDays: 4,
  reserveShown: false,
  withSite: false,
  categories: [],
  attributes: {},
};

export function must<T>(answer: T): Exclude<T, { kind: 'refusal' }> {
  if (isRefusal(answer)) throw new Error(answer.message);
  return answer as Exclude<T, { kind: 'refusal' }>;
}

export async function sellingLedger(
  names: readonly string[],
  end: Instant = addDays(TODAY, 400),
): Promise<SellingLedger> {
  const made = await linkedLedger(names, end, { auto: 'off', nameServers: ['ns1.quaymark.test'] });
  const { ledger, world, practice } = made;
  await pointRecordsAt(ledger.database, practice.records);
  const marketplaceId = must(await saveMarketplace(ledger, MARKETPLACE));
  must(
    await saveMarketplaceLink(ledger, {
      marketplaceId,
      url: `http://127.0.0.1:${practice.marketplacePort}`,
      key: MARKETPLACE_KEY,
    }),
  );
  const acts = new Map<string, BuyerAct[]>();
  const poor = new Set<string>();
  const selling: SellingLedger = {
    ...made,
    marketplaceId,
    acts,
    poor,
    reply: { do: 'decline' },
    async list(chosen, listing = {}) {
      const listed = must(
        await saveListings(ledger, {
          marketplaceId,
          send: true,
          listings: chosen.map((name) => ({ ...LISTING, nameId: made.ids.get(name), ...listing })),
        }),
      );
      await followSelling(ledger);
      return listed.listingIds;
    },
    async pass(days) {
      for (let day = 0; day < days; day += 1) {
        const now = addDays(ledger.clock(), 1);
        await practice.passTo(now);
        ledger.setClock(now);
        await followSelling(ledger);
      }
    },
  };
  world.buyers = {
    acts: ({ name }, dayStart) => {
      const due = (acts.get(name) ?? []).filter(({ at }) => at >= dayStart && at < dayStart + 86_400_000);
      return due;
    },
    reply: () => selling.reply,
    pays: (buyer) => !poor.has(buyer),
  };
  return selling;
}

/** A selling ledger for each test that begins one; closed after it. */
export function sellingDesk(names: readonly string[]) {
  let made: SellingLedger | null = null;
  afterEach(async () => {
    await made?.close();
    made = null;
  });
  const desk = {
    get made(): SellingLedger {
      if (!made) throw new Error('begin first');
      return made;
    },
    async begin(): Promise<SellingLedger> {
      made = await sellingLedger(names);
      return made;
    },
    id: (name: string) => desk.made.ids.get(name) as number,
    /** An hour of a day from today on. */
    at: (days: number, hours = 12) => addDays(TODAY, days) + hours * HOUR_MS - (TODAY % DAY_MS),
    sales: () => selectSales(desk.made.ledger.database),
  };
  return desk;
}

export async function listingOf(made: SellingLedger, name: string) {
  return (await selectListings(made.ledger.database, [made.ids.get(name) as number]))[0];
}

/** What awaits the owner, as `kind: name`. */
export const awaiting = async ({ ledger }: SellingLedger): Promise<string[]> =>
  (await sellingAgenda(ledger)).map(({ kind, ascii }) => `${kind}: ${ascii}`);

/** What selling has put into the books, in its order. */
export async function booked({ ledger }: SellingLedger): Promise<{ kind: string; minor: number }[]> {
  const { rows } = await ledger.database.query<{ kind: string; minor: number }>(
    "select kind, minor from entries where kind in ('sale', 'commission', 'listing fee') order by id",
  );
  return rows;
}
