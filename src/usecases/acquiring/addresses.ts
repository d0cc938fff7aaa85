import { Type } from 'class-transformer';
import { IsIn, IsInt, IsString, MaxLength } from 'class-validator';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Queryable } from '@/database/pool';
import {
  confirmHolderAddress,
  type HolderAddress,
  isHolderAddress,
  noteSentAgain,
  selectHolderAddresses,
  selectToConfirmWith,
} from '@/database/registrations';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';

export type { HolderAddress } from '@/database/registrations';

/** Every mail address of holders, with whether it is confirmed and what hangs on it. */
export function holderAddresses(deps: Deps): Promise<HolderAddress[]> {
  return selectHolderAddresses(deps.database);
}

/** Whether an address is confirmed at an account, in whatever letters it is written. */
export type ConfirmedAddresses = (accountId: number, address: string) => boolean;

/** The addresses that are confirmed, each at its account. */
export async function confirmedAddresses(db: Queryable): Promise<ConfirmedAddresses> {
  const key = (accountId: number, address: string) => `${accountId} ${address.toLowerCase()}`;
  const confirmed = new Set(
    (await selectHolderAddresses(db)).flatMap(({ accountId, address, confirmedAt }) =>
      confirmedAt === null ? [] : [key(accountId, address)],
    ),
  );
  return (accountId, address) => confirmed.has(key(accountId, address));
}

/** What a person says of a holder's mail address. */
export class TellAddress {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsString()
  @MaxLength(254)
  address!: string;

  @IsIn(['confirmed', 'sent again'])
  came!: 'confirmed' | 'sent again';
}

/** Takes down that an address was confirmed, and every name that hangs on it with it; or that the mail which asks for it was sent again. */
export const tellAddress = command('tellAddress', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const told = await readRequest(TellAddress, input);
  if (isRefusal(told)) return told;
  const { accountId, address, came } = told;
  return changing(deps, async (tx, { at, names }) => {
    if (!(await isHolderAddress(tx, told)))
      return refuse('address-unknown', 'This address is no longer there. Load the page again.');
    if (came === 'sent again') {
      await noteSentAgain(tx, accountId, address, at);
      return true as const;
    }
    const evidence = 'said by hand';
    await confirmHolderAddress(tx, accountId, address, evidence, at);
    const nameIds = await selectToConfirmWith(tx, [told]);
    if (nameIds.length > 0)
      await names(
        'edit',
        `The holder’s mail address is confirmed: ${address}`,
        nameIds.map((nameId) => ({ nameId, patch: { confirm_mail_by: null }, evidence })),
      );
    return true as const;
  });
});
