import type { Metadata } from 'next';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { readReviewQuery, yearNow, yearReview } from '@/usecases/prospects/review';
import { queryOf, type Searched } from './queryOf';
import { ReviewScreen } from './ReviewScreen';

export const metadata: Metadata = { title: 'Year’s review' };

export default async function ReviewPage({ searchParams }: { searchParams: Searched }) {
  const query = queryOf(await searchParams);
  if (!query.has('year')) query.set('year', String(await yearNow(deps())));
  const read = readReviewQuery(query);
  const asked = isRefusal(read) ? { year: null, by: 'ending' as const } : read;
  return <ReviewScreen review={await yearReview(deps(), asked)} />;
}
