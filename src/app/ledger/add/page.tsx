import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { openImports, writtenImports } from '@/usecases/imports/preview';
import { ledgerChoices } from '@/usecases/names/ledger';
import { AddScreen } from './AddScreen';

export const metadata: Metadata = { title: 'Add names' };

export default async function AddPage() {
  const [{ rules }, open, written] = await Promise.all([
    ledgerChoices(deps()),
    openImports(deps()),
    writtenImports(deps()),
  ]);
  const accounts = rules.accounts.map(({ id, label }) => ({ id, label }));
  return (
    <AddScreen
      accounts={accounts}
      open={open.map(({ id, source, rowsTotal }) => ({ id, source, rows: rowsTotal }))}
      written={written.map(({ id, source, madeAt, undone }) => ({ id, source, madeAt, undone }))}
    />
  );
}
