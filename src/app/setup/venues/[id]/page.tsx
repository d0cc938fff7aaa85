import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { accounts } from '@/usecases/accounts/accounts';
import { deps } from '@/usecases/deps';
import { CSV_FIELDS } from '@/usecases/selling/listingsCsv';
import { venue } from '@/usecases/venues/venues';
import { VenueScreen } from './VenueScreen';

export const metadata: Metadata = { title: 'Venue' };

export default async function VenuePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const own = deps();
  const found = /^\d{1,9}$/.test(id) ? await venue(own, Number(id)) : null;
  if (id !== 'new' && !found) notFound();
  const held = (await accounts(own)).map(({ id: accountId, label }) => ({ id: accountId, label }));
  return <VenueScreen venue={found} accounts={held} fields={Object.keys(CSV_FIELDS)} />;
}
