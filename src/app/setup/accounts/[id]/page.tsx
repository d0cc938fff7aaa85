import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { heldAccount } from '@/usecases/accounts/accounts';
import { priceRows } from '@/usecases/accounts/prices';
import { deps } from '@/usecases/deps';
import { link } from '@/usecases/links/links';
import { sealedWithOtherKey } from '@/usecases/secrets/keys';
import { AccountScreen } from './AccountScreen';

export const metadata: Metadata = { title: 'Account' };

export default async function AccountPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (id === 'new') return <AccountScreen account={null} prices={[]} link={null} />;
  const found = /^\d{1,9}$/.test(id) ? await heldAccount(deps(), Number(id)) : null;
  if (!found) notFound();
  const [prices, linked, otherKey] = await Promise.all([
    priceRows(deps(), found.id),
    link(deps(), found.id),
    sealedWithOtherKey(deps()),
  ]);
  const needsLogin = otherKey.some(({ kind, id }) => kind === 'account' && id === found.id);
  return <AccountScreen account={found} prices={prices} link={linked} needsLogin={needsLogin} />;
}
