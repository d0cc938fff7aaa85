import type { Metadata } from 'next';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { deposits } from '@/usecases/shop/settings';
import { SellingScreen } from './SellingScreen';

export const metadata: Metadata = { title: 'Selling' };

export default async function SellingPage() {
  const [report, waiting] = await Promise.all([compute(deps(), 'sellingReport'), deposits(deps())]);
  return <SellingScreen report={report} deposits={waiting} />;
}
