import type { Buyers, Market } from '../marketplace/types';
import type { Ms } from './calendar';

/** Instants are whole milliseconds since 1970-01-01T00:00:00Z. Money is in minor units of a registrar's currency. */
export type { Ms } from './calendar';

export type Action = 'register' | 'renew' | 'transfer' | 'restore';

/** How long an ending's names stay in each state, in days, and what its terms may be. */
export interface EndingRules {
  readonly lateDays: number;
  readonly redemptionDays: number;
  readonly pendingDeleteDays: number;
  readonly restoreReportDays: number;
  readonly leastYears: number;
  readonly stepYears: number;
  /** Years that a transfer adds. */
  readonly transferYears: number;
  /** Days for which a name stays where it was registered or transferred to. */
  readonly fixedDays: number;
  /** Years from now that no term may run past. */
  readonly mostYears: number;
  /** What the registry does with a transfer that nobody answers. */
  readonly unanswered: 'approves' | 'cancels';
}

export interface Promotion {
  readonly code: string;
  readonly percent: number;
  readonly actions: readonly Action[];
  readonly endings: readonly string[];
  readonly mostYears: number;
  readonly until: Ms;
}

/** What a registrar of the practice world does by itself, and what it asks for. */
export interface Registrar {
  readonly id: string;
  readonly title: string;
  readonly currency: string;
  readonly leadDays: number;
  readonly lateDays: number;
  readonly lateFeeMinor: number;
  readonly auctionDay: number | null;
  readonly retryDays: readonly number[];
  /** Years that one automatic charge buys: a number, or as many as the name was last bought for. */
  readonly yearsPerCharge: number | 'as bought';
  /** Within so many days of a term's end, switching auto-renew on is paid for with a year at once. */
  readonly onNeedsPaymentDays: number | null;
  /** Hours until switching auto-renew off takes effect. */
  readonly offTakesHours: number;
  /** Days in which a fresh registration is deleted against its money; 0 for never. */
  readonly refundDays: number;
  readonly taxPercent: number;
  /** Asks the holder to confirm the mail address when a name has arrived by transfer. */
  readonly asksHolderAfterTransfer: boolean;
  /** Yearly price of hiding the holder; 0 is free. */
  readonly privacyMinor: number;
  /** Price of one year of each action, by ending. */
  readonly prices: Readonly<Record<string, Readonly<Record<Action, number>>>>;
  readonly promotions: readonly Promotion[];
}

export interface PracticePaymentMethod {
  readonly kind: 'balance' | 'card' | 'wallet' | 'bank';
  readonly label: string;
  /** `YYYY-MM`, the last month in which a card is good. */
  endsMonth: string | null;
}

/** One customer of a registrar: the login, and what it pays with. */
export interface Customer {
  readonly registrar: string;
  readonly login: string;
  readonly password: string;
  balanceMinor: number;
  paymentMethods: PracticePaymentMethod[];
  /** Ids of top-ups that were taken, so that none is taken twice. */
  topUps: string[];
}

export type DomainState = 'registered' | 'redemption' | 'pending restore' | 'pending delete';

export interface Domain {
  readonly name: string;
  readonly ending: string;
  registrar: string;
  /** Who has registered it: the office, or somebody else. */
  owner: 'office' | 'stranger';
  holder: string;
  readonly createdAt: Ms;
  paidThrough: Ms;
  state: DomainState;
  /** When the present state began. */
  since: Ms;
  deletedAt: Ms | null;
  auto: 'on' | 'off' | 'stalled';
  autoSince: Ms;
  /** The next attempt at an automatic charge, while one is to come; `null` once it has been made and failed for good. */
  attemptAt: Ms | null;
  failure: string | null;
  /** When auto-renew goes off, once that has been asked for. */
  offAt: Ms | null;
  /** The year that the registry let stand when the term before ended, until somebody renews it there: from when, and how many. */
  stands: { readonly from: Ms; readonly years: number } | null;
  /** Years it was last bought for. */
  boughtYears: number;
  /** Renewal price of its own, when it is a premium name. */
  premiumMinor: number | null;
  lock: boolean;
  privacy: boolean;
  nameServers: string[];
  authInfo: string;
  /** Until when the holder has to confirm the mail address; `null` when nothing is asked. */
  confirmMailBy: Ms | null;
  /** Does not work: the mail address was not confirmed in time. */
  hold: boolean;
  movedAt: Ms | null;
  /** When its code was set; it lapses some days later. `null` for one that was never set anew. */
  codeSetAt: Ms | null;
  /** A transfer that has been asked for and is acted on by the server when nobody answers. */
  transfer: PendingTransfer | null;
  /** How its last transfer stands, or ended. */
  lastTransfer: TransferRecord | null;
  /** The term whose end has been told already. */
  toldEnd: Ms | null;
  lastReceipt: { clTRID: string | null; svTRID: string; amountMinor: number; paymentMethod: string } | null;
  /** An order that was taken and is finished later, with its own id: a renewal, or (`wish` null) the registration itself. */
  forLater: { clTRID: string | null; wish: RenewOrder | null } | null;
}

