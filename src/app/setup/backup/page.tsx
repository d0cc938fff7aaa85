import type { Metadata } from 'next';
import { ledgerChoice } from '@/usecases/ledgers/choice';
import { BackupScreen } from './BackupScreen';

export const metadata: Metadata = { title: 'Ledger: back up, restore, empty' };

export default function BackupPage() {
  return <BackupScreen choice={ledgerChoice()} />;
}
