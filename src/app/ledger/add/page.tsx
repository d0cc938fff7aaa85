import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { openImports } from '@/usecases/imports/preview';
import { ledgerChoices } from '@/usecases/names/ledger';
import { AddScreen } from './AddScreen';

export const metadata: Metadata = { title: 'Add names' };

export default async function AddPage() {
  const [{ rules }, open] = await Promise.all([ledgerChoices(deps()), openImports(deps())]);
  const accounts = rules.accounts.map(({ id, label }) => ({ id, label }));
  return (
    <AddScreen accounts={accounts} open={open.map(({ id, source, rowsTotal }) => ({ id, source, rows: rowsTotal }))} />
  );
}
