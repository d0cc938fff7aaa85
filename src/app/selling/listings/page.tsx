import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { marketplaces } from '@/usecases/marketplaces/marketplaces';
import { ListingsScreen } from './ListingsScreen';

export const metadata: Metadata = { title: 'Listings' };

export default async function ListingsPage() {
  const all = await marketplaces(deps());
  return (
    <ListingsScreen marketplaces={all.map(({ id, label, linkUrl }) => ({ id, label, linked: linkUrl !== null }))} />
  );
}
