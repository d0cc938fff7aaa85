import { beforeEach, expect } from 'vitest';
import { upsertSettings } from '@/database/settings';
import { Shop, type ShopAnswer } from '@/shop/answer';
import { stampAt } from '@/shop/work';
import { saveListings } from '@/usecases/selling/listings';
import { answerOffer, threadsOf } from '@/usecases/selling/offers';
import { shopKey } from '@/usecases/shop/taking';
import { tellNow } from '@/usecases/shop/tell';
import { LISTING, must, sellingDesk } from './marketplace';

export const [COPPER, LARCH, TIDE] = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const NAMES: readonly string[] = [COPPER, LARCH, TIDE];

/** A shop in which buyers' letters are taken. */
export const USUAL_SHOP = {
  url: 'https://offers.harbour.test',
  robots: true,
  deposit: null,
  texts: {},
  place: { a: [], aaaa: [], cname: null, nameServers: [] },
  acme: null,
};
const MAIL = {
  host: '127.0.0.1',
  user: null,
  sealedPassword: null,
  from: 'office@harbour.test',
  to: 'office@harbour.test',
};

/** What a buyer sends; what is left out is as usual. `address`: from where. */
export interface Sent {
  readonly name?: string;
  readonly [field: string]: string | undefined;
}

/** A selling desk with a shop, and buyers who write to it. One name is on offer before each test. */
export function buyersDesk() {
  const desk = sellingDesk(NAMES);
  let shop: Shop;
  let askers = 0;
  const stampKey = async () => (await shopKey(desk.made.ledger)?.derive(Buffer.from('shop forms stamp'))) as Buffer;
  const buyers = {
    desk,
    get shop() {
      return shop;
    },
    id: desk.id,
    list: async (name: string, more: object = {}) =>
      must(
        await saveListings(desk.made.ledger, {
          send: true,
          listings: [{ ...LISTING, nameId: desk.id(name), ...more }],
        }),
      ).listingIds,
    mails: () => [...desk.made.practice.mails].reverse(),
    mailed: () => tellNow(desk.made.ledger),
    linkIn: (text = '') => /https:\/\/offers\.harbour\.test(\/t\/[\w-]{43})/.exec(text)?.[1] ?? '',
    stampOf: async (at: number) => stampAt(await stampKey(), at),
    async send({ name = COPPER, address, ...fields }: Sent = {}, acceptLanguage = 'en'): Promise<ShopAnswer> {
      askers += 1;
      const form: Record<string, string> = {
        kind: 'offer',
        buyer: 'Britta Kelp',
        mail: 'b.kelp@kelpworks.test',
        amount: '400',
        currency: 'USD',
        message: '',
        stamp: await buyers.stampOf(Date.now() - 60_000),
        proof: '',
        website: '',
        ...(fields as Record<string, string>),
      };
      return shop.answer({
        method: 'POST',
        url: '/letter',
        host: name,
        acceptLanguage,
        body: new URLSearchParams(form).toString(),
        address: address ?? `192.0.2.${askers % 250}`,
      });
    },
    act: (link: string, fields: Record<string, string>) =>
      shop.answer({
        method: 'POST',
        url: link,
        host: 'offers.harbour.test',
        acceptLanguage: 'en',
        body: new URLSearchParams(fields).toString(),
      }),
    see: async (link: string) =>
      (await shop.answer({ method: 'GET', url: link, host: 'offers.harbour.test', acceptLanguage: 'en' })).body,
    /** Sends a letter and confirms it by the link in the mail; answers the buyer's own page. */
    async sendAndConfirm(sent: Sent = {}): Promise<string> {
      expect((await buyers.send(sent)).status).toBe(303);
      await buyers.mailed();
      const link = buyers.linkIn(buyers.mails().at(-1)?.text);
      expect((await buyers.act(link, { act: 'confirm' })).status).toBe(303);
      return link;
    },
    threads: (name: string = COPPER) => threadsOf(desk.made.ledger, desk.id(name)),
    async counter(amount: string): Promise<void> {
      const [thread] = await buyers.threads();
      const figureId = thread?.figures.at(-1)?.id;
      must(await answerOffer(desk.made.ledger, { threadId: thread?.id, figureId, answer: 'counter', amount }));
    },
  };
  beforeEach(async () => {
    await desk.begin();
    const { ledger, practice } = desk.made;
    await upsertSettings(ledger.database, { mail: { ...MAIL, port: practice.mailPort }, shop: USUAL_SHOP });
    await buyers.list(COPPER);
    shop = new Shop(ledger);
  });
  return buyers;
}
