import { isRefusal } from '@/core/refusal';
import { selectAccounts } from '@/database/accounts';
import type { Database } from '@/database/pool';
import { selectSettings, upsertSettings } from '@/database/settings';
import type { Deps } from '@/usecases/deps';
import { saveLink } from '@/usecases/links/links';
import { practiceCustomers } from '../world/registrars';

/** The accounts of the demo that are linked to their practice registrars. Larkhythe is kept by hand. */
const LINKED = ['Quaymark', 'Saltgate', 'Fernhithe', 'Bollard'];

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
