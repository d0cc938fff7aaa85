import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { openRenewal } from '@/usecases/orders/plan';
import { restoreReports } from '@/usecases/orders/restoreReport';
import { runProgress } from '@/usecases/orders/start';
import { uuidIn } from '../../http/params';
import { RenewScreen } from './RenewScreen';

export const metadata: Metadata = { title: 'Renew' };

export default async function RenewPage({ params }: { params: Promise<{ id: string }> }) {
  const id = uuidIn((await params).id);
  if (id === null) notFound();
  const open = await openRenewal(deps(), id);
  if (isRefusal(open)) notFound();
  const { renewal, quote } = open;
  const reports =
    renewal.report === null
      ? new Map()
      : await restoreReports(
          deps(),
          renewal.items.map((item) => item.nameId),
          renewal.report,
        );
  // Once settled it is another screen: what was being edited on the open one is gone with it.
  return (
    <RenewScreen
      key={String(renewal.status === 'confirmed')}
      first={open}
      progress={await runProgress(deps(), id)}
      reports={quote.items.flatMap(({ nameId, ascii }) => {
        const report = reports.get(nameId);
        return report ? [{ nameId, ascii, report }] : [];
      })}
    />
  );
}
