'use client';
import styled from 'styled-components';
import { buyPrice, type Draft, type PricedName } from '@/core/selling';
import { formatAmount } from '@/ui/text/figures';

const Card = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 14px;
  border: 1px solid var(--rule);
  & > .name { font-size: 1.25rem; overflow-wrap: anywhere; }
`;

/** What a buyer gets to see: never a hidden reserve, the least offer, or what it has cost. */
export function Preview({ name, draft, currency }: { name: PricedName; draft: Draft; currency: string }) {
  const { prices } = draft;
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const buy = buyPrice({ kind: draft.kind, prices });
  return (
    <Card aria-label="As a buyer sees it">
      <span className="name">{name.unicode}</span>
      {draft.pitch && <span>{draft.pitch}</span>}
      {draft.kind === 'auction' ? (
        <span>
          Auction of {draft.auctionDays === 1 ? 'one day' : `${draft.auctionDays} days`}, from{' '}
          {prices.start === null ? 'a price to be set' : money(prices.start)}
          {prices.reserve !== null && (draft.reserveShown ? `, reserve ${money(prices.reserve)}` : ', with a reserve')}
        </span>
      ) : (
        <span>
          {prices.asking !== null && `${draft.kind === 'fixed price' ? 'Price' : 'Asking'} ${money(prices.asking)}`}
          {draft.kind !== 'fixed price' && `${prices.asking === null ? '' : ', '}open to offers`}
        </span>
      )}
      {buy !== null && draft.kind !== 'fixed price' && <span>Buy at once for {money(buy)}</span>}
      {draft.description && <p>{draft.description}</p>}
      <span className="soft">
        {[draft.withSite ? 'with its site' : 'the name alone', ...draft.categories, ...chosenWords(draft)].join(' · ')}
      </span>
    </Card>
  );
}

/** What was chosen of the marketplace's attributes, in words. */
function chosenWords({ attributes }: Draft): string[] {
  return Object.entries(attributes).map(([label, chosen]) => (chosen === 'yes' ? label : `${label}: ${chosen}`));
}
