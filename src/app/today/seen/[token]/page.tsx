import type { Metadata } from 'next';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { reminderOf } from '@/usecases/reminders/remind';
import { SeenScreen } from './SeenScreen';

export const metadata: Metadata = { title: 'Seen' };

/** Where the link in a reminder leads. Opening it changes nothing; the button on it takes note that somebody has seen it. */
export default async function SeenPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const reminder = await reminderOf(deps(), token);
  return isRefusal(reminder) ? (
    <SeenScreen token={token} reminder={null} problem={reminder.message} />
  ) : (
    <SeenScreen token={token} reminder={reminder} problem={null} />
  );
}
