import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { sellingReport } from '@/usecases/selling/report';
import { deposits } from '@/usecases/shop/settings';
import { SellingScreen } from './SellingScreen';

export const metadata: Metadata = { title: 'Selling' };

export default async function SellingPage() {
  const [report, waiting] = await Promise.all([sellingReport(deps()), deposits(deps())]);
  return <SellingScreen report={report} deposits={waiting} />;
}
