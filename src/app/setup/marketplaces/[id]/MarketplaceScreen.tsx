'use client';
import { Page } from '@/ui/text/Sheet';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import { useTitle } from '../../../frame/PageTitle';
import { LinkPart } from './LinkPart';
import { type Held, MarketplaceForm } from './MarketplaceForm';

interface MarketplaceScreenProps {
  readonly marketplace: MarketplaceRow | null;
  readonly accounts: readonly Held[];
  /** What the columns of its own list can hold. */
  readonly fields: readonly string[];
}

/** One marketplace: its fees, its rules, its list, and its link. */
export function MarketplaceScreen({ marketplace, accounts, fields }: MarketplaceScreenProps) {
  useTitle(marketplace?.label ?? 'New marketplace', marketplace ? 'a marketplace' : '');
  return (
    <Page>
      <MarketplaceForm marketplace={marketplace} accounts={accounts} fields={fields} />
      {marketplace && <LinkPart marketplace={marketplace} />}
    </Page>
  );
}
