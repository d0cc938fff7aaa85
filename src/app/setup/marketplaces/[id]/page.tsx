import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { accounts } from '@/usecases/accounts/accounts';
import { deps } from '@/usecases/deps';
import { marketplace } from '@/usecases/marketplaces/marketplaces';
import { CSV_FIELDS } from '@/usecases/selling/listingsCsv';
import { MarketplaceScreen } from './MarketplaceScreen';

export const metadata: Metadata = { title: 'Marketplace' };

export default async function MarketplacePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const own = deps();
  const found = /^\d{1,9}$/.test(id) ? await marketplace(own, Number(id)) : null;
  if (id !== 'new' && !found) notFound();
  const held = (await accounts(own)).map(({ id: accountId, label }) => ({ id: accountId, label }));
  return <MarketplaceScreen marketplace={found} accounts={held} fields={Object.keys(CSV_FIELDS)} />;
}
