import {
  indexRules,
  type LedgerRow,
  type LedgerRules,
  namesFromColumns,
  type Projection,
  projectLedger,
  rowsOn,
} from '@/core/ledger';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import { selectLedgerColumns, selectLedgerColumnsJson, selectLedgerRules, selectRevision } from '@/database/ledger';
import { selectNameIds, selectTags } from '@/database/names';
import type { Deps } from '../deps';

/** The number of the ledger's present state; it rises with every change. */
export function ledgerRevision(deps: Deps): Promise<number> {
  return selectRevision(deps.database);
}

/**
 * The whole ledger as one JSON text for a browser's worker: `{ revision, asOf, rules, names }` with the names as columns,
 * which the database itself writes as JSON.
 */
export async function ledgerJson(deps: Deps): Promise<string> {
  const revision = await selectRevision(deps.database);
  const [rules, names] = await Promise.all([selectLedgerRules(deps.database), selectLedgerColumnsJson(deps.database)]);
  return `{"revision":${revision},"asOf":${JSON.stringify(formatInstant(deps.clock()))},"rules":${JSON.stringify(rules)},"names":${names}}`;
}

/**
 * The ledger played forward from now, for queries that are answered on the server. With `nameIds` only those names are read:
 * enough for phases and costs, not for which charges will find money.
 */
export async function projectedLedger(deps: Deps, nameIds: readonly number[] | null = null): Promise<Projection> {
  const [rules, columns] = await Promise.all([
    selectLedgerRules(deps.database),
    selectLedgerColumns(deps.database, nameIds),
  ]);
  return projectLedger(indexRules(rules), namesFromColumns(columns), deps.clock());
}

/** Accounts, endings and tags that the ledger can be filtered by, and the rules it is read by. */
export async function ledgerChoices(deps: Deps): Promise<{ rules: LedgerRules; tags: string[] }> {
  const [rules, tags] = await Promise.all([selectLedgerRules(deps.database), selectTags(deps.database)]);
  return { rules, tags };
}

/** One name as the ledger shows it today, however it is written. Its account's other names are projected along with it. */
export async function ledgerRow(
  deps: Deps,
  written: string,
): Promise<{ projection: Projection; row: LedgerRow } | Refusal> {
  const name = parseDomainName(written, { allowPrivateEndings: true });
  if (isRefusal(name)) return name;
  const id = (await selectNameIds(deps.database, [name.ascii])).get(name.ascii);
  const projection = await projectedLedger(deps);
  const place = projection.names.findIndex((candidate) => candidate.id === id);
  if (place < 0)
    return refuse('name-not-in-ledger', `${name.unicode} is not in the ledger. Bring it in under Add names.`);
  return { projection, row: rowsOn(projection, projection.asOf)(place) };
}
