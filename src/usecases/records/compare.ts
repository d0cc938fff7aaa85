import { type LedgerRow, type Projection, policyOf, rowsOn } from '@/core/ledger';
import {
  compareRecords,
  DIFFERENCE_KINDS,
  type Difference,
  type DifferenceKind,
  phaseOfStatuses,
  sameRegistrar,
  type TermVerdict,
} from '@/core/records';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { DAY_MS, dayOf, earliestEnd, formatInstant, type Instant } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { type NamePatch, type PatchedName, patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { lockNameEnding, selectNameIds } from '@/database/names';
import {
  type ComparedExtras,
  insertDismissals,
  type StoredRecord,
  selectComparedExtras,
  selectNewestRecords,
} from '@/database/records';
import type { Done } from '../changing';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { SomeDifferences } from './requests';

/** A name whose record differs from the ledger. */
export interface DifferingName {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly account: string;
  readonly seenAt: Instant;
  readonly differences: readonly Difference[];
}

interface Compared extends DifferingName {
  readonly row: LedgerRow;
  readonly registry: StoredRecord | null;
  readonly registrar: StoredRecord | null;
}

/** Names whose records differ from the ledger, the most dangerous first; what was dismissed is left out until it changes. */
export async function differingNames(deps: Deps, nameIds: readonly number[] | null = null): Promise<DifferingName[]> {
  const compared = await compareNames(deps, nameIds);
  const rank = ({ differences: [first] }: DifferingName) => DIFFERENCE_KINDS.indexOf(first?.kind as DifferenceKind);
  return compared
    .filter(({ differences }) => differences.length > 0)
    .sort((a, b) => rank(a) - rank(b) || (a.ascii < b.ascii ? -1 : 1))
    .map(({ row, registry, registrar, ...name }) => name);
}

async function compareNames(deps: Deps, nameIds: readonly number[] | null): Promise<Compared[]> {
  const [projection, extras] = await Promise.all([
    projectedLedger(deps, nameIds ?? undefined),
    selectComparedExtras(deps.database, nameIds),
  ]);
  const some = nameIds === null ? null : projection.names.all().map(({ ascii }) => ascii);
  const records = await selectNewestRecords(deps.database, some);
  return compareAll(projection, new Map(extras.map((one) => [one.id, one])), records);
}

/** Compares every name of a projection with its newest records. */
export function compareAll(
  projection: Projection,
  extras: ReadonlyMap<number, ComparedExtras>,
  records: readonly StoredRecord[],
): Compared[] {
  const bySource = new Map<string, StoredRecord>();
  for (const record of records) {
    const key = `${record.source === 'pasted' ? 'registry' : record.source} ${record.ascii}`;
    const other = bySource.get(key);
    if (!other || record.lastAt > other.lastAt) bySource.set(key, record);
  }
  const read = rowsOn(projection, projection.asOf);
  const { names } = projection;
  return Array.from({ length: names.length }, (_, place) => place).flatMap((place): Compared[] => {
    const ascii = names.ascii(place);
    const registry = bySource.get(`registry ${ascii}`) ?? null;
    const registrar = bySource.get(`registrar ${ascii}`) ?? null;
    const newest = registry ?? registrar;
    const more = extras.get(names.columns.id[place] as number);
    if (!newest || !more) return [];
    const row = read(place);
    const { name } = row;
    const account = projection.index.accounts.get(name.accountId);
    // Only what the account said since the end of the term says whether it was renewed.
    const told = row.termEnd !== null && more.toldAt !== null && more.toldAt >= earliestEnd(row.termEnd);
    const found = compareRecords(
      {
        registrar: account?.registrar ?? '',
        termEnd: row.termEnd,
        phase: row.phase,
        lock: name.lock,
        privacy: name.privacy,
        nameServers: more.nameServers,
        holder: more.holder,
        accountEnd: told && more.toldEnd !== null ? { at: more.toldEnd, precision: 'instant' } : null,
        receipt: more.receipt,
        seenAt: newest.lastAt,
        graceDays: policyOf(projection, place).lateDays,
        actedAt: more.actedAt,
      },
      registry?.record ?? null,
      registrar?.record ?? null,
    );
    return [
      {
        nameId: name.id,
        ascii: name.ascii,
        unicode: name.unicode,
        account: account?.label ?? '',
        seenAt: newest.lastAt,
        differences: found.filter(({ fingerprint }) => !more.dismissed.includes(fingerprint)),
        row,
        registry,
        registrar,
      },
    ];
  });
}

/**
 * Takes down names that somebody renewed without this ledger: the registry shows a year more, and the registrar or the account says
 * that it is paid. The term goes on, so that no second charge is expected, and what it will have cost is booked as a proposal, to be
 * corrected or taken back. Answers how many.
 */
export const takeRenewed = command('takeRenewed', async (deps: Deps, ascii: readonly string[]): Promise<number> => {
  const ids = await selectNameIds(deps.database, ascii);
  const compared = ids.size === 0 ? [] : await compareNames(deps, [...ids.values()]);
  const renewed = compared.flatMap((one) => {
    const term = one.differences.find(({ kind }) => kind === 'term end')?.term ?? null;
    const shown = (one.registry ?? one.registrar)?.record.expires ?? null;
    const by = renewedBy(term);
    const end = term && 'end' in term ? term.end : shown;
    return by && end ? [{ ...one, end, by }] : [];
  });
  const at = deps.clock();
  // Each in a batch of its own, so that one can be taken back without the others.
  for (const { nameId, unicode, row, end, by } of renewed)
    await changing(deps, async (tx, { record }) => {
      // A run may have renewed it since it was compared.
      if (!(await lockNameEnding(tx, nameId, row.termEnd))) return;
      const batchId = await record('record', `Renewed, as registry and ${by} show: ${unicode}`);
      const patch = { term_end: formatInstant(end.at), term_end_day: end.precision === 'day' };
      await patchNames(tx, batchId, [
        { nameId, patch, evidence: `registration record of ${dayOf(at)}, and the ${by}` },
      ]);
      const cost = row.costs.renewal;
      // What several years cost together nobody has said.
      const isOneYear = row.termEnd !== null && end.at - row.termEnd.at < MOST_YEAR_DAYS * DAY_MS;
      if (cost && isOneYear)
        await insertEntries(tx, batchId, [{ nameId, onDay: dayOf(at), kind: 'renewal', ...cost, note: PROPOSED }]);
    });
  return renewed.length;
});

/** Who says, besides the registry, that a name has been renewed for years that the ledger does not know of; `null` for nobody. */
function renewedBy(term: TermVerdict | null): 'account' | 'registrar' | null {
  if (term?.kind === 'renewed') return term.by === 'receipt' ? null : term.by;
  return term?.kind === 'record later' && term.days >= LEAST_YEAR_DAYS ? (term.confirmedBy ?? null) : null;
}

/** Less than this is another reading of the same term, and no renewal. */
const LEAST_YEAR_DAYS = 300;
/** More than this are several years. */
const MOST_YEAR_DAYS = 400;

const PROPOSED = 'proposed from the price list: no receipt yet. Correct it when the charge is known';

/** Takes what the record says over into the ledger, with the record as evidence. What cannot be taken over is left as it is. */
export const takeOver = command('takeOver', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(SomeDifferences, input);
  if (isRefusal(request)) return request;
  const wanted = new Map(request.differences.map(({ nameId, kind }) => [`${nameId} ${kind}`, true]));
  const compared = await compareNames(deps, [...new Set(request.differences.map(({ nameId }) => nameId))]);
  const accounts = await selectAccounts(deps.database);
  const patches = compared.flatMap((one): PatchedName[] => {
    const patch: NamePatch = Object.assign(
      {},
      ...one.differences
        .filter(({ kind }) => wanted.has(`${one.nameId} ${kind}`))
        .map((difference) => patchOf(difference, one, accounts)),
    );
    const source = one.registry ?? one.registrar;
    const evidence = source ? `registration record of ${dayOf(source.lastAt)}, by the ${source.source}` : null;
    return Object.keys(patch).length === 0 ? [] : [{ nameId: one.nameId, patch, evidence }];
  });
  if (patches.length === 0)
    return refuse('nothing-to-take-over', 'Nothing of this can be taken over by itself: look at each name.');
  const summary = `Taken over from the registration record: ${patches.length === 1 ? 'one name' : `${patches.length} names`}`;
  return changing(deps, (_tx, { names }) => names('record', summary, patches));
});

