import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { namesUnderWay } from '@/usecases/moving/underWay';
import { PlanScreen } from './PlanScreen';

export const metadata: Metadata = { title: 'Plan transfers' };

export default async function PlanPage({ searchParams }: { searchParams: Promise<Record<string, unknown>> }) {
  const underWay = await namesUnderWay(deps());
  return <PlanScreen isChosen={(await searchParams).names === 'chosen'} underWay={underWay} />;
}
