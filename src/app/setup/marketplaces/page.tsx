import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { marketplaces, rates } from '@/usecases/marketplaces/marketplaces';
import { answerRule } from '@/usecases/selling/offers';
import { MarketplacesScreen } from './MarketplacesScreen';

export const metadata: Metadata = { title: 'Marketplaces' };

export default async function MarketplacesPage() {
  const own = deps();
  const [all, known, rule] = await Promise.all([marketplaces(own), rates(own), answerRule(own)]);
  return <MarketplacesScreen marketplaces={all} rates={known} rule={rule} />;
}
