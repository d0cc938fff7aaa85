import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { calendarFeed } from '@/usecases/calendar/feed';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { OfficeScreen } from './OfficeScreen';

export const metadata: Metadata = { title: 'Office' };

export default async function OfficePage() {
  const host = (await headers()).get('host') ?? '127.0.0.1';
  const [settings, feed] = await Promise.all([officeSettings(deps()), calendarFeed(deps())]);
  return <OfficeScreen settings={settings} feed={feed} base={`http://${host}`} />;
}
