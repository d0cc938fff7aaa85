import { transaction } from '@/database/pool';
import {
  dropOpenCodes,
  SEALED_BY_SHOP,
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
  const other = await Promise.all(
    rows.map(async (row) => {
      const by = keyOf(key, row);
      const id = sealedWith(row.sealed);
      const opens = id === (await by.id()) || (id === null && (await unseal(by, row.place, row.sealed)) !== null);
      return opens ? [] : [row];
    }),
  );
  return other.flat().map(({ kind, id, label }) => ({ kind, id, label }));
}

/** The key that something is sealed with. */
const keyOf = (key: SealKey, { kind }: Pick<SealedRow, 'kind'>): SealKey =>
  SEALED_BY_SHOP.has(kind) ? key.forShop() : key;

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
    const left: OtherKey[] = [];
    let resealed = 0;
    for (const row of await selectSealed(tx)) {
      const [before, after] = [keyOf(from, row), keyOf(to, row)];
      if (sealedWith(row.sealed) === (await after.id())) continue;
      const text = (await unseal(before, row.place, row.sealed)) ?? (await unseal(after, row.place, row.sealed));
      if (text === null) {
        left.push({ kind: row.kind, id: row.id, label: row.label });
        continue;
      }
      await updateSealed(tx, row, await seal(after, row.place, text));
      resealed += 1;
    }
    const open = await selectOpenCodes(tx);
    for (const { id, code } of open)
      await updateSealed(tx, { kind: 'sale', id }, await seal(to, sealPlace.sale(id), code));
    if (open.length > 0) await dropOpenCodes(tx);
    return { resealed: resealed + open.length, left };
  });
}
