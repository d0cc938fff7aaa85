import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { openRenewals } from '@/usecases/orders/plan';
import { RenewalsScreen } from './RenewalsScreen';

export const metadata: Metadata = { title: 'Renewals' };

export default async function RenewalsPage({ searchParams }: { searchParams: Promise<{ account?: string }> }) {
  const { account } = await searchParams;
  const open = await openRenewals(deps());
  return (
    <RenewalsScreen
      account={account && /^\d+$/.test(account) ? Number(account) : null}
      open={open.map(({ id, status, madeAt, items }) => ({
        id,
        status,
        madeAt,
        names: items.length,
        totals: items.flatMap((item) =>
          item.quotedMinor === null || !item.currency ? [] : [{ minor: item.quotedMinor, currency: item.currency }],
        ),
      }))}
    />
  );
}
