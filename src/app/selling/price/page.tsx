import type { Metadata } from 'next';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { pricingOf } from '@/usecases/selling/pricing';
import { PriceScreen } from './PriceScreen';

export const metadata: Metadata = { title: 'Price and list' };

const MOST_NAMES = 500;

export default async function PricePage({
  searchParams,
}: {
  searchParams: Promise<{ names?: string; marketplace?: string }>;
}) {
  const { names = '', marketplace } = await searchParams;
  const ids = names.split(',').map(Number).filter(Number.isInteger).slice(0, MOST_NAMES);
  const pricing = await pricingOf(deps(), ids);
  if (pricing.names.length === 0)
    return (
      <Empty
        title="No names are chosen."
        text="Choose up to 500 names in the ledger, then “List for sale” at its foot."
      >
        <ButtonLink href="/ledger" data-kind="primary">
          To the ledger
        </ButtonLink>
      </Empty>
    );
  return <PriceScreen pricing={pricing} marketplaceId={marketplace === undefined ? null : Number(marketplace)} />;
}
