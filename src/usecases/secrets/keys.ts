import { transaction } from '@/database/pool';
import {
  dropOpenCodes,
  type SealedRow,
  sealPlace,
  selectOpenCodes,
  selectSealed,
  updateSealed,
} from '@/database/secrets';
import type { Deps } from '../deps';
import { type SealKey, seal, sealedWith, unseal } from './seal';

/** A place whose password this installation cannot open, because another key sealed it. */
export type OtherKey = Pick<SealedRow, 'kind' | 'id' | 'label'>;

/** Everything that was sealed with another key: its links stand still until the login is typed again, or the key is put back. */
export async function sealedWithOtherKey(deps: Deps): Promise<OtherKey[]> {
  const rows = await selectSealed(deps.database);
  const { key } = deps;
  if (!key) return rows;
  const own = await key.id();
  const other = await Promise.all(
    rows.map(async (row) => {
      const id = sealedWith(row.sealed);
      const opens = id === own || (id === null && (await unseal(key, row.place, row.sealed)) !== null);
      return opens ? [] : [row];
    }),
  );
  return other.flat().map(({ kind, id, label }) => ({ kind, id, label }));
}

/** What came of sealing anew. */
export interface Resealed {
  readonly resealed: number;
  /** What `from` could not open either: it stays as it is. */
  readonly left: readonly OtherKey[];
}

/**
 * Seals everything anew with `to`, which `from` opens: after a change of the key, or of the way of sealing. All in one
 * transaction; what is sealed with `to` already is left alone, so it may be done again after a crash.
 */
export async function sealAnew(deps: Pick<Deps, 'database'>, from: SealKey, to: SealKey): Promise<Resealed> {
  return transaction(deps.database, async (tx) => {
    const own = await to.id();
    const left: OtherKey[] = [];
    let resealed = 0;
    for (const row of await selectSealed(tx)) {
      if (sealedWith(row.sealed) === own) continue;
      const text = (await unseal(from, row.place, row.sealed)) ?? (await unseal(to, row.place, row.sealed));
      if (text === null) {
        left.push({ kind: row.kind, id: row.id, label: row.label });
        continue;
      }
      await updateSealed(tx, row, await seal(to, row.place, text));
      resealed += 1;
    }
    const open = await selectOpenCodes(tx);
    for (const { id, code } of open)
      await updateSealed(tx, { kind: 'sale', id }, await seal(to, sealPlace.sale(id), code));
    if (open.length > 0) await dropOpenCodes(tx);
    return { resealed: resealed + open.length, left };
  });
}
