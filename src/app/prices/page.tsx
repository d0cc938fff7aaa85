import type { Metadata } from 'next';
import { accounts } from '@/usecases/accounts/accounts';
import { deps } from '@/usecases/deps';
import { PricesScreen } from './PricesScreen';

export const metadata: Metadata = { title: 'Prices' };

export default async function PricesPage() {
  const notes = (await accounts(deps())).map(({ id, label, registrar, notes: text }) => ({
    id,
    label,
    registrar,
    notes: text,
  }));
  return <PricesScreen notes={notes} />;
}
