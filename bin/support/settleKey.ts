import type { Database } from '../../src/database/pool';
import { type Resealed, sealAnew } from '../../src/usecases/secrets/keys';
import { keyFrom, type SealKey } from '../../src/usecases/secrets/seal';
import { isRotating, nextKey, ownKey, takeNextKey } from './home';

/** The key of this installation. A change of it that was begun is carried through first; what is sealed the old way is sealed anew, in every ledger. */
export async function settleKey(databases: readonly Database[], isAsked: boolean): Promise<string> {
  const text = process.env.NAME_LEDGER_KEY ?? ownKey();
  const old = process.env.NAME_LEDGER_OLD_KEY;
  if (isAsked && process.env.NAME_LEDGER_KEY && !old)
    throw new Error('Set NAME_LEDGER_KEY to the new key and NAME_LEDGER_OLD_KEY to the one before, then start again.');
  const key = keyFrom(text) as SealKey;
  if (old) {
    for (const database of databases) tell(await sealAnew({ database }, keyFrom(old) as SealKey, key));
    return text;
  }
  if (!process.env.NAME_LEDGER_KEY && (isAsked || isRotating())) {
    const next = nextKey();
    for (const database of databases) tell(await sealAnew({ database }, key, keyFrom(next) as SealKey));
    takeNextKey();
    return next;
  }
  for (const database of databases) await sealAnew({ database }, key, key);
  return text;
}

function tell({ resealed, left }: Resealed): void {
  console.log(`Sealed ${resealed} ${resealed === 1 ? 'secret' : 'secrets'} with the new key.`);
  if (left.length > 0) console.error(`Neither key opens: ${left.map(({ label }) => label).join(', ')}.`);
}
