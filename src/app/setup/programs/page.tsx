import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { webhooks } from '@/usecases/programs/webhooks';
import { officeSettings } from '@/usecases/settings';
import { ProgramsScreen } from './ProgramsScreen';

export const metadata: Metadata = { title: 'Programs' };

export default async function ProgramsPage() {
  const own = deps();
  const [rows, { baseUrl }] = await Promise.all([webhooks(own), officeSettings(own)]);
  return <ProgramsScreen webhooks={rows} base={baseUrl} />;
}
