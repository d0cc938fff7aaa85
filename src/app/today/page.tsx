import type { Metadata } from 'next';
import { addDays } from '@/core/time';
import { deps } from '@/usecases/deps';
import { messagesSince } from '@/usecases/links/messages';
import { watchesToday } from '@/usecases/records/watch';
import { unseenNames } from '@/usecases/reminders/remind';
import { sealedWithOtherKey } from '@/usecases/secrets/keys';
import { sellingToday } from '@/usecases/selling/report';
import { TodayScreen } from './TodayScreen';

export const metadata: Metadata = { title: 'Today' };

export default async function TodayPage() {
  const own = deps();
  const [messages, unseen, watched, selling, otherKey] = await Promise.all([
    messagesSince(own, addDays(own.clock(), -1)),
    unseenNames(own),
    watchesToday(own),
    sellingToday(own),
    sealedWithOtherKey(own),
  ]);
  return <TodayScreen messages={messages} unseen={unseen} watched={watched} selling={selling} otherKey={otherKey} />;
}
