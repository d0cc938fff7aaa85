import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectNameIds } from '@/database/names';
import type { Deps } from '../deps';

/** The ledger's numbers of names as somebody has written them, by what was written. Refused: what is no name, or none of the ledger's. */
export async function idsOfNames(
  { database }: Pick<Deps, 'database'>,
  written: readonly string[],
): Promise<ReadonlyMap<string, number> | Refusal> {
  const ascii = new Map<string, string>();
  for (const name of written) {
    const parsed = parseDomainName(name, { allowPrivateEndings: true });
    if (isRefusal(parsed)) return { ...parsed, field: 'name' };
    ascii.set(name, parsed.ascii);
  }
  if (ascii.size === 0) return new Map();
  const ids = await selectNameIds(database, [...ascii.values()]);
  const known = new Map<string, number>();
  for (const [name, label] of ascii) {
    const id = ids.get(label);
    if (id === undefined)
      return refuse('name-not-in-ledger', `${name.slice(0, 80)} is not in the ledger. Add it first.`, 'name');
    known.set(name, id);
  }
  return known;
}