/** What taking one difference over means for a name's columns; nothing where a person has to look first. */
function patchOf(
  difference: Difference,
  { registry, registrar, row }: Compared,
  accounts: readonly { readonly id: number; readonly registrar: string }[],
): NamePatch {
  const record = (registry ?? registrar)?.record;
  const seen = (registry ?? registrar)?.firstAt;
  if (!record || seen === undefined) return {};
  switch (difference.kind) {
    case 'term end': {
      const kind = difference.term?.kind;
      const end = difference.term && 'end' in difference.term ? difference.term.end : record.expires;
      if (end === null || kind === 'undetermined' || kind === 'not renewed') return {};
      return { term_end: formatInstant(end.at), term_end_day: end.precision === 'day' };
    }
    case 'in redemption': {
      const phase = phaseOfStatuses(record.statuses);
      const observed =
        phase === 'redemption' || phase === 'pending restore' || phase === 'pending delete' ? phase : null;
      // A deletion changes the record: that is when it was, where the record tells.
      const since = record.changed !== null && record.changed <= seen ? record.changed : seen;
      return observed ? { observed, observed_at: formatInstant(observed === 'redemption' ? since : seen) } : {};
    }
    case 'not deleted':
      return { observed: 'registered', observed_at: formatInstant((registry ?? registrar)?.lastAt ?? seen) };
    case 'not registered':
      return { gone_at: formatInstant(seen) };
    case 'not at that registrar': {
      const account = accounts.find(
        (one) => record.registrar !== null && sameRegistrar(one.registrar, record.registrar),
      );
      return account && account.id !== row.name.accountId ? { account_id: account.id } : {};
    }
    case 'transfer pending':
      return { observed: 'pending transfer', observed_at: formatInstant(seen) };
    case 'holder changed':
      return { holder: difference.record };
    case 'unlocked':
      return { lock: false };
    case 'name servers':
      return { name_servers: record.nameServers };
    case 'privacy off':
      return { privacy: false };
    case 'hold':
    case 'security broken':
      return {};
  }
}

/** Dismisses differences until what the record says changes again. */
export const dismissDifferences = command(
  'dismissDifferences',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const request = await readRequest(SomeDifferences, input);
    if (isRefusal(request)) return request;
    const wanted = new Set(request.differences.map(({ nameId, kind }) => `${nameId} ${kind}`));
    const compared = await compareNames(deps, [...new Set(request.differences.map(({ nameId }) => nameId))]);
    const dismissals = compared.flatMap(({ nameId, differences }) =>
      differences
        .filter(({ kind }) => wanted.has(`${nameId} ${kind}`))
        .map(({ fingerprint }) => ({ nameId, fingerprint })),
    );
    await changing(deps, (tx) => insertDismissals(tx, dismissals, deps.clock()));
    return dismissals.length;
  },
);
