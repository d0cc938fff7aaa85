import { RENEWAL } from '@/core/ledger/sampleLedger';
import { isRefusal } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { transaction } from '@/database/pool';
import { upsertPrices } from '@/database/prices';
import { selectTransfers, type TransferRow } from '@/database/transfers';
import { removeLink, saveLink } from '@/usecases/links/links';
import { pollEveryAccount } from '@/usecases/links/poll';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { startTransfers } from '@/usecases/moving/start';
import { practiceRegistrars } from '../../practice/world/registrars';
import type { Domain } from '../../practice/world/types';
import { TODAY, usualAccount } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

/** A ledger with names at one practice registrar, and a second account at another, each with a link or without. */
export interface MovingLedger extends LinkedLedger {
  readonly toId: number;
  readonly runId: string;
  /** The names that were put on their way, as they stand now. */
  transfers(): Promise<TransferRow[]>;
  /** Where each stands, and why it came to nothing. */
  stages(): Promise<string[]>;
  /** What stands in the books, `kind minor` each, the oldest first. */
  entries(): Promise<string[]>;
  /** Columns of the first name of the ledger. */
  row(columns: string): Promise<Record<string, unknown> | undefined>;
  /** Lets days pass, messages come, and transfers go on. */
  pass(days: number): Promise<void>;
}

export interface MovingOptions {
  readonly end: Instant;
  readonly domain?: Partial<Domain>;
  readonly to?: string;
  readonly isGainingLinked?: boolean;
  readonly isLosingLinked?: boolean;
}

/** Puts the names on their way from Quaymark to another registrar; nothing has been done yet. */
export async function movingLedger(
  names: readonly string[],
  { end, domain = {}, to = 'wrackgate', isGainingLinked = true, isLosingLinked = true }: MovingOptions,
): Promise<MovingLedger> {
  const made = await linkedLedger(names, end, {
    auto: 'on',
    lock: true,
    nameServers: ['ns1.quaymark.test'],
    ...domain,
  });
  const { ledger, practice, ids } = made;
  const registrar = practiceRegistrars(TODAY).find(({ id }) => id === to);
  if (!registrar) throw new Error(`no registrar ${to}`);
  const toId = await usualAccount(ledger, registrar.title, { currency: registrar.currency });
  const price = { ...RENEWAL, accountId: toId, currency: registrar.currency, action: 'transfer' as const };
  await transaction(ledger.database, (tx) =>
    upsertPrices(tx, [{ ...price, yearMinor: registrar.prices.com?.transfer ?? 0 }]),
  );
  await ledger.database.query("update names set name_servers = '{ns1.quaymark.test}', lock = true, privacy = false");
  if (isGainingLinked) {
    const saved = await saveLink(ledger, {
      accountId: toId,
      host: '127.0.0.1',
      port: practice.ports[to],
      login: `harbour-${to}`,
      password: `${to}-practice-pw`,
    });
    if (isRefusal(saved)) throw new Error(saved.message);
  }
  if (!isLosingLinked) await removeLink(ledger, made.accountId);
  const customer = made.world.customers.get(to);
  if (customer)
    Object.assign(customer, {
      balanceMinor: 1_000_000,
      paymentMethods: [{ kind: 'balance', label: 'balance', endsMonth: null }],
    });
  const started = await startTransfers(ledger, { items: names.map((name) => ({ nameId: ids.get(name), toId })) });
  if (isRefusal(started)) throw new Error(started.message);
  return {
    ...made,
    toId,
    runId: started.id,
    transfers: () => selectTransfers(ledger.database, started.id),
    stages: async () =>
      (await selectTransfers(ledger.database, started.id)).map(
        (one) => `${one.stage}${one.exit ? ` (${one.exit})` : ''}`,
      ),
    entries: async () =>
      (await ledger.database.query('select kind, minor from entries order by id')).rows.map(
        ({ kind, minor }) => `${kind} ${minor}`,
      ),
    row: async (columns) => (await ledger.database.query(`select ${columns} from names`)).rows[0],
    async pass(days) {
      const at = (ledger.clock() + days * 86_400_000) as Instant;
      await practice.passTo(at);
      ledger.setClock(at);
      await pollEveryAccount(ledger);
      await carryOnTransfers(ledger);
    },
  };
}
