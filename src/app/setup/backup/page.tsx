import type { Metadata } from 'next';
import { BackupScreen } from './BackupScreen';

export const metadata: Metadata = { title: 'Back up and restore' };

export default function BackupPage() {
  return <BackupScreen />;
}
