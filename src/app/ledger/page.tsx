import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { ledgerChoices } from '@/usecases/names/ledger';
import { savedViews } from '@/usecases/names/views';
import { LedgerScreen } from './LedgerScreen';

export const metadata: Metadata = { title: 'Ledger' };

export default async function LedgerPage() {
  const [{ tags }, views] = await Promise.all([ledgerChoices(deps()), savedViews(deps())]);
  return <LedgerScreen tags={tags} views={views} />;
}
