import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { venues } from '@/usecases/venues/venues';
import { ListingsScreen } from './ListingsScreen';

export const metadata: Metadata = { title: 'On offer' };

export default async function ListingsPage() {
  const all = await venues(deps());
  return <ListingsScreen venues={all.map(({ id, label, linkUrl }) => ({ id, label, linked: linkUrl !== null }))} />;
}
