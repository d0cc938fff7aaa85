import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { UnknownScreen } from './UnknownScreen';

export const metadata: Metadata = { title: 'Not known yet' };

export default async function UnknownPage() {
  const { mail, remindTo } = await officeSettings(deps());
  return <UnknownScreen remindTo={mail === null ? remindTo : null} />;
}
