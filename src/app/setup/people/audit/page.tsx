import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { auditPage, verifyAudit } from '@/usecases/people/audit';
import { AuditScreen } from './AuditScreen';

export const metadata: Metadata = { title: 'Who did what' };

const SHOWN = 200;

export default async function AuditPage({ searchParams }: { searchParams: Promise<{ before?: string }> }) {
  const own = deps();
  const before = Number((await searchParams).before) || Number.MAX_SAFE_INTEGER;
  const [lines, looked] = await Promise.all([auditPage(own, before, SHOWN), verifyAudit(own)]);
  return <AuditScreen lines={lines} looked={looked} />;
}
