import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { MoneyScreen } from './MoneyScreen';

export const metadata: Metadata = { title: 'Money and days' };

export default async function MoneyPage() {
  return <MoneyScreen settings={await officeSettings(deps())} />;
}
