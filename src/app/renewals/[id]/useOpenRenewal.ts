'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { readPercent, sumByCurrency } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import { numberText } from '@/ui/text/figures';
import type { OpenRenewal } from '@/usecases/orders/plan';
import type { QuotedItem, RenewalQuote } from '@/usecases/orders/quote';
import { changeRenewalAction, moveRenewalAction, payRunByAction } from '../actions';

/** What changes the price of a whole run, as it is typed. */
export interface RunTerms {
  readonly code: string;
  readonly percent: string;
  readonly tax: string;
}

/** A run while it is planned: its terms, and what changes them. */
export function useOpenRenewal(first: OpenRenewal) {
  const router = useRouter();
  const [open, setOpen] = useState(first);
  const [terms, setTerms] = useState<RunTerms>(() => termsOf(first));
  const [refused, setRefused] = useState<Refusal | null>(null);
  const newest = useRef(0);
  const { renewal, quote } = open;

  /** Asks for other years of some names, or for the terms as they are typed now. */
  const change = async (years: ReadonlyMap<number, number> = new Map()) => {
    newest.current += 1;
    const mine = newest.current;
    const asked = readTerms(terms);
    if (isRefusal(asked)) {
      setRefused(asked);
      return;
    }
    const items = quote.items.map(({ nameId, years: now }) => ({ nameId, years: years.get(nameId) ?? now }));
    const answer = await changeRenewalAction(renewal.id, { items, ...asked });
    if (mine !== newest.current) return;
    setRefused(isRefusal(answer) ? answer : null);
    if (!isRefusal(answer)) setOpen(answer);
  };

  const payBy = async (accountId: number, paymentMethod: string | null) => {
    const answer = await payRunByAction({
      id: renewal.id,
      accountId,
      ...(paymentMethod === null ? {} : { paymentMethod }),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (!isRefusal(answer)) setOpen(answer);
  };

  /** Notes that the person has the steps to be done by hand. */
  const request = async () => {
    const answer = await moveRenewalAction(renewal.id, 'requested');
    if (answer) report({ text: answer.message, problem: true });
    else setOpen({ ...open, renewal: { ...renewal, status: 'requested' } });
  };

  const discard = async () => {
    const answer = await moveRenewalAction(renewal.id, 'dropped');
    if (answer) report({ text: answer.message, problem: true });
    else router.push('/ledger');
  };

  return { renewal, quote, terms, setTerms, refused, change, payBy, request, discard };
}

function termsOf({ renewal: { promotion, taxPercent } }: OpenRenewal): RunTerms {
  return {
    code: promotion?.code ?? '',
    percent: promotion?.percent == null ? '' : numberText(promotion.percent),
    tax: taxPercent === null ? '' : numberText(taxPercent),
  };
}

/** The typed terms as a request has them, or which of them cannot be read. */
function readTerms({ code, percent, tax }: RunTerms): object | Refusal {
  const off = percent.trim() === '' ? null : readPercent(percent);
  if (isRefusal(off)) return { ...off, field: 'promotion.percent' };
  const added = tax.trim() === '' ? null : readPercent(tax);
  if (isRefusal(added)) return { ...added, field: 'taxPercent' };
  const named = code.trim();
  return {
    ...(named === '' && off === null
      ? {}
      : { promotion: { ...(named === '' ? {} : { code: named }), ...(off === null ? {} : { percent: off }) } }),
    ...(added === null ? {} : { taxPercent: added }),
  };
}

/** A part of a quote by itself, with its own totals. */
export function partOf(quote: RenewalQuote, keep: (item: QuotedItem) => boolean): RenewalQuote {
  const items = quote.items.filter(keep);
  const possible = items.filter((item) => item.refusal === null);
  return {
    ...quote,
    items,
    accounts: quote.accounts.filter(({ account }) => possible.some((item) => item.accountId === account.id)),
    totals: sumByCurrency(possible.flatMap((item) => item.total ?? [])),
  };
}

/** The terms of all names that can be bought for so many years. */
export function takenFor(quote: RenewalQuote, years: number): Map<number, number> {
  return new Map(
    quote.items.flatMap(({ nameId, mostYears, leastYears, stepYears }) =>
      mostYears !== null && years <= mostYears && years >= leastYears && (years - leastYears) % stepYears === 0
        ? [[nameId, years] as const]
        : [],
    ),
  );
}
