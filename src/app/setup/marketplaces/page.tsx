import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { marketplaces } from '@/usecases/marketplaces/marketplaces';
import { rates, ratesSource } from '@/usecases/rates/rates';
import { answerRule } from '@/usecases/selling/offers';
import { MarketplacesScreen } from './MarketplacesScreen';

export const metadata: Metadata = { title: 'Marketplaces' };

export default async function MarketplacesPage() {
  const own = deps();
  const [all, known, source, rule] = await Promise.all([
    marketplaces(own),
    rates(own),
    ratesSource(own),
    answerRule(own),
  ]);
  return <MarketplacesScreen marketplaces={all} rates={known} source={source} rule={rule} />;
}
