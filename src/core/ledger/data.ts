import type { AutoRenewSetting, FundedAccount, Standing } from '../funding';
import type { AccountWindow, ObservedPhase, Policy, RegistryFee } from '../lifecycle';
import type { Amount, Rate } from '../money';
import type { Assumptions } from '../odds';
import type { Price } from '../pricing';
import type { EppStatus } from '../records';
import type { Instant, TermEnd } from '../time';

export const PURPOSES = ['in use', 'hold', 'for sale', 'drop'] as const;
/** What a name is kept for. `drop`: it is meant to lapse, and nobody nags about it. */
export type Purpose = (typeof PURPOSES)[number];

/** What a registrar can be asked to switch on or off for a name. */
export const SWITCHES = ['auto-renew', 'lock', 'privacy'] as const;
export type Switch = (typeof SWITCHES)[number];

/** An account at a registrar, as far as the computation needs it. */
export interface LedgerAccount extends FundedAccount, AccountWindow {
  readonly id: number;
  readonly label: string;
  readonly registrar: string;
  readonly lateFeeMinor: number;
  /** Percent that the registrar adds to every price. */
  readonly taxPercent: number;
  /** How long the registrar may take to confirm a switch, in hours; `null` where nobody has said. */
  readonly switchHours: number | null;
  /** The registrar gives the money of a fresh registration back. */
  readonly refunds: boolean;
  /** The program can talk to the registrar itself; else everything there is done by hand. */
  readonly linked: boolean;
}

/** How long a registrar is left alone with a switch where nobody has said how long it takes, in hours: three days, by common practice. */
export const USUAL_SWITCH_HOURS = 72;

/** By how much a year the office expects an account's prices of an ending to rise, as a share. */
export interface PriceRise {
  readonly accountId: number;
  readonly ending: string;
  readonly yearly: number;
}

/** One name with everything the ledger shows of it. */
export interface LedgerName {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly accountId: number;
  readonly registered: TermEnd | null;
  readonly termEnd: TermEnd | null;
  readonly observed: ObservedPhase | null;
  readonly setting: AutoRenewSetting;
  readonly standing: Standing;
  readonly settingSince: Instant | null;
  /** What the registrar has been asked to change the setting to, and has not confirmed. */
  readonly requested: 'on' | 'off' | null;
  readonly requestedLock: 'on' | 'off' | null;
  readonly requestedPrivacy: 'on' | 'off' | null;
  /** What showed that the last charge failed: the registrar's message, or a list. */
  readonly stalledBy: string | null;
  /** Until when the holder has to confirm the mail address; the name stops working after it. */
  readonly confirmMailBy: Instant | null;
  readonly purpose: Purpose;
  readonly neverLost: boolean;
  readonly lock: boolean | null;
  readonly privacy: boolean | null;
  /** When it was transferred last, and when its holder changed last; `null` where nothing says so. */
  readonly transferred: TermEnd | null;
  readonly holderChanged: TermEnd | null;
  /** The lock after that change was waived before it. */
  readonly holderLockWaived: boolean;
  /**
   * When a year was last paid for that the registry had let stand by itself, or would: an automatic charge, or a renewal past the term.
   */
  readonly gracePaid: Instant | null;
  /** Statuses of its registration record when that was looked at last (RFC 5731, RFC 3915). */
  readonly statuses: readonly EppStatus[];
  readonly tags: readonly string[];
  readonly notes: string;
  readonly asking: Amount | null;
  /** Spent so far, one amount for each currency. */
  readonly spent: readonly Amount[];
  readonly checkedAt: Instant | null;
  /** What the owner decided about its rescue in this term, against the verdict. */
  readonly rescue: 'keep' | 'drop' | null;
  /** How likely the owner thinks a sale is, 0 to 1; `null` for the office's usual chance. */
  readonly saleChance: number | null;
  /** The best offer that somebody has made for it. */
  readonly bestOffer: Amount | null;
}

/** The rules and prices that the names are read by. */
export interface LedgerRules {
  readonly accounts: readonly LedgerAccount[];
  readonly policies: readonly Policy[];
  readonly fees: readonly RegistryFee[];
  readonly prices: readonly Price[];
  /** What currencies were worth in one another. */
  readonly rates: readonly Rate[];
  readonly homeCurrency: string;
  /** IANA time zone in which days are shown. */
  readonly zone: string;
  /** What is assumed of selling names. */
  readonly assumptions: Assumptions;
  readonly rises: readonly PriceRise[];
}
