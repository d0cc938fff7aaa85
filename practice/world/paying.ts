import { monthOf } from './calendar';
import type { Action, Customer, Domain, Ms, Promotion, Registrar } from './types';

/** What a registrar asks for one action on a name: price of the years, less a promotion, plus tax. `null`: not sold here. */
export function asked(
  registrar: Registrar,
  name: { readonly ending: string; readonly premiumMinor: number | null },
  action: Action,
  years: number,
  promotion: Promotion | null = null,
): number | null {
  const year = name.premiumMinor ?? registrar.prices[name.ending]?.[action] ?? null;
  if (year === null) return null;
  const plain = action === 'restore' ? year + (asking(registrar, name, 'renew') ?? 0) : year * years;
  const less = promotion ? Math.round((plain * promotion.percent) / 100) : 0;
  return Math.round((plain - less) * (1 + registrar.taxPercent / 100));
}

function asking(
  registrar: Registrar,
  name: { readonly ending: string; readonly premiumMinor: number | null },
  action: Action,
) {
  return name.premiumMinor ?? registrar.prices[name.ending]?.[action] ?? null;
}

/** The promotion that a code stands for, if it holds for this act. */
export function promotionFor(
  registrar: Registrar,
  code: string,
  act: { readonly action: Action; readonly ending: string; readonly years: number; readonly at: Ms },
): Promotion | null {
  return (
    registrar.promotions.find(
      (one) =>
        one.code === code &&
        one.actions.includes(act.action) &&
        one.endings.includes(act.ending) &&
        act.years <= one.mostYears &&
        act.at < one.until,
    ) ?? null
  );
}

export type Paid = { readonly paymentMethod: string } | { readonly failure: string };

/**
 * Takes an amount out of the first payment method that can bear the whole of it, or out of the one that was named. Cards are good through the
 * last day of their month.
 */
export function takeMoney(customer: Customer, amountMinor: number, at: Ms, payBy: string | null = null): Paid {
  let failure = 'no payment method';
  for (const method of customer.paymentMethods) {
    if (payBy !== null && method.label !== payBy) continue;
    if (method.kind === 'balance') {
      if (customer.balanceMinor >= amountMinor) {
        customer.balanceMinor -= amountMinor;
        return { paymentMethod: method.label };
      }
      if (failure === 'no payment method') failure = 'balance too small';
    } else if (method.endsMonth === null || monthOf(at) <= method.endsMonth) {
      return { paymentMethod: method.label };
    } else {
      failure = `card ended ${method.endsMonth}`;
    }
  }
  return { failure };
}

/** Years that an automatic charge buys for a name. */
export function chargedYears(
  registrar: Registrar,
  domain: Domain,
  rules: { leastYears: number; stepYears: number },
): number {
  const wanted = registrar.yearsPerCharge === 'as bought' ? domain.boughtYears : registrar.yearsPerCharge;
  let years = rules.leastYears;
  while (years < wanted) years += rules.stepYears;
  return years;
}
