import { candidatesFrom } from '@/core/acquiring';
import { PLAIN_PRICE } from '@/core/pricing';
import { addDays, addYears, type Day, dayOf, type Instant } from '@/core/time';
import { insertAccount } from '@/database/accounts';
import { enqueueNames } from '@/database/availability';
import { insertBatch } from '@/database/changes';
import { type EntryDraft, insertEntries } from '@/database/entries';
import { insertIdeaSet } from '@/database/ideaSets';
import { analyzeLedger, bumpRevision } from '@/database/ledger';
import { insertNames, selectNameIds } from '@/database/names';
import { type Database, type Transaction, transaction } from '@/database/pool';
import { upsertPrices } from '@/database/prices';
import { upsertSettings } from '@/database/settings';
import { upsertView } from '@/database/views';
import { demoAccounts, demoPrices } from './accounts';
import { chanceFrom } from './chance';
import { type DemoName, demoNames } from './names';
import { IDEAS } from './words';

const NAMES = 412;
const PRICES_FROM = '2024-01-01' as Day;

/**
 * Fills an empty ledger with the demo, made around `now`: a small office in a harbour town with names of craft, weather
 * and coast at five invented registrars, and the entries of past years.
 */
export async function seedDemo(database: Database, now: Instant): Promise<void> {
  await transaction(database, async (tx) => {
    await bumpRevision(tx);
    await upsertSettings(tx, { homeCurrency: 'USD', zone: 'UTC', alarmDays: [7, 1] });
    const accountIds = new Map<string, number>();
    const currencies = new Map<string, string>();
    for (const draft of demoAccounts(now)) {
      const id = await insertAccount(tx, draft, addYears(now, -9));
      accountIds.set(draft.label, id);
      currencies.set(draft.label, draft.currency);
      await upsertPrices(tx, demoPrices(draft.label, id, draft.currency, PRICES_FROM));
    }
    const names = demoNames(NAMES, now).map((name) => ({
      ...name,
      fields: { ...name.fields, account_id: accountIds.get(name.account) },
    }));
    const began = await insertBatch(tx, {
      at: addDays(now, -400),
      by: 'office',
      kind: 'import',
      summary: 'Brought in from the office’s old spreadsheet',
      undoes: null,
    });
    await insertNames(tx, began, names, addDays(now, -400));
    const ids = await selectNameIds(
      tx,
      names.map((name) => name.ascii),
    );
    const entries = names.flatMap((name) =>
      pastEntries(name, ids.get(name.ascii) as number, currencies.get(name.account) ?? 'USD', now),
    );
    await insertEntries(tx, began, entries);
    const premium = ids.get('moorgauge.io');
    if (premium !== undefined) {
      const base = {
        accountId: accountIds.get('Fernhithe') as number,
        nameId: premium,
        ending: 'io',
        currency: 'USD',
        ...PLAIN_PRICE,
        feeIncluded: true,
        from: PRICES_FROM,
      };
      await upsertPrices(tx, [{ ...base, action: 'renew', yearMinor: 6200, origin: 'by hand' }]);
    }
    await upsertView(tx, 'Lost within 60 days', 'within=60&auto=off,stalled', []);
    await upsertView(tx, 'For sale, dearest first', 'forSale=yes&sort=-asking', []);
    await seedIdeas(tx, now);
    await analyzeLedger(tx);
  });
}

const IDEA_ENDINGS = ['com', 'net', 'org', 'io', 'de', 'uk'];

/** The ideas that the office is turning over, with their names in line to be asked for. */
async function seedIdeas(tx: Transaction, now: Instant): Promise<void> {
  const draft = {
    label: 'the loft series',
    ideas: IDEAS.join(', '),
    patterns: ['{a}{b}', '{a}-{b}', '{a:1}{b}'],
    endings: IDEA_ENDINGS,
    heldYears: 5,
  };
  const setId = await insertIdeaSet(tx, draft, addDays(now, -1));
  const read = candidatesFrom(draft.ideas, draft.patterns);
  const candidates = 'candidates' in read ? read.candidates : [];
  const names = candidates.flatMap(({ label }) =>
    IDEA_ENDINGS.map((ending) => ({ ascii: `${label}.${ending}`, ending })),
  );
  await enqueueNames(tx, setId, names, now, now);
}

/** What a name has cost in past years: bought or registered, then renewed each year of its life. */
function pastEntries(name: DemoName, nameId: number, currency: string, now: Instant): EntryDraft[] {
  const chance = chanceFrom(nameId * 31 + 7);
  const year = 900 + chance.whole(300);
  const first: EntryDraft =
    name.boughtMinor === null
      ? {
          nameId,
          onDay: dayOf(name.registeredAt),
          kind: 'registration',
          minor: year,
          currency,
          note: '1 year',
        }
      : {
          nameId,
          onDay: dayOf(name.registeredAt),
          kind: 'bought',
          minor: name.boughtMinor,
          currency,
          note: 'bought from its owner',
        };
  const entries = [first];
  for (let i = 1; addYears(name.registeredAt, i) < addDays(now, -20); i += 1) {
    const at = addDays(addYears(name.registeredAt, i), -5);
    if (at >= Date.parse(String(name.fields.term_end)) - 10 * 86_400_000) break;
    entries.push({
      nameId,
      onDay: dayOf(at),
      kind: 'renewal',
      minor: year + i * 14,
      currency,
      note: '1 year',
      reference: `R-${nameId}${i}`,
    });
  }
  if (chance.next() < 0.08)
    entries.push({
      nameId,
      onDay: dayOf(addDays(now, -chance.whole(500) - 5)),
      kind: 'listing fee',
      minor: 1000,
      currency,
    });
  return entries;
}
