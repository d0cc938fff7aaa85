'use client';
import { type Dispatch, type SetStateAction, useCallback, useEffect, useMemo, useRef } from 'react';
import {
  applyRule,
  FRESH_TERMS,
  type ListingKind,
  type PricedName,
  type PriceName,
  type PriceRule,
  type soldAt,
} from '@/core/selling';
import { report } from '@/ui/overlay/Toasts';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { namesWords } from '@/ui/text/words';
import type { PricingView } from '@/usecases/selling/pricing';
import { useLedger } from '../../frame/LedgerProvider';
import { RulePart } from './RulePart';
import { SameForAll } from './SameForAll';
import { TermsRow } from './TermsRow';
import type { useDrafts } from './useDrafts';

interface Controls {
  /** The chosen names. */
  readonly ids: readonly number[];
  readonly work: ReturnType<typeof useDrafts>;
  readonly at: ReturnType<typeof soldAt>;
  readonly currency: string;
  readonly onCurrency: (code: string) => void;
  readonly onMarketplace: (id: number | null) => void;
  readonly pricing: PricingView;
}

/** What is set for all chosen names at once. Not drawn anew while prices are typed. */
export function useControls({ ids, work, at, currency, onCurrency, onMarketplace, pricing }: Controls) {
  const { homeCurrency } = useLedger();
  const { drafts, edit, canUndo, undo, change, setCurrency: setDraftCurrency } = work;
  const latest = useRef(drafts);
  useEffect(() => {
    latest.current = drafts;
  }, [drafts]);
  const kindsKey = [...new Set(ids.flatMap((nameId) => drafts.get(nameId)?.kind ?? []))].join(';');
  const auctionDays =
    ids.map((nameId) => drafts.get(nameId)).find((one) => one?.kind === 'auction')?.auctionDays ??
    FRESH_TERMS.auctionDays;
  return useMemo(() => {
    const kinds = kindsKey.split(';') as ListingKind[];
    const currencies = at.marketplace?.currencies ?? [];
    const byRule = (price: PriceName, rule: PriceRule) => {
      const { drafts: next, set } = applyRule(latest.current, ids, price, rule, currency, pricing);
      change(() => next);
      report({
        text: `${PRICE_WORDS[price]} set for ${namesWords(set)}.${set < ids.length ? ` ${namesWords(ids.length - set)} kept theirs: the base is not known.` : ''}`,
      });
    };
    return (
      <>
        <TermsRow
          kinds={kinds}
          currencies={currencies.length > 0 ? currencies : [homeCurrency, 'USD', 'EUR', 'GBP']}
          auctionDays={auctionDays}
          onMarketplace={onMarketplace}
          onCurrency={(code) => {
            onCurrency(code);
            setDraftCurrency(code);
          }}
          onTerms={(terms) => edit(ids, () => terms)}
        />
        <RulePart kinds={kinds} onRule={byRule} canUndo={canUndo} onUndo={undo} />
        <SameForAll kinds={kinds} onEdit={(part) => edit(ids, part)} />
      </>
    );
  }, [
    kindsKey,
    auctionDays,
    ids,
    at,
    currency,
    homeCurrency,
    canUndo,
    undo,
    edit,
    change,
    setDraftCurrency,
    onCurrency,
    onMarketplace,
    pricing,
  ]);
}

/** Choosing one name or all of them. */
export function useChoose(names: readonly PricedName[], setChosen: Dispatch<SetStateAction<ReadonlySet<number>>>) {
  return useCallback(
    (nameId: number | 'all', isChosen: boolean) =>
      setChosen((now) => {
        if (nameId === 'all') return new Set(isChosen ? names.map((name) => name.nameId) : []);
        const next = new Set(now);
        if (isChosen) next.add(nameId);
        else next.delete(nameId);
        return next;
      }),
    [names, setChosen],
  );
}
