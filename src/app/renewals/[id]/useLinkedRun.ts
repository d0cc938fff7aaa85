'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type Amount, amount, sumByCurrency } from '@/core/money';
import { type ItemState, STARTABLE } from '@/core/orders';
import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import type { QuotedItem, RenewalQuote } from '@/usecases/orders/quote';
import type { ItemProgress, ReportWords, RunProgress } from '@/usecases/orders/start';
import { useLedger } from '../../frame/LedgerProvider';
import {
  finishRunAction,
  leaveItemAction,
  priceRunAction,
  runProgressAction,
  sendReportsAgainAction,
  startRunAction,
  stopRunAction,
} from '../actions';
import type { ReportDraft } from './ReportForm';

const LOOK_AGAIN_MS = 700;

export interface LinkedRunProps {
  readonly id: string;
  readonly quote: RenewalQuote;
  readonly progress: RunProgress;
  /** What was certified last, for a restore. */
  readonly words: ReportWords | null;
  readonly onProgress: (progress: RunProgress) => void;
}

/** A name of the run with how far its order has come. */
export interface LinkedItem {
  readonly item: QuotedItem;
  readonly state: ItemProgress;
}

/** The part of a run that goes over links: how it stands, and what can be done with it. */
export function useLinkedRun({ id, quote, progress, words, onProgress }: LinkedRunProps) {
  const router = useRouter();
  const { reload } = useLedger();
  const isRestore = quote.action === 'restore';
  const [draft, setDraft] = useState<ReportDraft>({
    reason: words?.reason ?? '',
    other: words?.other ?? '',
    certified: false,
  });
  const items = linkedItems(quote, progress);
  const count = (...states: ItemState[]) => items.filter(({ state }) => states.includes(state.state)).length;
  const startable = items.filter(({ item, state }) => item.refusal === null && STARTABLE.includes(state.state));
  const startableKey = startable.map(({ item }) => item.nameId).join(' ');
  const startableIds = useMemo(() => startableKey.split(' ').filter(Boolean).map(Number), [startableKey]);
  const isUnderWay = count('waiting', 'sending', 'pending', 'reporting') > 0;
  const isBegun = isUnderWay || count('done', 'doubt', 'report refused') > 0;

  /** Shows how the run stands after an act, or why it was not done. */
  const took = (answer: RunProgress | Refusal) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else onProgress(answer);
  };
  const { isAsking, askPrices } = useLivePrices({ id, quote, isBegun, onProgress });

  useEffect(() => {
    if (!isUnderWay) return;
    const timer = setInterval(() => void runProgressAction(id).then(onProgress), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [id, isUnderWay, onProgress]);

  const isSettled = !isUnderWay && count('done') > 0;
  useEffect(() => {
    if (isSettled) void reload();
  }, [isSettled, reload]);

  /** Starts the run, or sends refused reports again: what was certified counts once. */
  const sent = async (work: () => Promise<number | Refusal>) => {
    const answer = await work();
    setDraft({ ...draft, certified: false });
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    onProgress(await runProgressAction(id));
  };
  return {
    items,
    count,
    startable,
    startableIds,
    costs: sumByCurrency(startable.flatMap((one) => liveAmount(one) ?? one.item.total ?? [])),
    isAsking,
    isRestore,
    isUnderWay,
    isBegun,
    draft,
    setDraft,
    askPrices,
    start: () => sent(() => startRunAction(id, isRestore ? draft : null)),
    reportAgain: () => sent(() => sendReportsAgainAction(id, draft)),
    stop: async () => took(await stopRunAction(id)),
    leave: async (nameId: number) => took(await leaveItemAction(id, nameId)),
    finish: async () => {
      const answer = await finishRunAction(id);
      if (isRefusal(answer)) report({ text: answer.message, problem: true });
      router.refresh();
    },
  };
}

interface LivePrices extends Pick<LinkedRunProps, 'id' | 'quote' | 'onProgress'> {
  /** A run that has begun is not priced anew. */
  readonly isBegun: boolean;
}

/** What registrars ask now for the names of a run: asked by itself, and again when something that makes the price changes. */
function useLivePrices({ id, quote, isBegun, onProgress }: LivePrices) {
  const [isAsking, setAsking] = useState(false);
  const askPrices = useCallback(async () => {
    setAsking(true);
    const answer = await priceRunAction(id);
    setAsking(false);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else onProgress(answer);
  }, [id, onProgress]);

  // Another term, promotion or tax has another price: it is asked for again before any sum is agreed to.
  const asksFor = JSON.stringify([
    quote.promotion,
    quote.taxPercent,
    quote.items.map(({ nameId, years }) => [nameId, years]),
  ]);
  const pricedFor = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for what the run asks for
  useEffect(() => {
    if (isBegun || pricedFor.current === asksFor) return;
    pricedFor.current = asksFor;
    void askPrices();
  }, [asksFor]);

  return { isAsking, askPrices };
}

export type LinkedRunState = ReturnType<typeof useLinkedRun>;

/** Each linked name of a run with how its order stands. */
export function linkedItems(quote: RenewalQuote, progress: RunProgress): LinkedItem[] {
  const own = new Map(progress.items.map((item) => [item.nameId, item]));
  return quote.items.flatMap((item) => {
    const state = own.get(item.nameId);
    return state ? [{ item, state }] : [];
  });
}

/** What the registrar asks for a name now; `null` where it was not asked or names no price. */
export function liveAmount({ item, state }: LinkedItem): Amount | null {
  const currency = state.liveCurrency ?? state.currency ?? item.total?.currency;
  return state.liveMinor === null || !currency ? null : amount(state.liveMinor, currency);
}

/** How many live prices differ from the price list. */
export function differingPrices(items: readonly LinkedItem[]): number {
  return items.filter((one) => {
    const live = liveAmount(one);
    const { total } = one.item;
    return live !== null && total !== null && (live.currency !== total.currency || live.minor !== total.minor);
  }).length;
}

/** Accounts that could not pay for want of money, with what is missing there, in minor units of their currency. */
export function unpaidAccounts(quote: RenewalQuote, items: readonly LinkedItem[]) {
  return quote.accounts.flatMap(({ account }) => {
    const short = items.filter(
      ({ item, state }) =>
        item.accountId === account.id && state.state === 'refused' && /^Not paid/.test(state.problem ?? ''),
    );
    const asked = short.flatMap((one) => liveAmount(one) ?? one.item.total ?? []);
    const minor = asked.reduce((sum, one) => sum + (one.currency === account.currency ? one.minor : 0), 0);
    return short.length === 0 || !account.paymentMethods.some(({ kind }) => kind === 'balance')
      ? []
      : [{ id: account.id, label: account.label, minor: Math.max(1, minor) }];
  });
}
