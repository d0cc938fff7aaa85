import { type BuyerBid, type BuyerSale, type BuyerView, confirmUntil } from '@/core/shop';
import { type AuctionRow, selectAuctions, standingOfRow } from '@/database/auctions';
import { type LetterRow, selectLetterByToken } from '@/database/letters';
import { selectRegistrars } from '@/database/names';
import { selectThreadsById, type ThreadRow } from '@/database/offers';
import { type SaleRow, selectSalesOfNames } from '@/database/sales';
import type { Deps } from '../deps';
import { hashOf } from '../people/tokens';
import { windowOf } from './window';

/** A letter with how it stands. */
export interface Matter {
  readonly letter: LetterRow;
  readonly view: BuyerView;
  /** The sale to him, where there is one. */
  readonly saleId: number | null;
}

/** By whom a bid of a letter stands in its auction, and its sale: two who call themselves the same are told apart by their mail. */
export function bidderOf({ buyer, mail }: Pick<LetterRow, 'buyer' | 'mail'>): string {
  return `${buyer} <${mail}>`;
}

/** What a buyer sees at his own page; `null` for a link that is none. */
export async function matterOf(deps: Deps, token: string): Promise<Matter | null> {
  const letter = await selectLetterByToken(deps.database, hashOf(token));
  if (letter === null) return null;
  const [matter] = await mattersOf(deps, [letter]);
  return matter
    ? { ...matter, view: { ...matter.view, forSale: (await windowOf(deps, letter.ascii)) !== null } }
    : null;
}

/** How letters stand, all of them at once; whether their names can still be had is left open. */
export async function mattersOf(deps: Deps, letters: readonly LetterRow[]): Promise<Matter[]> {
  const nameIds = [...new Set(letters.map(({ nameId }) => nameId))];
  const threadIds = letters.flatMap(({ threadId }) => threadId ?? []);
  const auctionNames = [...new Set(letters.flatMap(({ auctionId, nameId }) => (auctionId === null ? [] : [nameId])))];
  const [threads, auctions, sales, registrars] = await Promise.all([
    selectThreadsById(deps.database, threadIds),
    selectAuctions(deps.database, auctionNames),
    selectSalesOfNames(deps.database, nameIds),
    selectRegistrars(deps.database, nameIds),
  ]);
  const threadOf = new Map(threads.map((one) => [one.id, one]));
  const auctionOf = new Map(auctions.map((one) => [one.id, one]));
  const salesOf = new Map<number, SaleRow[]>();
  for (const sale of sales) salesOf.set(sale.nameId, [...(salesOf.get(sale.nameId) ?? []), sale]);
  const now = deps.clock();
  return letters.map((letter) => {
    const thread = threadOf.get(letter.threadId ?? 0) ?? null;
    const auction = auctionOf.get(letter.auctionId ?? 0) ?? null;
    const sale = salesOf.get(letter.nameId)?.find((one) => isTo(one, letter, thread)) ?? null;
    const view = {
      name: letter.unicode,
      kind: letter.kind,
      currency: letter.currency,
      minor: letter.minor,
      message: letter.message,
      confirmed: letter.confirmedAt !== null,
      confirmUntil: confirmUntil(letter.askedAt),
      thread,
      bid: auction && bidIn(letter, auction),
      sale: sale && saleSeen(sale, registrars.get(letter.nameId) ?? ''),
      forSale: false,
      now,
    };
    return { letter, view, saleId: sale?.id ?? null };
  });
}

/** Whether a sale is to the buyer of a letter: by a figure of his thread, or by his bid. */
function isTo(sale: SaleRow, letter: LetterRow, thread: ThreadRow | null): boolean {
  if (thread?.figures.some(({ id }) => id === sale.figureId)) return true;
  return letter.auctionId !== null && sale.auctionId === letter.auctionId && sale.buyer === bidderOf(letter);
}

function bidIn(letter: LetterRow, auction: AuctionRow): BuyerBid {
  const { priceMinor, leader, leastMinor } = standingOfRow(auction);
  const { placedMinor, depositMinor, heldMinor, refused } = letter;
  return {
    placedMinor,
    depositMinor,
    heldMinor,
    refused,
    priceMinor,
    leastMinor,
    leads: placedMinor !== null && leader === bidderOf(letter),
    closesAt: auction.closesAt,
    ended: auction.outcome === null ? 'no' : auction.outcome.kind === 'sold' ? 'sold' : 'unsold',
  };
}

function saleSeen({ stage, priceMinor, currency, handover }: SaleRow, registrar: string): BuyerSale {
  return { stage, priceMinor, currency, handover, registrar };
}
