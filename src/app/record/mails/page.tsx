import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { mails } from '@/usecases/mails/mails';
import { MailsScreen } from './MailsScreen';

export const metadata: Metadata = { title: 'Mails' };

const MOST = 100;

export default async function MailsPage({ searchParams }: { searchParams: Promise<{ q?: string }> }) {
  const { q = '' } = await searchParams;
  const [open, found] = await Promise.all([
    q ? Promise.resolve([]) : mails(deps(), { open: true, limit: MOST }),
    mails(deps(), { ...(q ? { text: q } : {}), limit: MOST }),
  ]);
  const waiting = new Set(open.map(({ id }) => id));
  return <MailsScreen open={open} rest={found.filter(({ id }) => !waiting.has(id))} text={q} />;
}
