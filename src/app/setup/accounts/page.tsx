import type { Metadata } from 'next';
import { heldAccounts } from '@/usecases/accounts/accounts';
import { deps } from '@/usecases/deps';
import { AccountsScreen } from './AccountsScreen';

export const metadata: Metadata = { title: 'Accounts' };

export default async function AccountsPage() {
  return <AccountsScreen accounts={await heldAccounts(deps())} />;
}
