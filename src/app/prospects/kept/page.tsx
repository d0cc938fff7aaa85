import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { keptForecasts } from '@/usecases/prospects/forecasts';
import { KeptScreen } from './KeptScreen';

export const metadata: Metadata = { title: 'Kept forecasts' };

export default async function KeptPage() {
  return <KeptScreen forecasts={await keptForecasts(deps())} />;
}