/** A transfer that waits for its answer. */
export interface PendingTransfer {
  /** The registrar it goes to. */
  readonly to: string;
  readonly requestedAt: Ms;
  /** When the server acts by itself. */
  readonly passesAt: Ms;
  /** Its name servers stop when it has gone, and nobody has loaded its zone elsewhere. */
  losesZone?: boolean;
  /** What the losing side will answer by itself, and when. */
  answer?: { readonly at: Ms; readonly status: 'clientApproved' | 'clientRejected' };
  /** Who holds the name from then on, where that is somebody else. */
  readonly holder?: string;
  /** What the gaining registrar took for it: given back when it comes to nothing. */
  readonly paid?: { readonly minor: number; readonly clTRID: string | null; readonly receipt: Domain['lastReceipt'] };
}

/** A transfer in the words of RFC 5731 section 3.2.4. */
export interface TransferRecord {
  readonly status:
    | 'pending'
    | 'clientApproved'
    | 'clientRejected'
    | 'clientCancelled'
    | 'serverApproved'
    | 'serverCancelled';
  /** Logins: who asked, and who has to act or has acted. */
  readonly reID: string;
  readonly reDate: Ms;
  readonly acID: string;
  readonly acDate: Ms;
}

export type EventKind =
  | 'charged'
  | 'charge-failed'
  | 'switched-off'
  | 'lapsed'
  | 'deleted'
  | 'redemption-ended'
  | 'released'
  | 'auctioned'
  | 'restore-overdue'
  | 'transferred'
  | 'transfer-requested'
  | 'transfer-pending'
  | 'transfer-ended'
  | 'confirm-mail'
  | 'mail-confirmed'
  | 'suspended'
  | 'order-finished';

/** A message of a registrar to its customer, waiting in the queue of one login. */
export interface Message {
  readonly id: number;
  readonly registrar: string;
  readonly at: Ms;
  readonly kind: EventKind;
  readonly name: string;
  readonly text: string;
  readonly paidThrough: Ms;
  readonly amountMinor: number | null;
  readonly paymentMethod: string | null;
  /** The last instant to do what it asks for. */
  readonly until: Ms | null;
  /** How a transfer of the name stood when it was told. */
  readonly transfer?: (TransferRecord & { readonly exDate: Ms | null }) | null;
  readonly pending?: { readonly clTRID: string | null; readonly isDone: boolean } | null;
}

/** A renewal as it is ordered. */
export interface RenewOrder {
  readonly name: string;
  /** `YYYY-MM-DD`: the end as the orderer knows it. A different one renews nothing. */
  readonly curExpDate: string;
  readonly years: number;
  /** The most the orderer agrees to pay; `null` when none was said. */
  readonly feeMinor: number | null;
  readonly promotion: string | null;
  /** The payment method that is to pay; `null` for the usual order. */
  readonly payBy: string | null;
}

/** What was paid for: one line for each thing that money was taken for. */
export interface Receipt {
  readonly id: number;
  readonly registrar: string;
  readonly name: string;
  readonly at: Ms;
  readonly action: 'renew' | 'restore' | 'register' | 'transfer' | 'privacy' | 'refund';
  readonly years: number;
  readonly amountMinor: number;
  readonly paymentMethod: string;
  readonly clTRID: string | null;
  readonly svTRID: string;
}

/** Everything outside: one world, one clock. */
export interface World {
  now: Ms;
  readonly registrars: ReadonlyMap<string, Registrar>;
  readonly customers: Map<string, Customer>;
  readonly domains: Map<string, Domain>;
  /** Texts that owners have put into their zones. */
  readonly texts: Map<string, string[]>;
  /** Signed zones, and whether they show the key that their registry vouches for. */
  readonly signed: Map<string, 'stands' | 'broken'>;
  /** The marketplace. */
  market: Market;
  /** Who buys there. */
  buyers: Buyers;
  /** Mails that registrars have sent to holders: told by the mail server, not kept. */
  readonly holderMails: { readonly at: Ms; readonly to: string; readonly subject: string; readonly text: string }[];
  readonly messages: Message[];
  readonly receipts: Receipt[];
  nextId: number;
  /** What has changed since it was last stored. */
  touched: Touched;
  /** Says whether somebody else registers a name the moment it is free. */
  grabs: (domain: Domain) => boolean;
  /** Says whether somebody buys a late name at its auction. */
  readonly bids: (domain: Domain) => boolean;
}

export interface Touched {
  readonly domains: Set<string>;
  readonly customers: Set<string>;
  readonly messages: Message[];
  /** Ids of messages that their reader has acknowledged. */
  readonly acknowledged: number[];
  readonly receipts: Receipt[];
}
