'use client';
import { useDeferredValue, useMemo, useState } from 'react';
import styled from 'styled-components';
import { firstDrafts, priceDraft, soldAt } from '@/core/selling';
import { namesWords } from '@/ui/text/words';
import type { PricingView } from '@/usecases/selling/pricing';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { ListDialog } from './ListDialog';
import { NamePanel } from './NamePanel';
import { useChoose, useControls } from './PriceControls';
import { PriceRows } from './PriceRows';
import { Pricing } from './PricingContext';
import { SaveRow, useSaveListings } from './SaveRow';
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
  const [isListing, setListing] = useState(false);
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
  const { busy, save } = useSaveListings(
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
            onSave={(send) => (send ? setListing(true) : void save(false))}
          />
          <ListDialog
            names={names.filter(({ nameId }) => chosen.has(nameId))}
            drafts={drafts}
            isOpen={isListing}
            onClose={() => setListing(false)}
            onList={() => void save(true)}
          />
        </Work>
        {about && draft && <NamePanel key={about.nameId} name={about} draft={draft} />}
      </Layout>
    </Pricing>
  );
}
