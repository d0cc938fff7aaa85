import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { reviewEntries } from '@/usecases/prospects/review';
import { queryOf, type Searched } from '../queryOf';
import { EntriesScreen } from './EntriesScreen';

export const metadata: Metadata = { title: 'Entries of a review' };

export default async function EntriesPage({ searchParams }: { searchParams: Searched }) {
  const found = await reviewEntries(deps(), queryOf(await searchParams));
  if (isRefusal(found)) notFound();
  return <EntriesScreen found={found} />;
}
