import { Type } from 'class-transformer';
import { IsInt } from 'class-validator';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { emptyTables } from '@/database/backup';
import { hasNames, selectNameCount } from '@/database/names';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';

/** Whether anything has been put into the ledger yet. */
export function holdsNames(deps: Deps): Promise<boolean> {
  return hasNames(deps.database);
}

export class EmptyRequest {
  /** How many names are lost by it, as the person has typed it. */
  @Type(() => Number)
  @IsInt({ message: 'Write the number of names.' })
  names!: number;
}

/**
 * Takes everything out of the ledger that belongs to its names: names, money, history, accounts, prices, offers, sales. What the
 * office has set, the policies and the rates stay. Refused unless the number of names is said; answers it.
 */
export const emptyLedger = command('emptyLedger', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(EmptyRequest, input);
  if (isRefusal(request)) return request;
  return changing(deps, async (tx) => {
    const names = await selectNameCount(tx);
    if (names !== request.names)
      return refuse('names-not-said', `The ledger holds ${names} names. Write that number to empty it.`, 'names');
    await emptyTables(tx);
    return names;
  });
});
