import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { transfersUnderWay } from '@/usecases/moving/underWay';
import { TransfersScreen } from './TransfersScreen';

export const metadata: Metadata = { title: 'Transfers' };

export default async function TransfersPage() {
  return <TransfersScreen transfers={await transfersUnderWay(deps())} />;
}
