import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { OfficeScreen } from './OfficeScreen';

export const metadata: Metadata = { title: 'Office' };

export default async function OfficePage() {
  const host = (await headers()).get('host') ?? '127.0.0.1';
  return <OfficeScreen settings={await officeSettings(deps())} feed={`http://${host}/api/v1/calendar.ics`} />;
}
