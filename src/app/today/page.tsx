import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { addDays } from '@/core/time';
import { acquiringToday } from '@/usecases/acquiring/today';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { holdsNames } from '@/usecases/ledgers/empty';
import { messagesSince } from '@/usecases/links/messages';
import { openMails } from '@/usecases/mails/mails';
import { foreignTransfers } from '@/usecases/moving/foreign';
import { transfersWaiting } from '@/usecases/moving/underWay';
import { waitingFor } from '@/usecases/people/confirmations';
import { watchesToday } from '@/usecases/records/watch';
import { unseenNames } from '@/usecases/reminders/remind';
import { sealedWithOtherKey } from '@/usecases/secrets/keys';
import { TodayScreen } from './TodayScreen';

export const metadata: Metadata = { title: 'Today' };

export default async function TodayPage() {
  const own = deps();
  const [messages, unseen, watched, selling, otherKey, alarms, transfers, acquiring, begun, mails, waiting] =
    await Promise.all([
      messagesSince(own, addDays(own.clock(), -1)),
      unseenNames(own),
      watchesToday(own),
      compute(own, 'sellingToday'),
      sealedWithOtherKey(own),
      foreignTransfers(own),
      transfersWaiting(own),
      acquiringToday(own),
      holdsNames(own),
      openMails(own),
      waitingFor(own),
    ]);
  // What cannot be read any more is said before anybody is asked to begin.
  if (!begun && otherKey.length === 0) redirect('/begin');
  const arrived = { messages, unseen, watched, acquiring, mails, waiting };
  return <TodayScreen {...arrived} selling={selling} otherKey={otherKey} alarms={alarms} transfers={transfers} />;
}
