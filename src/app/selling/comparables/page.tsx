import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { pastSales } from '@/usecases/selling/comparables';
import { ComparablesScreen } from './ComparablesScreen';

export const metadata: Metadata = { title: 'Past sales' };

export default async function ComparablesPage() {
  return <ComparablesScreen sales={await pastSales(deps())} />;
}
