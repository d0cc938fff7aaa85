import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { sellingReport } from '@/usecases/selling/report';
import { SellingScreen } from './SellingScreen';

export const metadata: Metadata = { title: 'Selling' };

export default async function SellingPage() {
  return <SellingScreen report={await sellingReport(deps())} />;
}
