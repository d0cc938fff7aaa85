import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { deps } from '@/usecases/deps';
import { ledgerChoice } from '@/usecases/ledgers/choice';
import { holdsNames } from '@/usecases/ledgers/empty';
import { officeSettings } from '@/usecases/settings';
import { BeginScreen } from './BeginScreen';

export const metadata: Metadata = { title: 'Begin' };

/** The first page of an empty ledger. */
export default async function BeginPage() {
  const own = deps();
  const [settings, isBegun] = await Promise.all([officeSettings(own), holdsNames(own)]);
  if (isBegun) redirect('/today');
  return <BeginScreen settings={settings} choice={ledgerChoice()} />;
}
