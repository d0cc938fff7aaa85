import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { importSummary } from '@/usecases/imports/preview';
import { ledgerChoices } from '@/usecases/names/ledger';
import { uuidIn } from '../../../http/params';
import { PreviewScreen } from './PreviewScreen';

export const metadata: Metadata = { title: 'Add names' };

export default async function PreviewPage({ params }: { params: Promise<{ id: string }> }) {
  const id = uuidIn((await params).id);
  if (id === null) notFound();
  const summary = await importSummary(deps(), id);
  if (isRefusal(summary)) notFound();
  const { rules } = await ledgerChoices(deps());
  return (
    <PreviewScreen
      first={summary}
      accounts={rules.accounts.map(({ id: accountId, label }) => ({ id: accountId, label }))}
    />
  );
}
