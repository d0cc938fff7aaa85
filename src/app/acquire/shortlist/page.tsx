import type { Metadata } from 'next';
import { shortlist } from '@/usecases/acquiring/wanted';
import { deps } from '@/usecases/deps';
import { ShortlistScreen } from './ShortlistScreen';

export const metadata: Metadata = { title: 'Shortlist' };

export default async function ShortlistPage() {
  return <ShortlistScreen wanted={await shortlist(deps())} />;
}
