import { RENEWAL } from '@/core/ledger/sampleLedger';
import { isRefusal } from '@/core/refusal';
import { formatInstant, type Instant } from '@/core/time';
import { insertBatch } from '@/database/changes';
import { insertNames, selectNameIds } from '@/database/names';
import { transaction } from '@/database/pool';
import { upsertPrices } from '@/database/prices';
import { saveLink } from '@/usecases/links/links';
import { planRenewal } from '@/usecases/orders/plan';
import { type RunningPractice, runPractice } from '../../practice/run';
import { schedule } from '../../practice/world/days';
import { blankDomain } from '../../practice/world/domain';
import { practiceCustomers, practiceRegistrars } from '../../practice/world/registrars';
import type { Domain, Registrar, World } from '../../practice/world/types';
import { makeWorld } from '../../practice/world/world';
import { emptyLedger, type TestLedger, TODAY, usualAccount } from './ledger';

/** A ledger with one account linked to a practice registrar that holds the same names. */
export interface LinkedLedger {
  readonly ledger: TestLedger;
  readonly world: World;
  readonly practice: RunningPractice;
  readonly accountId: number;
  readonly ids: ReadonlyMap<string, number>;
  /** Plans a renewal of these names for a year, or a restore; answers its id. */
  plan(names: readonly string[], action?: 'renew' | 'restore'): Promise<string>;
  close(): Promise<void>;
}

interface BroughtIn {
  readonly names: readonly string[];
  readonly end: Instant;
  readonly accountId: number;
  readonly registrar: Registrar;
}

/** The names at the account, and what its registrar charges for them. */
function bringIn(ledger: TestLedger, { names, end, accountId, registrar }: BroughtIn): Promise<void> {
  return transaction(ledger.database, async (tx) => {
    const batch = await insertBatch(tx, {
      at: TODAY,
      by: 'office',
      kind: 'import',
      summary: 'made for a test',
      undoes: null,
    });
    await insertNames(
      tx,
      batch,
      names.map((ascii) => ({
        ascii,
        unicode: ascii,
        ending: ascii.slice(ascii.indexOf('.') + 1),
        fields: { account_id: accountId, term_end: formatInstant(end), setting: 'on' },
      })),
      TODAY,
    );
    const { renew = 0, restore = 0 } = registrar.prices.com ?? {};
    const price = { ...RENEWAL, accountId, currency: registrar.currency };
    await upsertPrices(tx, [
      { ...price, yearMinor: renew },
      { ...price, action: 'restore', yearMinor: restore },
    ]);
  });
}

export async function linkedLedger(
  names: readonly string[],
  end: Instant,
  more: Partial<Domain> = {},
  registrarId = 'quaymark',
  mostQuestionsASecond?: number,
): Promise<LinkedLedger> {
  const ledger = await emptyLedger();
  const registrars = practiceRegistrars(TODAY);
  const registrar = registrars.find((one) => one.id === registrarId) as Registrar;
  const world = makeWorld(
    TODAY,
    registrars,
    practiceCustomers(TODAY),
    names.map((name) => {
      const domain: Domain = { ...blankDomain(name, registrarId, TODAY - 4e10, end), auto: 'on', ...more };
      schedule(registrar, domain, TODAY);
      return domain;
    }),
  );
  const practice = await runPractice({ world, store: null, ...(mostQuestionsASecond ? { mostQuestionsASecond } : {}) });
  const accountId = await usualAccount(ledger, registrar.title, {
    currency: registrar.currency,
    leadDays: registrar.leadDays,
    lateDays: registrar.lateDays,
  });
  await bringIn(ledger, { names, end, accountId, registrar });
  const saved = await saveLink(ledger, {
    accountId,
    host: '127.0.0.1',
    port: practice.ports[registrarId],
    login: `harbour-${registrarId}`,
    password: `${registrarId}-practice-pw`,
  });
  if (isRefusal(saved)) throw new Error(saved.message);
  const ids = await selectNameIds(ledger.database, names);
  return {
    ledger,
    world,
    practice,
    accountId,
    ids,
    async plan(chosen, action = 'renew') {
      const planned = await planRenewal(ledger, {
        action,
        items: chosen.map((name) => ({ nameId: ids.get(name), years: 1 })),
      });
      if (isRefusal(planned)) throw new Error(planned.message);
      return planned.renewal.id;
    },
    async close() {
      await ledger.close();
      await practice.stop();
    },
  };
}
