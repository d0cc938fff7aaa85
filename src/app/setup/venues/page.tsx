import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { answerRule } from '@/usecases/selling/offers';
import { rates, venues } from '@/usecases/venues/venues';
import { VenuesScreen } from './VenuesScreen';

export const metadata: Metadata = { title: 'Venues' };

export default async function VenuesPage() {
  const own = deps();
  const [all, known, rule] = await Promise.all([venues(own), rates(own), answerRule(own)]);
  return <VenuesScreen venues={all} rates={known} rule={rule} />;
}
