import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { openRenewal } from '@/usecases/renewals/renew';
import { runProgress } from '@/usecases/runs/start';
import { RenewScreen } from './RenewScreen';

export const metadata: Metadata = { title: 'Renew' };

export default async function RenewPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!/^[0-9a-f-]{36}$/.test(id)) notFound();
  const open = await openRenewal(deps(), id);
  if (isRefusal(open)) notFound();
  // Once settled it is another screen: what was being edited on the open one is gone with it.
  return (
    <RenewScreen
      key={String(open.renewal.status === 'confirmed')}
      first={open}
      progress={await runProgress(deps(), id)}
    />
  );
}
