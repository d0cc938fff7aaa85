'use client';
import { useEffect, useState } from 'react';
import type { Outlook } from '@/core/ledger';
import { namesWords, outlookWords, untilWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';

const KIND_WORDS: Readonly<Record<Outlook['kind'], readonly [one: string, many: string]>> = {
  charged: ['is charged by itself', 'are charged by themselves'],
  'charge fails': ['is tried and fails', 'are tried and fail'],
  lapses: ['lapses', 'lapse'],
  'late until': ['is deleted at the end of its late window', 'are deleted at the end of their late windows'],
  auctioned: ['is auctioned away', 'are auctioned away'],
  'restore by': ['is lost', 'are lost'],
  'report due': ['falls back into redemption', 'fall back into redemption'],
  'pending transfer': ['moves', 'move'],
  'available from': ['is lost', 'are lost'],
  'available since': ['is lost', 'are lost'],
  unknown: ['has no known end', 'have no known end'],
};

/** What happens to these names if this is not done. */
export function Otherwise({ nameIds }: { nameIds: readonly number[] }) {
  const { worker, meta, today, style } = useLedger();
  const [rows, setRows] = useState<readonly RowView[]>([]);
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.rowsOf(nameIds, today).then((found) => !stale && setRows(found));
    return () => {
      stale = true;
    };
  }, [worker, meta, today, nameIds]);
  const [only] = rows;
  if (!only) return null;
  if (rows.length === 1 && only.outlook.kind === 'restore by')
    return <>If nothing is done, it is lost after {untilWords(only.outlook.at, style)}.</>;
  if (rows.length === 1) return <>If nothing is done: {outlookWords(only.outlook, style)}.</>;
  const counts = new Map<Outlook['kind'], number>();
  for (const { outlook } of rows) counts.set(outlook.kind, (counts.get(outlook.kind) ?? 0) + 1);
  const parts = [...counts].map(([kind, count]) => `${namesWords(count)} ${KIND_WORDS[kind][count === 1 ? 0 : 1]}`);
  return <>If nothing is done: {parts.join(', ')}.</>;
}
