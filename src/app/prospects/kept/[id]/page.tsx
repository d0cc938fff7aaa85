import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { lookBack } from '@/usecases/prospects/forecasts';
import { LookingBackScreen } from './LookingBackScreen';

export const metadata: Metadata = { title: 'Looking back' };

export default async function LookingBackPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const back = /^\d{1,9}$/.test(id) ? await lookBack(deps(), Number(id)) : null;
  if (back === null || isRefusal(back)) notFound();
  return <LookingBackScreen back={back} />;
}
