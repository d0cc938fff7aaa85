import { describe, expect, test } from 'vitest';
import { removeLink } from '@/usecases/links/links';
import { marketplaces, saveMarketplace } from '@/usecases/marketplaces/marketplaces';
import { saveListings } from '@/usecases/selling/listings';
import { enterOffer, negotiation } from '@/usecases/selling/offers';
import { lookForProof, placeProof } from '@/usecases/selling/prove';
import { TODAY } from './ledger';
import { LISTING, listingOf, must, sellingDesk } from './marketplace';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, , TIDE] = NAMES;

const desk = sellingDesk(NAMES);
const { begin, id } = desk;

describe('a text that a marketplace without a link wants to see', () => {
  const byHand = async () => {
    await begin();
    const [hall] = await marketplaces(desk.made.ledger);
    const marketplaceId = must(
      await saveMarketplace(desk.made.ledger, { ...hallForm(hall as NonNullable<typeof hall>), label: 'By Hand' }),
    );
    const { listingIds } = must(
      await saveListings(desk.made.ledger, { marketplaceId, send: true, listings: [{ ...LISTING, nameId: id(TIDE) }] }),
    );
    return listingIds[0] as number;
  };
  const TEXT = 'proof-of-tidewick=7f3a';

  test('is placed by the registrar’s link, seen by DNS, and then proved', async () => {
    const listingId = await byHand();
    expect(await lookForProof(desk.made.ledger, listingId)).toMatchObject({ code: 'listing-unknown' });
    expect(await placeProof(desk.made.ledger, { listingId, text: ` ${TEXT} ` })).toEqual({ isSet: true });
    expect(desk.made.world.texts.get(TIDE)).toContain(TEXT);
    expect(await listingOf(desk.made, TIDE)).toMatchObject({ status: 'unproved', proofText: TEXT, proofSetAt: TODAY });
    expect(await lookForProof(desk.made.ledger, listingId)).toBe(true);
    expect(await listingOf(desk.made, TIDE)).toMatchObject({ status: 'in review', proofBy: 'txt', provedAt: TODAY });
    // It waits for no proof any more.
    expect(await placeProof(desk.made.ledger, { listingId, text: 'another' })).toMatchObject({
      code: 'listing-unknown',
    });
  });

  test('is kept for the person to set where there is no link, and not taken for set before it is seen', async () => {
    const listingId = await byHand();
    await removeLink(desk.made.ledger, desk.made.accountId);
    expect(await placeProof(desk.made.ledger, { listingId, text: TEXT })).toEqual({ isSet: false });
    expect(await lookForProof(desk.made.ledger, listingId)).toMatchObject({ code: 'not-proved' });
    expect(await listingOf(desk.made, TIDE)).toMatchObject({ status: 'unproved', proofLookedAt: TODAY });
    desk.made.world.texts.set(TIDE, ['something else', TEXT]);
    expect(await lookForProof(desk.made.ledger, listingId)).toBe(true);
  });

  test.each([[''], ['x'.repeat(256)], ['two\nlines']])('%j is refused', async (text) => {
    const listingId = await byHand();
    expect(await placeProof(desk.made.ledger, { listingId, text })).toMatchObject({ kind: 'refusal' });
  });
});

test('a negotiation names the others who stand for the same name, the highest first', async () => {
  await begin();
  const offer = async (buyer: string, amount: string) =>
    must(await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer, amount, currency: 'USD' }));
  const mine = await offer('Oda Fennimore', '300');
  await offer('Pilgrave & Sons', '450');
  await offer('Ivo Marchmain', '200');
  const about = await negotiation(desk.made.ledger, mine);
  expect(about?.rivals.map(({ buyer, minor, isOurs }) => [buyer, minor, isOurs])).toEqual([
    ['Pilgrave & Sons', 45_000, false],
    ['Ivo Marchmain', 20_000, false],
  ]);
});

function hallForm(row: Awaited<ReturnType<typeof marketplaces>>[number]) {
  const { id: _, linkUrl, linkCursor, linkReadAt, linkProblem, ...form } = row;
  return form;
}
