import { beforeEach, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { selectSettings, upsertSettings } from '@/database/settings';
import { changeNameServers } from '@/usecases/links/nameServers';
import { saveListings } from '@/usecases/selling/listings';
import { saveShop, shopSettings } from '@/usecases/shop/settings';
import { lookAtWindows, lookForWindows, windowShown } from '@/usecases/shop/shows';
import { USUAL_SHOP } from './buyers';
import { LISTING, must, sellingDesk } from './marketplace';

const NAMES = ['copperbuoy.com', 'larchpilot.com'] as const;
const [COPPER, LARCH] = NAMES;
const desk = sellingDesk(NAMES);
const OURS = ['ns1.offers.test', 'ns2.offers.test'];

beforeEach(async () => {
  await desk.begin();
  const { ledger } = desk.made;
  await upsertSettings(ledger.database, { shop: { ...USUAL_SHOP, place: { ...USUAL_SHOP.place, nameServers: OURS } } });
  must(
    await saveListings(ledger, {
      send: true,
      listings: NAMES.map((name) => ({ ...LISTING, nameId: desk.id(name) })),
    }),
  );
});
const shown = (name: string) => windowShown(desk.made.ledger, desk.id(name));
/** Sets our name servers for a name by its link. */
const pointAtUs = async (name: string) => {
  const asked = { nameIds: [desk.id(name)], hosts: OURS.join('\n'), byHand: false, evenIfSigned: false };
  must(await changeNameServers(desk.made.ledger, asked));
};

test('a name leads to its window once its name servers are set by link; the other does not, and what it shows is said', async () => {
  const { ledger } = desk.made;
  await pointAtUs(COPPER);
  expect(await lookAtWindows(ledger)).toBe(2);
  expect((await shown(COPPER)).look).toMatchObject({ shows: true, problem: null });
  const other = (await shown(LARCH)).look;
  expect(other).toMatchObject({ shows: false, problem: null });
  expect(other?.found.join()).toContain('NS ns1.quaymark.test');
  // Daily, and not sooner.
  expect(await lookAtWindows(ledger)).toBe(0);
  ledger.setClock(addDays(ledger.clock(), 1));
  expect(await lookAtWindows(ledger)).toBe(2);
});

test('while DNS is away nothing is taken for known: what was seen before stays, and that nothing is seen is said', async () => {
  const { ledger } = desk.made;
  await pointAtUs(COPPER);
  expect(must(await lookForWindows(ledger, { nameIds: [desk.id(COPPER)] }))).toBe(1);
  const { records } = await selectSettings(ledger.database);
  await upsertSettings(ledger.database, { records: { ...records, dns: '127.0.0.1:1' } });
  await lookForWindows(ledger, { nameIds: [desk.id(COPPER)] });
  const { look } = await shown(COPPER);
  expect(look?.problem).toContain('DNS did not answer');
  expect(look?.shows).toBe(true);
}, 30_000);

test.each([
  [{ url: 'http://offers.harbour.test' }, 'url'],
  [{ acmeDirectory: 'http://acme.harbour.test/directory', acmeMail: 'o@harbour.test' }, 'acmeDirectory'],
])('beyond this machine nothing goes in the open: %j is refused', async (more, field) => {
  const form = { robots: true, a: [], aaaa: [], nameServers: [], ...more };
  expect(await saveShop(desk.made.ledger, form)).toMatchObject({ code: 'address-not-secure', field });
  expect((await shopSettings(desk.made.ledger)).acme).toBeNull();
  expect(await saveShop(desk.made.ledger, { ...form, url: 'http://127.0.0.1:4190', acmeDirectory: undefined })).toBe(
    true,
  );
});
