import type { Amount } from '@/core/money';
import type { Instant } from '@/core/time';
import type { RestoreReport, TransferOp } from '@/formats/epp/commands';
import type { PendingResult, RegistrarEvent } from '@/formats/epp/messages';
import type { Availability, Created } from '@/formats/epp/registering';
import type { FeeQuote, HeldName, HoldingPage, Renewed, Taken } from '@/formats/epp/responses';
import type { TransferState } from '@/formats/epp/transfers';

export type { RestoreReport, TransferOp } from '@/formats/epp/commands';
export type { Availability, Created } from '@/formats/epp/registering';
export type { FeeQuote, HeldName, HoldingPage, Renewed, Taken } from '@/formats/epp/responses';
export type { TransferState } from '@/formats/epp/transfers';

/**
 * What came of an order: done; pending until a message of the registrar settles it; refused for a reason; or unknown, when
 * no answer came and nobody can say whether it was carried out.
 */
export type Outcome<T> =
  | { readonly kind: 'done'; readonly value: T; readonly svTRID: string | null }
  | { readonly kind: 'pending'; readonly svTRID: string | null }
  | { readonly kind: 'refused'; readonly code: number; readonly reason: string }
  | {
      readonly kind: 'unknown';
      readonly cause: string;
      /** Whether the order may have reached the registrar. */
      readonly sent: boolean;
    };

/** A renewal as it is ordered. `curExpDate` guards it: where the term ends on another day, nothing is renewed. */
export interface RenewalOrder {
  readonly name: string;
  readonly curExpDate: string;
  readonly years: number;
  /** The most that may be taken; `null` leaves it to the registrar. */
  readonly fee: Amount | null;
  readonly promotion?: string | null;
  /** The payment method that is to pay; `null` for the account's usual order. */
  readonly payBy?: string | null;
}

/** Values that are set, whatever they were: sending them again harms nothing. */
export interface NameSettings {
  readonly auto?: 'on' | 'off';
  readonly lock?: boolean;
  readonly privacy?: boolean;
  /** Name servers that come to those that are there, and that go. */
  readonly nameServers?: { readonly add: readonly string[]; readonly remove: readonly string[] };
  /** A text that is put into its zone besides those that are there. */
  readonly text?: string;
  /** The customer of the same registrar that the name is handed to. */
  readonly pushTo?: string;
  /** The code by which another registrar may ask for it; `null` unsets it. */
  readonly authInfo?: string | null;
}

/** A transfer as it is asked for; the code and the fee only with a request. */
export interface TransferOrder {
  readonly name: string;
  readonly authInfo?: string | null;
  /** The most that may be taken; `null` leaves it to the registrar. */
  readonly fee?: Amount | null;
}

/** A name as it is to be registered. */
export interface CreateOrder {
  readonly name: string;
  readonly years: number;
  /** The most that may be taken; `null` leaves it to the registrar. */
  readonly fee: Amount | null;
  /** A code that nobody else knows. */
  readonly authInfo: string;
  readonly nameServers: readonly string[];
  readonly promotion: string | null;
  readonly payBy: string | null;
}

/** A message that has been read and not yet acknowledged. */
export interface RegistrarMessage {
  readonly id: string;
  readonly at: Instant | null;
  readonly text: string;
  /** What it says of a name, where it could be read. */
  readonly event: RegistrarEvent | null;
  /** How a transfer of a name stands. */
  readonly transfer: TransferState | null;
  /** What became of an order that was taken for later. */
  readonly settled: PendingResult | null;
  readonly raw: string;
}

/** One login at one registrar. Every order carries its own `id` (3 to 64 characters), chosen and stored before it is sent. */
export interface RegistrarLink {
  /** Connects and logs in; answers the registrar's own title. */
  test(): Promise<Outcome<string>>;
  /** Everything the login holds: names, balance, payment methods, and the registrar's rules. */
  holding(): Promise<Outcome<HoldingPage>>;
  /** A name of one’s own; with its code, that of another sponsor. */
  info(name: string, authInfo?: string): Promise<Outcome<HeldName>>;
  /** What an act would cost now for each name, for `years` where it buys any. */
  fees(
    action: 'renew' | 'restore' | 'transfer',
    names: readonly string[],
    years: number,
    currency: string,
    promotion: string | null,
  ): Promise<Outcome<FeeQuote[]>>;
  /** Whether names may be registered, and what `years` cost at first and later. Names the answer leaves out are not known. */
  check(names: readonly string[], years: number, currency: string): Promise<Outcome<Availability[]>>;
  /** Registers a name. Sent twice it would be refused the second time: it exists then. */
  create(order: CreateOrder, id: string): Promise<Outcome<Created>>;
  renew(order: RenewalOrder, id: string): Promise<Outcome<Renewed>>;
  /** Asks for a name in redemption to be restored, for at most `fee`: it is paid for then, and waits for its report. */
  requestRestore(name: string, fee: Amount | null, payBy: string | null, id: string): Promise<Outcome<Taken>>;
  reportRestore(name: string, report: RestoreReport, id: string): Promise<Outcome<true>>;
  /** Deletes a name. In its refundable days that refunds it. */
  remove(name: string, id: string): Promise<Outcome<Taken>>;
  /**
   * Asks for a transfer to this login, for at most `fee`, or after one, or answers one. That it is pending is an answer like another: its
   * state says so.
   */
  transfer(op: TransferOp, order: TransferOrder, id: string): Promise<Outcome<TransferState & Taken>>;
  change(name: string, settings: NameSettings, id: string): Promise<Outcome<true>>;
  topUp(money: Amount, key: string): Promise<Outcome<true>>;
  replaceCard(label: string, endsMonth: string): Promise<Outcome<true>>;
  /** Takes every waiting message: each is stored by `store` before it is acknowledged. Answers how many came. */
  poll(store: (message: RegistrarMessage) => Promise<void>): Promise<Outcome<number>>;
  close(): Promise<void>;
}

/** Where and as whom a link logs in. */
export interface LinkAddress {
  readonly host: string;
  readonly port: number;
  readonly login: string;
  readonly password: string;
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
}
