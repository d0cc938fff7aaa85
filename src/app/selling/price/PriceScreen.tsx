'use client';
import { useRouter } from 'next/navigation';
import {
  type Dispatch,
  type SetStateAction,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import styled from 'styled-components';
import { isRefusal } from '@/core/refusal';
import {
  applyRule,
  FRESH_TERMS,
  firstDrafts,
  type ListingKind,
  type PricedName,
  type PriceName,
  type PriceRule,
  priceDraft,
  soldAt,
  termsOf,
} from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { namesWords } from '@/ui/text/words';
import type { PricingView } from '@/usecases/selling/pricing';
import type { Listed } from '@/usecases/selling/sendListings';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { saveListingsAction } from '../actions';
import { NamePanel } from './NamePanel';
import { PriceRows } from './PriceRows';
import { Pricing } from './PricingContext';
import { RulePart } from './RulePart';
import { TermsRow } from './TermsRow';
import { useDrafts } from './useDrafts';
import { useScale } from './useScale';

const Layout = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 334px;
  flex: 1;
  min-height: 0;
  @media (max-width: 1180px) { grid-template-columns: minmax(0, 1fr); }
`;

const Work = styled.div`
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
  padding: 16px 14px 24px 26px;
`;

/** Where the listing begins: where it stands, else the first marketplace that can be listed at by its link. */
function firstMarketplace({ listings, marketplaces }: PricingView): number | null {
  return listings[0]?.marketplaceId ?? marketplaces.find(({ linkUrl, payoutSet }) => linkUrl && payoutSet)?.id ?? null;
}

/** Many names priced beside each other, each with its ladder, and listed. */
export function PriceScreen({ pricing, marketplaceId: first }: { pricing: PricingView; marketplaceId: number | null }) {
  const { homeCurrency } = useLedger();
  const { names, listings } = pricing;
  const [marketplaceId, setMarketplaceId] = useState(() => first ?? firstMarketplace(pricing));
  const [currency, setCurrency] = useState(() => listings[0]?.currency ?? homeCurrency);
  const work = useDrafts(() => firstDrafts(pricing, marketplaceId, currency));
  const { drafts, editOne, setPrice } = work;
  const [current, setCurrent] = useState(names[0]?.nameId ?? 0);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(() => new Set(names.map(({ nameId }) => nameId)));
  useTitle('Selling', `price and list ${namesWords(names.length)}`);

  const at = useMemo(() => soldAt(pricing, marketplaceId, currency), [pricing, marketplaceId, currency]);
  const scale = useScale(names, drafts, currency);
  const context = useMemo(
    () => ({ pricing, at, scale, onPrice: setPrice, onEdit: editOne }),
    [pricing, at, scale, setPrice, editOne],
  );
  const choose = useChoose(names, setChosen);
  const toMend = useMemo(
    () =>
      names.filter((name) => {
        const draft = drafts.get(name.nameId);
        return (
          chosen.has(name.nameId) && draft && priceDraft(name, draft, at, pricing).findings.some(({ stops }) => stops)
        );
      }).length,
    [names, drafts, chosen, at, pricing],
  );
  const about = names.find(({ nameId }) => nameId === current);
  // What stands beside the list may follow a moment later.
  const draft = useDeferredValue(drafts).get(current);
  const ids = useMemo(() => [...chosen], [chosen]);
  const controls = useControls({
    ids,
    work,
    at,
    currency,
    onCurrency: setCurrency,
    onMarketplace: setMarketplaceId,
    pricing,
  });
  const { busy, save } = useSave(
    pricing,
    marketplaceId,
    () => ids.flatMap((id) => (drafts.has(id) ? [id] : [])),
    drafts,
  );
  return (
    <Pricing value={context}>
      <Layout>
        <Work>
          {controls}
          <PriceRows drafts={drafts} current={current} chosen={chosen} onCurrent={setCurrent} onChoose={choose} />
          <SaveRow
            names={ids.length}
            toMend={toMend}
            where={at.marketplace?.label ?? null}
            isBusy={busy}
            onSave={(send) => void save(send)}
          />
        </Work>
        {about && draft && <NamePanel key={about.nameId} name={about} draft={draft} />}
      </Layout>
    </Pricing>
  );
}

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
function useControls({ ids, work, at, currency, onCurrency, onMarketplace, pricing }: Controls) {
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
function useChoose(names: readonly PricedName[], setChosen: Dispatch<SetStateAction<ReadonlySet<number>>>) {
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

interface SaveRowProps {
  /** How many are chosen, and how many of them are to be mended first. */
  readonly names: number;
  readonly toMend: number;
  readonly where: string | null;
  readonly isBusy: boolean;
  readonly onSave: (send: boolean) => void;
}

/** Listing what is chosen, or keeping it; and what stands in the way. */
function SaveRow({ names, toMend, where, isBusy, onSave }: SaveRowProps) {
  return (
    <Actions>
      <Button data-kind="primary" isDisabled={isBusy || names === 0} onPress={() => onSave(true)}>
        {isBusy ? 'Listing…' : `List ${namesWords(names)}${where ? ` at ${where}` : ''}`}
      </Button>
      <Button isDisabled={isBusy || names === 0} onPress={() => onSave(false)}>
        Keep as drafts
      </Button>
      <span className={toMend > 0 ? 'caution' : 'soft'} role="status">
        {names === 0
          ? 'Choose at least one name.'
          : toMend > 0
            ? `${namesWords(toMend)} to mend first: they are kept as drafts.`
            : 'Nothing stands in the way.'}
      </span>
    </Actions>
  );
}

/** Sending the chosen drafts, or keeping them, and saying what came of it. */
function useSave(
  { names }: PricingView,
  marketplaceId: number | null,
  wanted: () => readonly number[],
  drafts: ReturnType<typeof useDrafts>['drafts'],
) {
  const router = useRouter();
  const { reload } = useLedger();
  const [busy, setBusy] = useState(false);
  const save = async (send: boolean) => {
    setBusy(true);
    const listings = wanted().flatMap((nameId) => {
      const draft = drafts.get(nameId);
      // What is no amount is refused as it was typed.
      return draft
        ? [{ nameId, ...termsOf(draft), reasons: draft.reasons, prices: { ...draft.prices, ...draft.unread } }]
        : [];
    });
    const answer = await saveListingsAction({ ...(marketplaceId === null ? {} : { marketplaceId }), send, listings });
    setBusy(false);
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    await reload();
    report({ text: savedWords(answer, send), problem: answer.stopped.length > 0 && send });
    const [only] = names;
    router.push(names.length === 1 && only ? `/selling/names/${encodeURIComponent(only.ascii)}` : '/selling/listings');
  };
  return { busy, save };
}

function savedWords({ sent, listingIds, stopped }: Listed, send: boolean): string {
  const done = send ? `${namesWords(sent)} listed.` : `${namesWords(listingIds.length)} kept as drafts.`;
  return stopped.length === 0
    ? done
    : `${done} ${namesWords(stopped.length)} kept as drafts: something is to be mended.`;
}
