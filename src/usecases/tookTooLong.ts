import { type Refusal, refuse } from '@/core/refusal';
import { moveImport } from '@/database/imports';
import type { Deps } from './deps';
import { tookTooLong } from './thread';

const TOO_LONG = refuse(
  'took-too-long',
  'Reading this list took longer than two minutes, so it was given up and nothing was written. Split it, and bring the parts one after the other.',
);

/** The same of a forecast. */
const PLAYED_TOO_LONG = refuse(
  'took-too-long',
  'Playing these paths took longer than two minutes, so it was given up. Ask for fewer paths, or fewer strategies.',
);

/** What a forecast came to, or that it was given up. */
export const orPlayedTooLong = <T>(work: Promise<T>) => orTookTooLong(work, PLAYED_TOO_LONG);

/** What long work came to, or that it was given up. */
export async function orTookTooLong<T>(work: Promise<T>, refusal: Refusal = TOO_LONG): Promise<T | Refusal> {
  try {
    return await work;
  } catch (error) {
    if (tookTooLong(error)) return refusal;
    throw error;
  }
}

/** The same for an import that is there already: it is noted as failed, so that nothing waits for it. */
export async function orImportFails<T>(deps: Deps, id: string, work: Promise<T>): Promise<T | Refusal> {
  const done = await orTookTooLong(work);
  if (done === TOO_LONG)
    await moveImport(deps.database, id, { status: 'failed', problem: TOO_LONG.message }, ['reading']);
  return done;
}
