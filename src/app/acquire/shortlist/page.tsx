import type { Metadata } from 'next';
import { isRefusal } from '@/core/refusal';
import { reviewNames } from '@/usecases/acquiring/review';
import { shortlist } from '@/usecases/acquiring/wanted';
import { deps } from '@/usecases/deps';
import { ShortlistScreen } from './ShortlistScreen';

export const metadata: Metadata = { title: 'Shortlist' };

export default async function ShortlistPage() {
  const wanted = await shortlist(deps());
  const review = await reviewNames(deps(), { choices: wanted.slice(0, 100).map(({ ascii }) => ({ ascii })) });
  return <ShortlistScreen wanted={wanted} first={isRefusal(review) ? null : review} />;
}
