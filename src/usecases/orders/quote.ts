import type { AutoRenewSetting, FundedAccount } from '@/core/funding';
import type { LedgerAccount, Projection } from '@/core/ledger';
import { pricingOf, restoreCostOf, rowsOn } from '@/core/ledger';
import { greatestTerm, type Phase, policyFor, refuseAction, renewedEnd, restoredEnd } from '@/core/lifecycle';
import { type Amount, sumByCurrency } from '@/core/money';
import { type Cost, renewalCost } from '@/core/pricing';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, type Instant, type TermEnd } from '@/core/time';
import type { PromotionWords } from '@/database/renewals';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { readRequest } from '../validate';
import { QuoteRenewal } from './requests';

/** What renewing one name would do and cost, or why it cannot be done. */
export interface QuotedItem {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly accountId: number;
  readonly phase: Phase | null;
  readonly setting: AutoRenewSetting;
  readonly years: number;
  /** The longest term that may be bought today, and the policy's step; `null` when none may. */
  readonly mostYears: number | null;
  readonly leastYears: number;
  readonly stepYears: number;
  readonly oldEnd: TermEnd | null;
  readonly newEnd: TermEnd | null;
  /** The last instant at which this can be done: the deletion for a renewal, the end of redemption for a restore. */
  readonly until: Instant | null;
  /** `null` when it is not known: no price, or no rate into its currency. */
  readonly cost: Cost | null;
  readonly lateFee: Amount | null;
  /** Cost and late fee together. */
  readonly total: Amount | null;
  /** What one more year costs later: without what is due once, a promotion or a late fee. */
  readonly laterYear: Amount | null;
  readonly refusal: Refusal | null;
}

/** A quote by account: what it comes to, against the balance as last known. */
export interface QuotedAccount {
  readonly account: Pick<LedgerAccount, 'id' | 'label' | 'registrar'> & FundedAccount;
  readonly totals: readonly Amount[];
}

export interface RenewalQuote {
  readonly action: 'renew' | 'restore';
  readonly items: readonly QuotedItem[];
  readonly accounts: readonly QuotedAccount[];
  readonly totals: readonly Amount[];
  readonly promotion: PromotionWords | null;
  /** What the person says of tax; `null` leaves it to each account. */
  readonly taxPercent: number | null;
}

/** Works out old end, new end and cost for each name and in total. Names that cannot be renewed say why and cost nothing. */
export async function quoteRenewal(deps: Deps, input: unknown): Promise<RenewalQuote | Refusal> {
  const request = await readRequest(QuoteRenewal, input);
  if (isRefusal(request)) return request;
  const projection = await projectedLedger(
    deps,
    request.items.map((item) => item.nameId),
  );
  const seen = new Set<number>();
  const items: QuotedItem[] = [];
  for (const { nameId, years } of request.items) {
    const place = projection.names.placeOf(nameId);
    if (place === undefined)
      return refuse('name-not-in-ledger', 'One of the names is no longer in the ledger. Load the page again.');
    if (seen.has(nameId)) continue;
    seen.add(nameId);
    items.push(quoteItem(projection, place, years, request));
  }
  const asked = items.filter((item) => item.refusal === null);
  const totals = (list: readonly QuotedItem[]) => sumByCurrency(list.flatMap((item) => item.total ?? []));
  const accounts = projection.index.rules.accounts.flatMap((account) => {
    const own = asked.filter((item) => item.accountId === account.id);
    return own.length === 0 ? [] : [{ account, totals: totals(own) }];
  });
  return {
    action: request.action ?? 'renew',
    items,
    accounts,
    totals: totals(asked),
    promotion: promotionOf(request),
    taxPercent: request.taxPercent ?? null,
  };
}

function quoteItem(projection: Projection, place: number, wanted: number, request: QuoteRenewal): QuotedItem {
  const action = request.action ?? 'renew';
  const years = action === 'restore' ? 1 : wanted;
  const { index, asOf } = projection;
  const row = rowsOn(projection, asOf)(place);
  const { name } = row;
  const policy = policyFor(name.ending, index.policies);
  const { least, step } = policy.terms.renew;
  const refusal =
    row.termEnd === null
      ? refuse('term-unknown', 'Set the end of the term first.', 'nameId')
      : row.phase === null || row.marks === null
        ? null
        : refuseAction(action, {
            phase: row.phase,
            marks: row.marks,
          });
  const newEnd =
    row.termEnd === null || refusal
      ? null
      : action === 'restore'
        ? restoredEnd(row.termEnd, row.marks?.deletion ?? asOf)
        : renewedEnd(row.termEnd, years, policy, asOf);
  const day = dayOf(asOf);
  const { promotion, taxPercent } = request;
  const isLate = row.phase === 'late';
  const pricing = pricingOf(index, name, day);
  const renewal =
    action === 'restore'
      ? null
      : renewalCost(pricing, {
          years,
          isLate,
          promotion:
            promotion?.percent === undefined
              ? null
              : { code: promotion.code ?? '', off: { kind: 'percent', percent: promotion.percent }, years: null },
          taxPercent: taxPercent ?? null,
        });
  const restore = action === 'restore' ? restoreCostOf(index, name, day, taxPercent ?? null) : null;
  return {
    nameId: name.id,
    ascii: name.ascii,
    unicode: name.unicode,
    accountId: name.accountId,
    phase: row.phase,
    setting: row.setting,
    years,
    mostYears: row.termEnd === null || action === 'restore' ? null : greatestTerm(row.termEnd, policy, asOf, 'renew'),
    leastYears: least,
    stepYears: step,
    oldEnd: row.termEnd,
    newEnd: isRefusal(newEnd) ? null : newEnd,
    until: (action === 'restore' ? row.marks?.redemptionEnd : row.marks?.deletion) ?? null,
    cost: renewal?.cost ?? restore,
    lateFee: renewal?.lateFee ?? null,
    total: renewal?.total ?? restore?.total ?? null,
    laterYear: renewalCost(pricing, { years: 1, taxPercent: taxPercent ?? null })?.total ?? null,
    refusal: refusal ?? (isRefusal(newEnd) ? newEnd : null),
  };
}

/** Plain values: what goes to a browser is never an instance of a class. */
function promotionOf({ promotion }: QuoteRenewal): PromotionWords | null {
  const { code = null, percent = null } = promotion ?? {};
  return code === null && percent === null ? null : { code, percent };
}
