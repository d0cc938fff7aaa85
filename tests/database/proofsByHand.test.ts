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

test('the list of all: what each price leaves over what the name has cost', async () => {
  await begin();
  await desk.made.list([COPPER]);
  const lines = await listingLines(desk.made.ledger);
  expect(lines).toMatchObject([
    { ascii: COPPER, askedMinor: 50_000, proceedsMinor: 42_500, profitMinor: 42_500, status: 'in review' },
  ]);
  expect(await sellingReport(desk.made.ledger)).toMatchObject({
    listed: 1,
    threads: [],
    // Names that have cost nothing press nobody.
    agenda: [],
  });
});

describe('what is wrong does not go out', () => {
  const WRONG = { kind: 'auction', prices: { start: 10_000, reserve: 90_000, buyNow: 80_000 } };
  const save = async (send: boolean, more: object) =>
    must(
      await saveListings(desk.made.ledger, {
        marketplaceId: desk.made.marketplaceId,
        send,
        listings: [{ ...LISTING, nameId: id(COPPER), ...more }],
      }),
    );

  test('a kept draft is checked again when it is sent', async () => {
    await begin();
    const { listingIds } = await save(false, WRONG);
    const sent = must(await sendListings(desk.made.ledger, { listingIds }));
    expect(sent).toMatchObject({ sent: 0, stopped: [{ ascii: COPPER }] });
    expect(sent.stopped[0]?.findings[0]).toMatchObject({ code: 'order of prices', price: 'reserve', other: 'buyNow' });
    expect(await listingOf(desk.made, COPPER)).toMatchObject({ status: 'draft', sentAt: null });
  });

  test('a wrong change of what stands at the marketplace leaves it as it stands', async () => {
    await begin();
    await desk.made.list([COPPER]);
    await desk.made.pass(4);
    expect(await save(true, { prices: { minimum: 70_000, asking: 50_000 } })).toMatchObject({ sent: 0 });
    expect(await listingOf(desk.made, COPPER)).toMatchObject({
      status: 'live',
      prices: { minimum: 20_000, asking: 50_000, buyNow: 60_000 },
    });
  });
});

test('a listing fee is booked once, and counted once: in the list, the offer, and the statement', async () => {
  await begin();
  const { ledger } = desk.made;
  const own = (await marketplaces(ledger)).find(({ id: marketplaceId }) => marketplaceId === desk.made.marketplaceId);
  if (!own) throw new Error('no marketplace');
  const { id: marketplaceId, linkUrl: _l, linkCursor: _c, linkReadAt: _r, linkProblem: _p, ...form } = own;
  must(
    await saveMarketplace(ledger, {
      ...withoutNulls(form),
      id: marketplaceId,
      listingFeeMinor: 2500,
      floorMinor: 0,
      steps: [],
    }),
  );
  await desk.made.list([COPPER]);
  expect(await booked(desk.made)).toEqual([{ kind: 'listing fee', minor: 2500 }]);
  const [line] = await listingLines(ledger);
  // 15 % of 500.00; the fee is in what the name has cost.
  expect(line).toMatchObject({ askedMinor: 50_000, proceedsMinor: 42_500, profitMinor: 40_000 });
  const threadId = must(await enterOffer(ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '300', currency: 'USD' }));
  const about = await negotiation(ledger, threadId);
  expect(about?.cost).toEqual({ minor: 2500, currency: 'USD' });
  expect(about?.fees).toMatchObject({ listingFeeMinor: 0 });
});
