import type { Metadata } from 'next';
import { PlanScreen } from './PlanScreen';

export const metadata: Metadata = { title: 'Plan transfers' };

export default async function PlanPage({ searchParams }: { searchParams: Promise<Record<string, unknown>> }) {
  return <PlanScreen isChosen={(await searchParams).names === 'chosen'} />;
}
