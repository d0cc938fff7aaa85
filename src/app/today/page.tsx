import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { addDays } from '@/core/time';
import { acquiringToday } from '@/usecases/acquiring/today';
import { deps } from '@/usecases/deps';
import { holdsNames } from '@/usecases/ledgers/empty';
import { messagesSince } from '@/usecases/links/messages';
import { foreignTransfers } from '@/usecases/moving/foreign';
import { transfersWaiting } from '@/usecases/moving/underWay';
import { watchesToday } from '@/usecases/records/watch';
import { unseenNames } from '@/usecases/reminders/remind';
import { sealedWithOtherKey } from '@/usecases/secrets/keys';
import { sellingToday } from '@/usecases/selling/report';
import { TodayScreen } from './TodayScreen';

export const metadata: Metadata = { title: 'Today' };

export default async function TodayPage() {
  const own = deps();
  if (!(await holdsNames(own))) redirect('/begin');
  const [messages, unseen, watched, selling, otherKey, alarms, transfers, acquiring] = await Promise.all([
    messagesSince(own, addDays(own.clock(), -1)),
    unseenNames(own),
    watchesToday(own),
    sellingToday(own),
    sealedWithOtherKey(own),
    foreignTransfers(own),
    transfersWaiting(own),
    acquiringToday(own),
  ]);
  const arrived = { messages, unseen, watched, acquiring };
  return <TodayScreen {...arrived} selling={selling} otherKey={otherKey} alarms={alarms} transfers={transfers} />;
}
