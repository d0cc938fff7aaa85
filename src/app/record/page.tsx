import type { Metadata } from 'next';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { openMails } from '@/usecases/mails/mails';
import { checkProgress } from '@/usecases/records/check';
import { watches } from '@/usecases/records/watch';
import { RecordScreen } from './RecordScreen';

export const metadata: Metadata = { title: 'Registration record' };

export default async function RecordPage() {
  const [differing, progress, watched, telling] = await Promise.all([
    compute(deps(), 'differingNames', null),
    checkProgress(deps()),
    watches(deps()),
    openMails(deps()),
  ]);
  return <RecordScreen differing={differing} progress={progress} watched={watched} mails={telling} />;
}
