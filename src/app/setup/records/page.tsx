import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { RecordsScreen } from './RecordsScreen';

export const metadata: Metadata = { title: 'Registration records' };

export default async function RecordsPage() {
  const { records } = await officeSettings(deps());
  return <RecordsScreen records={records} />;
}
