import type { Metadata } from 'next';
import { approaches } from '@/usecases/acquiring/approaches';
import { comingFree } from '@/usecases/acquiring/comingFree';
import { releaseOrders } from '@/usecases/acquiring/releaseOrders';
import { deps } from '@/usecases/deps';
import { WaitingScreen } from './WaitingScreen';

export const metadata: Metadata = { title: 'Asked and waited for' };

interface WaitingPageProps {
  readonly searchParams: Promise<{ ask?: string; order?: string }>;
}

export default async function WaitingPage({ searchParams }: WaitingPageProps) {
  const [threads, orders, lists, asked] = await Promise.all([
    approaches(deps()),
    releaseOrders(deps()),
    comingFree(deps()),
    searchParams,
  ]);
  return (
    <WaitingScreen threads={threads} orders={orders} lists={lists} ask={asked.ask ?? ''} order={asked.order ?? ''} />
  );
}
