import { randomBytes, randomUUID } from 'node:crypto';
import type { NameSettings, Outcome, RegistrarLink, Taken } from '@/connectors/registrar/port';
import { NOT_OURS } from '@/connectors/registrar/results';
import type { EntryKind } from '@/core/journal';
import type { MoveExit, MoveStage } from '@/core/moving';
import type { AccountRow } from '@/database/accounts';
import type { NamePatch } from '@/database/changes';
import type { TransferPatch, TransferRow } from '@/database/transfers';
import type { Deps } from '../deps';

/** The two accounts of a transfer, each with its link and the login it has there, where it has one. */
export interface Sides {
  /** `null` where it came by push. */
  readonly from: AccountRow | null;
  /** `null` where it goes to a buyer. */
  readonly to: AccountRow | null;
  readonly losing: RegistrarLink | null;
  readonly gaining: RegistrarLink | null;
  /** The login at the new account. */
  readonly login: string | null;
  /** Years that a transfer adds under the name’s ending. */
  readonly transferYears: number;
}

/** The sides of a transfer; `null` where one of its accounts is no longer there. */
export type SidesOf = (transfer: TransferRow) => Sides | null;

/** Money that went out for a transfer, or came back. */
export interface MoveEntry {
  readonly kind: Extract<EntryKind, 'transfer' | 'refund'>;
  readonly minor: number;
  readonly currency: string;
  readonly paymentMethod: string;
  readonly reference: string;
  readonly note: string;
  readonly quotedMinor: number | null;
}

/** What a step did to the name in the ledger, with what shows it. */
export interface LedgerEffect {
  readonly names?: NamePatch;
  readonly evidence?: string;
  readonly entry?: MoveEntry;
}

/** What a step came to for one transfer: it goes on, stays with what keeps it, or comes to nothing and goes back. */
export type Went =
  | {
      readonly kind: 'on';
      readonly to: MoveStage;
      /** What is to be known all the same. */
      readonly problem?: string | null;
      readonly patch?: TransferPatch;
      readonly ledger?: LedgerEffect;
    }
  | {
      readonly kind: 'stays';
      readonly problem: string | null;
      readonly patch?: TransferPatch;
      /** The account that did not answer: nothing more is asked of it in this pass. */
      readonly away?: number | null;
    }
  | { readonly kind: 'exit'; readonly exit: MoveExit; readonly problem: string; readonly patch?: TransferPatch };

/** One stage of a transfer and what takes it further. What it does at a registrar may be done again after a crash. */
export interface MoveStep<C = unknown> {
  readonly at: MoveStage;
  /** What all transfers at this stage need, read once. */
  prepare?(deps: Deps, transfers: readonly TransferRow[], sidesOf: SidesOf): Promise<C>;
  /** `null`: it is somebody else’s turn. */
  take(deps: Deps, transfer: TransferRow, sides: Sides, context: C): Promise<Went | null>;
}

export const stays = (problem: string | null, patch?: TransferPatch): Went => ({
  kind: 'stays',
  problem,
  ...(patch && { patch }),
});

/** What an answer means for a value that is set: it may be set again until it is answered. */
export function unlessSet(outcome: Outcome<unknown>, accountId: number | null, done: () => Went): Went {
  switch (outcome.kind) {
    case 'done':
      return done();
    case 'pending':
      return stays('The registrar has taken it and will do it later.');
    case 'refused':
      return stays(`The registrar says: ${outcome.reason}.`);
    case 'unknown':
      return { ...unanswered(outcome.cause), away: accountId };
  }
}

export function unanswered(cause: string): Extract<Went, { kind: 'stays' }> {
  return { kind: 'stays', problem: `The registrar cannot be reached (${cause}). It is tried again.` };
}

/** The money that a transfer took, with the quote beside it. */
export function entryOf(
  { currency, quotedMinor, ascii }: TransferRow,
  taken: NonNullable<Taken['taken']>,
  paymentMethod: string | null,
  receipt: string | null,
): MoveEntry {
  return {
    kind: 'transfer',
    minor: taken.minor,
    currency: taken.currency,
    paymentMethod: paymentMethod ?? '',
    reference: receipt ?? '',
    note: `transfer of ${ascii}`,
    quotedMinor: taken.currency === currency ? quotedMinor : null,
  };
}

/** 144 bits; RFC 9154 section 4.1 wants 128 at least, from a secure source. */
const CODE_BYTES = 18;

export const freshCode = () => randomBytes(CODE_BYTES).toString('base64url');

/**
 * Sets what is said of a name and unsets its code (RFC 9154 section 4.4); where a registrar does not take an empty one, a code that nobody
 * knows takes its place.
 */
export async function setWithoutCode(
  link: RegistrarLink,
  ascii: string,
  settings: NameSettings,
): Promise<Outcome<true>> {
  const unset = await link.change(ascii, { ...settings, authInfo: null }, `NL-${randomUUID()}`);
  if (unset.kind !== 'refused' || NOT_OURS.has(unset.code)) return unset;
  return link.change(ascii, { ...settings, authInfo: freshCode() }, `NL-${randomUUID()}`);
}
