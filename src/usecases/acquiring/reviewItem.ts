import type { OutcomeKind, Spelling, TypedPiece } from '@/core/acquiring';
import type { RuleIndex } from '@/core/ledger';
import type { Amount } from '@/core/money';
import type { Day, Instant } from '@/core/time';
import type { AccountRow } from '@/database/accounts';
import type { WantedRow } from '@/database/wanted';
import type { ConfirmedAddresses } from './addresses';

/** What registering a name costs, and who says so. */
export interface ReviewPrice {
  readonly total: Amount;
  /** In the office's currency, where that is another and a rate is known. */
  readonly home: Amount | null;
  readonly by: 'link' | 'list';
  /** The lines that make it, minor units of its currency; `null` where only the sum was told. */
  readonly fee: number | null;
  readonly tax: number | null;
  /** What each later term of the same years costs, where a link told it; else by the list for a year. */
  readonly renewal: Amount | null;
  readonly isOwnPrice: boolean;
  /** What the first price is bound to, in words. */
  readonly condition: string | null;
  /** What the price list says, where the link says another sum. */
  readonly listed: Amount | null;
}

/** One name of a review: spelt out, where, for how long, for how much, and what follows. */
export interface ReviewItem {
  readonly wanted: WantedRow;
  readonly spelling: Spelling;
  readonly meant: readonly { readonly piece: string; readonly meant: string }[];
  /** Where it differs from what was typed first, letter by letter; one piece where it does not. */
  readonly beside: readonly TypedPiece[];
  /** Accounts that sell it by their price lists. */
  readonly accountIds: readonly number[];
  readonly accountId: number | null;
  readonly years: number;
  readonly terms: readonly number[];
  readonly autoRenew: boolean;
  readonly privacy: boolean;
  readonly nameServers: string;
  /** `null`: no price could be had. */
  readonly price: ReviewPrice | null;
  readonly privacyPrice: Amount | null;
  readonly kind: OutcomeKind | 'ours';
  /** What stands against it, in words; empty where nothing does. */
  readonly problem: string;
  readonly newEnd: Instant;
  readonly refundUntil: Instant | null;
  readonly holder: string | null;
  readonly holderMail: string | null;
  /** By when its holder's mail has to be confirmed; `null` where it is confirmed at that account. */
  readonly confirmMailBy: Instant | null;
}

/** What a review is made from. */
export interface Known {
  readonly index: RuleIndex;
  readonly accounts: ReadonlyMap<number, AccountRow>;
  readonly isConfirmed: ConfirmedAddresses;
  readonly at: Instant;
  readonly day: Day;
}
