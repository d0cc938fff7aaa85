import type { LedgerRow, LedgerRules, Projection } from '@/core/ledger';
import { type Amount, formatDecimal } from '@/core/money';
import { formatInstant, formatTermEnd, type Instant } from '@/core/time';

/** An amount as other programs read it. */
export interface MoneyDocument {
  readonly amount: string;
  readonly currency: string;
}

export function moneyDocument(amount: Amount | null): MoneyDocument | null {
  return amount && { amount: formatDecimal(amount), currency: amount.currency };
}

const at = (instant: Instant | null) => (instant === null ? null : formatInstant(instant));
const PURPOSE_WORDS = { 'in use': 'use', hold: 'hold', 'for sale': 'sale', drop: 'drop' } as const;

/** One name as `/api/v1` shows it on a day. Instants are RFC 3339 UTC; `projected` says that the day lies ahead of today. */
export function nameDocument(row: LedgerRow, projection: Projection, asOf: Instant) {
  const { name, marks, deadline, termEnd, costs } = row;
  return {
    name: name.ascii,
    unicode: name.unicode,
    ending: name.ending,
    account: projection.index.accounts.get(name.accountId)?.label ?? null,
    registeredAt: at(name.registered?.at ?? null),
    expiresAt: at(termEnd?.at ?? null),
    expiresOn: termEnd?.precision === 'day' ? formatTermEnd(termEnd) : null,
    autoRenew: {
      setting: row.setting,
      standing: name.requested ? 'requested' : name.standing,
      since: at(name.settingSince),
      requested: name.requested,
    },
    purpose: PURPOSE_WORDS[name.purpose],
    neverLost: name.neverLost,
    lock: name.lock,
    privacy: name.privacy,
    tags: name.tags,
    notes: name.notes,
    asking: moneyDocument(name.asking),
    spent: name.spent.map(moneyDocument),
    asOf: formatInstant(asOf),
    projected: asOf > projection.asOf,
    phase: row.phase,
    marks: marks && {
      termEnd: formatInstant(marks.termEnd),
      deletion: formatInstant(marks.deletion),
      redemptionEnds: formatInstant(marks.redemptionEnd),
      release: formatInstant(marks.release),
      refundableUntil: at(marks.refundableUntil),
      auction: at(marks.auction),
      restoreReportDue: at(marks.restoreReportDue),
    },
    deadline: deadline && {
      at: formatInstant(deadline.at),
      kind: deadline.kind.replace(' ', '-'),
      now: moneyDocument(deadline.before),
      then: moneyDocument(deadline.after),
    },
    comingCharge: row.coming && {
      at: formatInstant(row.coming.at),
      years: row.coming.years,
      cost: moneyDocument(row.coming.cost),
      outcome: row.coming.outcome,
      assumed: row.coming.assumed,
      paymentMethod: row.coming.paymentMethod,
      cause: row.coming.cause?.kind ?? null,
    },
    costs: {
      perYear: moneyDocument(costs.perYear),
      renewal: moneyDocument(costs.renewal),
      restore: moneyDocument(costs.restore),
      restoreRuleOfThumb: costs.restoreRuleOfThumb,
    },
  };
}

export type NameDocument = ReturnType<typeof nameDocument>;

/** What the money of names rests on. */
export const NAMES_REST_ON =
  'prices, balances and cards as the ledger has them; a rule of thumb where restoreRuleOfThumb says so';

/** The label of an account by its number. */
export function accountLabels(rules: LedgerRules): (id: number) => string {
  const labels = new Map(rules.accounts.map((account) => [account.id, account.label]));
  return (id) => labels.get(id) ?? '';
}
