import { bySkeleton } from '@/core/acquiring';
import { selectRevision } from '@/database/ledger';
import { selectOwnLabels } from '@/database/names';
import type { Database } from '@/database/pool';
import type { Deps } from '../deps';

/** The names of one's own, as candidates are held against them. */
export interface OwnNames {
  /** In A-labels, and in U-labels. */
  readonly ascii: ReadonlySet<string>;
  readonly unicode: ReadonlySet<string>;
  /** Labels in their letters, without endings. */
  readonly labels: readonly string[];
  /** Names by what their labels are read as at a glance. */
  readonly skeletons: ReadonlyMap<string, readonly string[]>;
}

/** Kept for one state of the ledger: every candidate that is looked at asks for them. */
const kept = new WeakMap<Database, { readonly revision: number; readonly names: OwnNames }>();

/** The label in its letters. */
export const labelOf = (unicode: string) => unicode.slice(0, unicode.indexOf('.'));

/** The names of one's own, read once for each state of the ledger. */
export async function ownNames({ database }: Pick<Deps, 'database'>): Promise<OwnNames> {
  const revision = await selectRevision(database);
  const known = kept.get(database);
  if (known?.revision === revision) return known.names;
  const own = await selectOwnLabels(database);
  const unicode = new Set(own.map((one) => one.unicode));
  const names: OwnNames = {
    ascii: new Set(own.map((one) => one.ascii)),
    unicode,
    labels: own.map((one) => labelOf(one.unicode)),
    skeletons: bySkeleton(unicode),
  };
  kept.set(database, { revision, names });
  return names;
}
