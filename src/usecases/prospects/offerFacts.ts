import { type LedgerDay, type LedgerView, viewFromQuery } from '@/core/ledger';
import type { Assumptions } from '@/core/odds';
import { type OfferFacts, type Valuing, valuing } from '@/core/prospects';
import { selectOfferFacts } from '@/database/offerFacts';
import type { Database, Queryable } from '@/database/pool';
import { selectViews } from '@/database/views';
import type { Deps } from '../deps';
import { ledgerVersion } from '../names/ledger';

/** How long they are kept after they were last asked for. */
const KEPT_MS = 60_000;

interface Kept {
  readonly version: string;
  readonly facts: Promise<OfferFacts>;
  readonly drop: NodeJS.Timeout;
}

const kept = new WeakMap<Database, Kept>();

/** What is known of own names on offer, read once for each state of the ledger and hour. */
export async function offerFacts(deps: Deps): Promise<OfferFacts> {
  const { database } = deps;
  const version = await ledgerVersion(deps);
  const known = kept.get(database);
  if (known?.version === version) {
    known.drop.refresh();
    return known.facts;
  }
  if (known) clearTimeout(known.drop);
  const facts = selectOfferFacts(database, deps.clock());
  const drop = setTimeout(() => kept.delete(database), KEPT_MS).unref();
  const mine = { version, facts, drop };
  kept.set(database, mine);
  // What failed is not kept: the next one tries again.
  facts.catch(() => kept.get(database) === mine && kept.delete(database));
  return facts;
}

/** The saved view by which assumptions make their groups; `null` where they go by something else, or it is no longer there. */
export async function viewOf(db: Queryable, { grouping, viewId }: Assumptions): Promise<LedgerView | null> {
  if (grouping !== 'view') return null;
  const found = (await selectViews(db)).find(({ id }) => id === viewId);
  return found ? viewFromQuery(new URLSearchParams(found.query)) : null;
}

/** What names are judged by as the office has said it. */
export async function officeValuing(deps: Deps, today: LedgerDay): Promise<Valuing> {
  const { assumptions } = today.projection.index.rules;
  const [facts, view] = await Promise.all([offerFacts(deps), viewOf(deps.database, assumptions)]);
  return valuing(today, { facts, assumptions, view });
}
