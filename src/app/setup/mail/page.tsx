import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { calendarFeed } from '@/usecases/calendar/feed';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { MailScreen } from './MailScreen';

export const metadata: Metadata = { title: 'Mail and calendar' };

export default async function MailPage() {
  const host = (await headers()).get('host') ?? '127.0.0.1';
  const [settings, feed] = await Promise.all([officeSettings(deps()), calendarFeed(deps())]);
  return <MailScreen settings={settings} feed={feed} base={`http://${host}`} />;
}
