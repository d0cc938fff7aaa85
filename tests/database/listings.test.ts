import { describe, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { removeLink } from '@/usecases/links/links';
import {
  marketplaces,
  saveMarketplace,
  saveMarketplaceLink,
  testMarketplace,
} from '@/usecases/marketplaces/marketplaces';
import { followSelling } from '@/usecases/selling/follow';
import { saveListings } from '@/usecases/selling/listings';
import { listingsCsv } from '@/usecases/selling/listingsCsv';
import { enterOffer, negotiation } from '@/usecases/selling/offers';
import { pastedNames } from '@/usecases/selling/pricing';
import { proveAtMarketplace } from '@/usecases/selling/prove';
import { sellingReport } from '@/usecases/selling/report';
import { sendListings } from '@/usecases/selling/sendListings';
import { markSeenLive, withdrawListingsById } from '@/usecases/selling/withdraw';
import { TODAY } from './ledger';
import { awaiting, booked, LISTING, listingOf, must, sellingDesk } from './marketplace';
import { listingLines } from './offering';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, TIDE] = NAMES;

const desk = sellingDesk(NAMES);
const { begin, id } = desk;

describe('listing at a marketplace', () => {
  test('the registrar’s link sets the proof; the marketplace asks DNS for it, reviews, and the name is live', async () => {
    await begin();
    await desk.made.list([COPPER]);
    expect(await listingOf(desk.made, COPPER)).toMatchObject({
      status: 'in review',
      proofBy: 'txt',
      proofHost: COPPER,
      proofSetAt: TODAY,
    });
    expect(desk.made.world.texts.get(COPPER)).toEqual([(await listingOf(desk.made, COPPER))?.proofText]);
    await desk.made.pass(4);
    expect(await listingOf(desk.made, COPPER)).toMatchObject({ status: 'live', reviewUntil: null });
    expect((await listingOf(desk.made, COPPER))?.seenLiveAt).not.toBeNull();
    // What is asked stands in the ledger.
    const { rows } = await desk.made.ledger.database.query('select purpose, asking_minor from names where id = $1', [
      id(COPPER),
    ]);
    expect(rows).toEqual([{ purpose: 'for sale', asking_minor: 50_000 }]);
  });

  test('without a link the record is told, and looked for when it was set by hand', async () => {
    await begin();
    await removeLink(desk.made.ledger, desk.made.accountId);
    await desk.made.list([COPPER]);
    const listing = await listingOf(desk.made, COPPER);
    expect(listing).toMatchObject({
      status: 'unproved',
      proofSetAt: null,
      proofText: expect.stringMatching(/^proof=/),
    });
    expect(await awaiting(desk.made)).toContain(`proof missing: ${COPPER}`);
    if (!listing?.proofText) throw new Error('no proof');
    expect(await proveAtMarketplace(desk.made.ledger, listing, 'txt', null)).toBe('The record is not in the zone yet.');
    desk.made.world.texts.set(COPPER, ['v=spf1 -all', listing.proofText]);
    expect(await proveAtMarketplace(desk.made.ledger, listing, 'txt', null)).toBeNull();
    expect(await listingOf(desk.made, COPPER)).toMatchObject({ status: 'in review', proofBy: 'txt' });
  });

  test('a record that was set by hand is found without being asked for, ten minutes later', async () => {
    await begin();
    await removeLink(desk.made.ledger, desk.made.accountId);
    await desk.made.list([COPPER]);
    const listing = await listingOf(desk.made, COPPER);
    desk.made.world.texts.set(COPPER, [listing?.proofText ?? '']);
    await followSelling(desk.made.ledger);
    expect((await listingOf(desk.made, COPPER))?.status).toBe('unproved');
    desk.made.ledger.setClock((TODAY + 10 * 60_000) as typeof TODAY);
    await followSelling(desk.made.ledger);
    expect((await listingOf(desk.made, COPPER))?.status).toBe('in review');
  });

  test('a fee for listing is booked once, when it is first sent; an account at the marketplace needs no proof', async () => {
    await begin();
    const [hall] = await marketplaces(desk.made.ledger);
    const marketplaceId = must(
      await saveMarketplace(desk.made.ledger, {
        ...hallForm(hall as NonNullable<typeof hall>),
        label: 'By Hand',
        listingFeeMinor: 500,
        categoryMinor: 200,
        categories: ['Sea', 'Trade'],
        attributes: [{ label: 'Paid placement', options: [{ label: 'first page', minor: 4000 }] }],
        accountId: desk.made.accountId,
      }),
    );
    const list = () =>
      saveListings(desk.made.ledger, {
        marketplaceId,
        send: true,
        listings: [
          {
            ...LISTING,
            nameId: id(TIDE),
            categories: ['Sea', 'Trade'],
            attributes: { 'Paid placement': 'first page' },
          },
        ],
      });
    must(await list());
    must(await list());
    expect(await booked(desk.made)).toEqual([{ kind: 'listing fee', minor: 4700 }]);
    expect(await listingOf(desk.made, TIDE)).toMatchObject({ status: 'in review', proofBy: 'account' });
  });

  test('a pasted list finds the names of the ledger and says what it does not know', async () => {
    await begin();
    expect(await pastedNames(desk.made.ledger, `${COPPER}, ${TIDE}\nstranger.com\nno name here`)).toMatchObject({
      nameIds: [id(COPPER), id(TIDE)],
      unknown: expect.arrayContaining(['stranger.com']),
    });
    expect(await pastedNames(desk.made.ledger, '  ')).toMatchObject({ code: 'no-names' });
  });

  test('or by a code that the marketplace mails to the registrant', async () => {
    await begin();
    await removeLink(desk.made.ledger, desk.made.accountId);
    await desk.made.list([LARCH]);
    const listing = await listingOf(desk.made, LARCH);
    if (!listing) throw new Error('not listed');
    await proveAtMarketplace(desk.made.ledger, listing, 'mail', null);
    const [mail] = desk.made.practice.mails;
    expect(mail).toMatchObject({ to: 'names@harbour-office.test', subject: `The proof for ${LARCH}` });
    expect(await proveAtMarketplace(desk.made.ledger, listing, 'mail', 'another')).toBe('The code is another.');
    expect(
      await proveAtMarketplace(
        desk.made.ledger,
        listing,
        'mail',
        /\n([0-9a-f]{8})\n/.exec(`${mail?.text}\n`)?.[1] ?? '',
      ),
    ).toBeNull();
    expect(await listingOf(desk.made, LARCH)).toMatchObject({ proofBy: 'mail', status: 'in review' });
  });

  test('what is wrong is kept as a draft and told; what is fine goes', async () => {
    await begin();
    const listed = must(
      await saveListings(desk.made.ledger, {
        marketplaceId: desk.made.marketplaceId,
        send: true,
        listings: [
          { ...LISTING, nameId: id(COPPER) },
          { ...LISTING, nameId: id(LARCH), prices: { minimum: 70_000, asking: 50_000 } },
        ],
      }),
    );
    expect(listed).toMatchObject({ sent: 1, stopped: [{ ascii: LARCH, findings: [{ code: 'order of prices' }] }] });
    expect((await listingOf(desk.made, LARCH))?.status).toBe('draft');
    expect(
      await saveListings(desk.made.ledger, {
        marketplaceId: 99,
        send: true,
        listings: [{ ...LISTING, nameId: id(COPPER) }],
      }),
    ).toMatchObject({ code: 'marketplace-unknown' });
    expect(
      await saveListings(desk.made.ledger, {
        send: true,
        listings: [{ ...LISTING, nameId: id(COPPER), prices: { asking: -500 } }],
      }),
    ).toMatchObject({ code: 'request-invalid', field: 'listings.0.prices.asking' });
    expect(
      await saveListings(desk.made.ledger, { send: true, listings: [{ ...LISTING, nameId: 9999 }] }),
    ).toMatchObject({
      code: 'name-not-in-ledger',
    });
    expect(await saveListings(desk.made.ledger, { send: true, listings: [] })).toMatchObject({ kind: 'refusal' });
  });

  test.each(['slow', 'cut', 'garbage', 'busy', 'result lost'] as const)(
    '%s: asked again, and listed once',
    async (fault) => {
      await begin();
      desk.made.practice.faults.set('marketplace', fault, fault === 'slow' ? 0 : 1);
      await desk.made.list([COPPER]);
      if (fault !== 'slow') expect((await marketplaces(desk.made.ledger))[0]?.linkProblem).toContain('did not answer');
      await followSelling(desk.made.ledger);
      expect((await listingOf(desk.made, COPPER))?.status).toBe('in review');
      expect((await marketplaces(desk.made.ledger))[0]?.linkProblem).toBeNull();
      expect(Object.keys(desk.made.world.market.listings)).toEqual([COPPER]);
    },
  );

  test('what the review refuses is told with its reason, and can be mended and sent again', async () => {
    await begin();
    await desk.made.list([COPPER], { attributes: { 'For adults only (18+)': 'yes' } });
    await desk.made.pass(4);
    expect(await listingOf(desk.made, COPPER)).toMatchObject({
      status: 'refused',
      problem: 'This marketplace shows nothing that is for adults only.',
    });
    expect(await awaiting(desk.made)).toContain(`listing refused: ${COPPER}`);
    await desk.made.list([COPPER]);
    await desk.made.pass(4);
    expect(await listingOf(desk.made, COPPER)).toMatchObject({ status: 'live', problem: null });
  });

  test('withdrawn there and here; a key that is refused is told', async () => {
    await begin();
    const listingIds = await desk.made.list([COPPER]);
    expect(await withdrawListingsById(desk.made.ledger, { listingIds })).toBe(1);
    await followSelling(desk.made.ledger);
    expect(await listingOf(desk.made, COPPER)).toBeUndefined();
    expect(desk.made.world.market.listings[COPPER]?.status).toBe('withdrawn');
    expect(await testMarketplace(desk.made.ledger, desk.made.marketplaceId)).toBe('Cordage Hall');
    must(
      await saveMarketplaceLink(desk.made.ledger, {
        marketplaceId: desk.made.marketplaceId,
        url: `http://127.0.0.1:${desk.made.practice.marketplacePort}`,
        key: 'wrong',
      }),
    );
    expect(await testMarketplace(desk.made.ledger, desk.made.marketplaceId)).toMatchObject({
      message: 'The marketplace refused: The key is not one of ours.',
    });
    expect(
      await saveMarketplaceLink(desk.made.ledger, {
        marketplaceId: desk.made.marketplaceId,
        url: 'http://marketplace.example',
        key: 'k',
      }),
    ).toMatchObject({ code: 'marketplace-address' });
  });

  test('a marketplace without a link: its own columns as CSV, seen live by looking, asked again after the review', async () => {
    await begin();
    const [hall] = await marketplaces(desk.made.ledger);
    const marketplaceId = must(
      await saveMarketplace(desk.made.ledger, {
        ...hallForm(hall as NonNullable<typeof hall>),
        label: 'By Hand',
        csvColumns: [
          { heading: 'Item', field: 'name' },
          { heading: 'Price', field: 'asking' },
        ],
      }),
    );
    const { listingIds } = must(
      await saveListings(desk.made.ledger, { marketplaceId, send: true, listings: [{ ...LISTING, nameId: id(TIDE) }] }),
    );
    expect(await listingsCsv(desk.made.ledger, marketplaceId)).toBe('Item,Price\r\ntidewick.com,500\r\n');
    expect(await awaiting(desk.made)).not.toContain(`to be seen live: ${TIDE}`);
    desk.made.ledger.setClock(addDays(TODAY, 3));
    expect(await awaiting(desk.made)).toContain(`to be seen live: ${TIDE}`);
    expect(await markSeenLive(desk.made.ledger, { listingIds })).toBe(1);
    expect(await listingOf(desk.made, TIDE)).toMatchObject({ status: 'live', proofBy: 'by hand' });
    expect(await awaiting(desk.made)).not.toContain(`to be seen live: ${TIDE}`);
  });
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

const withoutNulls = (form: object) => Object.fromEntries(Object.entries(form).filter(([, value]) => value !== null));
