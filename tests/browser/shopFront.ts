import type { AddressInfo } from 'node:net';
import { selectSettings, upsertSettings } from '@/database/settings';
import { shopServer, shopWith } from '@/shop/serve';
import { tellNow } from '@/usecases/shop/tell';
import { VisitCounter } from '@/usecases/shop/visits';
import type { TestApp } from './app';

/** The shop of an application's ledger, where buyers come. */
export interface ShopFront {
  readonly url: string;
  readonly visits: VisitCounter;
  /** The path of a buyer's own page, as it stands in the newest mail to an address. */
  linkFor(mail: string): Promise<string>;
  close(): Promise<void>;
}

export async function openShop({ ledger, practice }: TestApp): Promise<ShopFront> {
  const visits = new VisitCounter(ledger);
  const server = shopServer(ledger, shopWith(ledger, visits));
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const { shop } = await selectSettings(ledger.database);
  await upsertSettings(ledger.database, { shop: { ...shop, url } });
  return {
    url,
    visits,
    async linkFor(mail) {
      await tellNow(ledger);
      const found = practice?.mails.find(({ to }) => to === mail);
      const link = /\/t\/[\w-]{43}/.exec(found?.text ?? '')?.[0];
      if (!link) throw new Error(`no link was mailed to ${mail}`);
      return link;
    },
    async close() {
      await visits.close();
      server.closeAllConnections();
      await new Promise((closed) => server.close(closed));
    },
  };
}

/** People take their time; a form that comes back at once is a machine's. */
export const pause = () => new Promise((done) => setTimeout(done, 2100));
