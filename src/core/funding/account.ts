export const PAYMENT_METHOD_KINDS = ['balance', 'card', 'wallet', 'bank'] as const;
export type PaymentMethodKind = (typeof PAYMENT_METHOD_KINDS)[number];

/** One way an account pays, tried in the account's order. */
export interface PaymentMethod {
  readonly kind: PaymentMethodKind;
  readonly label: string;
  /** `YYYY-MM`: a card is good through the last day of this month. `null` for no end date. */
  readonly endsMonth: string | null;
}

/** The rules and state by which a registrar account is charged. */
export interface FundedAccount {
  readonly currency: string;
  /** Days before a term's end at which the registrar charges. */
  readonly leadDays: number;
  readonly yearsPerCharge: number;
  /** Days before the term's end at which a failed charge is tried again. */
  readonly retryDays: readonly number[];
  readonly paymentMethods: readonly PaymentMethod[];
  /** The balance as last known, minor units of `currency`; `null` when nobody has said. */
  readonly balanceMinor: number | null;
}

/** What a registrar does by itself at the end of a term. `stalled`: a charge failed and it waits for the owner. */
export const AUTO_RENEW_SETTINGS = ['on', 'off', 'stalled', 'unknown'] as const;
export type AutoRenewSetting = (typeof AUTO_RENEW_SETTINGS)[number];

/** How far the ledger knows a setting: believed without evidence, requested of the registrar, confirmed by it. */
export const STANDINGS = ['believed', 'requested', 'confirmed'] as const;
export type Standing = (typeof STANDINGS)[number];
