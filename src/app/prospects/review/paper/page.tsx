import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { readReviewQuery, reviewEntries, yearReview } from '@/usecases/prospects/review';
import { queryOf, type Searched } from '../queryOf';
import { PaperScreen } from './PaperScreen';

export const metadata: Metadata = { title: 'For the tax adviser' };

export default async function PaperPage({ searchParams }: { searchParams: Searched }) {
  const query = queryOf(await searchParams);
  const read = readReviewQuery(query);
  if (isRefusal(read)) notFound();
  const [byEnding, byAccount, entries] = await Promise.all([
    yearReview(deps(), { ...read, by: 'ending' }),
    yearReview(deps(), { ...read, by: 'account' }),
    reviewEntries(deps(), new URLSearchParams({ year: read.year === null ? 'all' : String(read.year), by: 'ending' })),
  ]);
  if (isRefusal(entries)) notFound();
  return <PaperScreen byEnding={byEnding} byAccount={byAccount} entries={entries} now={deps().clock()} />;
}
