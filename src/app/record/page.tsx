import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { checkProgress } from '@/usecases/records/check';
import { differingNames } from '@/usecases/records/compare';
import { watches } from '@/usecases/records/watch';
import { RecordScreen } from './RecordScreen';

export const metadata: Metadata = { title: 'Public record' };

export default async function RecordPage() {
  const [differing, progress, watched] = await Promise.all([
    differingNames(deps()),
    checkProgress(deps()),
    watches(deps()),
  ]);
  return <RecordScreen differing={differing} progress={progress} watched={watched} />;
}
