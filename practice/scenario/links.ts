import { isRefusal } from '@/core/refusal';
import { selectAccounts } from '@/database/accounts';
import type { Database } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import { selectSettings, upsertSettings } from '@/database/settings';
import type { Deps } from '@/usecases/deps';
import { saveLink } from '@/usecases/links/links';
import { seal } from '@/usecases/secrets/seal';
import { MAILBOX_LOGIN } from '../mail/mailbox';
import { RDAP_ENDINGS } from '../records/rdap';
import { practiceCustomers } from '../world/registrars';

/** The accounts of the demo that are linked to their practice registrars. Larkhythe is kept by hand. */
const LINKED = ['Quaymark', 'Wrackgate', 'Fernhithe', 'Bollard'];

/** Links the demo's accounts to the practice registrars, which listen on `ports` by login. */
export async function linkDemo(deps: Deps, ports: Readonly<Record<string, number>>): Promise<void> {
  const accounts = await selectAccounts(deps.database);
  for (const customer of practiceCustomers(deps.clock())) {
    const account = accounts.find(
      (one) => one.label.toLowerCase() === customer.registrar && LINKED.includes(one.label),
    );
    if (!account) continue;
    const { login, password } = customer;
    const saved = await saveLink(deps, {
      accountId: account.id,
      host: '127.0.0.1',
      port: ports[login],
      login,
      password,
    });
    if (isRefusal(saved)) throw new Error(saved.message);
  }
}

/** Reminders of the demo go to the practice mail server, wherever it listens; a mail server of one's own is left alone. */
export async function pointMailAt(database: Database, port: number, baseUrl: string): Promise<void> {
  const { mail } = await selectSettings(database);
  if (mail && !mail.to.endsWith('.test')) return;
  await upsertSettings(database, {
    baseUrl,
    mail: {
      host: '127.0.0.1',
      port,
      user: null,
      sealedPassword: null,
      from: 'ledger@harbour-office.test',
      to: 'office@harbour-office.test',
    },
  });
}

/** Mails of the demo's registrars are fetched from the practice mailbox, wherever it listens; one of the office's own is left alone. */
export async function pointMailboxAt(deps: Deps, port: number): Promise<void> {
  const { mailbox } = await selectSettings(deps.database);
  if (mailbox && mailbox.host !== '127.0.0.1') return;
  if (!deps.key) return;
  const sealed = await seal(deps.key, sealPlace.mailbox(), MAILBOX_LOGIN.password);
  const { user } = MAILBOX_LOGIN;
  const kept = { folder: 'INBOX', place: null, readAt: null, problem: null, ...mailbox };
  await upsertSettings(deps.database, {
    mailbox: { ...kept, host: '127.0.0.1', port, user, sealedPassword: sealed.toString('base64') },
  });
}

/** Rates of the demo are read from the practice bank, wherever it listens; an address of one's own is left alone. */
export async function pointRatesAt(database: Database, port: number): Promise<void> {
  const { rates } = await selectSettings(database);
  if (rates && !rates.url.startsWith('http://127.0.0.1:')) return;
  await upsertSettings(database, {
    rates: { base: 'EUR', readAt: null, problem: null, ...rates, url: `http://127.0.0.1:${port}/daily.xml` },
  });
}

/** Registration records of the demo are asked for in the practice world, wherever it listens. */
export async function pointRecordsAt(
  database: Database,
  { rdap, whois, dns }: { readonly rdap: number; readonly whois: number; readonly dns: number },
): Promise<void> {
  const whoisAt = `127.0.0.1:${whois}`;
  await upsertSettings(database, {
    records: {
      // The layout of RFC 9224 section 3, with the practice registry in the place of the real ones.
      bootstrap: {
        version: '1.0',
        publication: '2026-11-01T00:00:00Z',
        description: 'The practice registry',
        services: [[[...RDAP_ENDINGS], [`http://127.0.0.1:${rdap}/registry/`]]],
      },
      whois: { uk: whoisAt, de: whoisAt },
      dns: `127.0.0.1:${dns}`,
      allowedHosts: ['127.0.0.1'],
    },
  });
}

/** Buyers' own pages of the demo stand at its shop, and its certificates come from the practice authority; an address of one's own is left alone. */
export async function pointShopAt(database: Database, shopPort: number, acmePort: number): Promise<void> {
  const { shop } = await selectSettings(database);
  if (shop.url !== null && !shop.url.startsWith('http://127.0.0.1:')) return;
  const { place } = shop;
  await upsertSettings(database, {
    shop: {
      ...shop,
      url: `http://127.0.0.1:${shopPort}`,
      place: place.nameServers.length > 0 ? place : { ...place, nameServers: ['ns1.offers.test', 'ns2.offers.test'] },
      acme: { directory: `http://127.0.0.1:${acmePort}/directory`, mail: 'office@harbour-office.test' },
    },
  });
}
