import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { soldList } from '@/usecases/selling/statement';
import { SoldScreen } from './SoldScreen';

export const metadata: Metadata = { title: 'Sold' };

export default async function SoldPage() {
  return <SoldScreen sold={await soldList(deps())} />;
}
