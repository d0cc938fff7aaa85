'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { type Amount, sumByCurrency } from '@/core/money';
import type { Instant } from '@/core/time';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import { reportDone } from '../answers';
import { useTitle } from '../frame/Frame';
import { useDay, useLedger } from '../frame/LedgerProvider';
import type { RowView } from '../frame/ledger.worker';
import { undoAction } from '../ledger/actions';
import { AutoRenewDialog } from '../ledger/dialogs/AutoRenewDialog';

interface OpenRenewalLine {
  readonly id: string;
  readonly status: string;
  readonly madeAt: Instant;
  readonly names: number;
  readonly totals: readonly Amount[];
}

/** What has been asked of a registrar by hand and is not confirmed: renewals, and auto-renew switched on or off. */
export function RenewalsScreen({ open }: { open: readonly OpenRenewalLine[] }) {
  useTitle('Renewals', 'begun and not confirmed');
  const { worker, meta, style, reload } = useLedger();
  const { day } = useDay();
  const [asked, setAsked] = useState<readonly RowView[]>([]);
  const [confirming, setConfirming] = useState<readonly RowView[]>([]);

  useEffect(() => {
    if (worker && meta) void worker.asked(day).then(setAsked);
  }, [worker, meta, day]);

  const undo = async (batchId: number) => {
    if (reportDone(await undoAction(batchId), null)) await reload();
  };
  if (open.length === 0 && asked.length === 0) {
    return (
      <Empty
        title="Nothing waits to be confirmed."
        text="Choose names in the ledger, then Renew or Auto-renew: what was asked of a registrar stands here until you confirm it."
      >
        <ButtonLink href="/ledger?within=60">Price steps within 60 days</ButtonLink>
      </Empty>
    );
  }
  return (
    <Page>
      {open.length > 0 && (
        <Section>
          <h2>Renewals by hand</h2>
          <Ruled>
            <thead>
              <tr>
                <th>Begun</th>
                <th>Names</th>
                <th className="figure">Quoted</th>
                <th>Stands at</th>
              </tr>
            </thead>
            <tbody>
              {open.map((renewal) => (
                <tr key={renewal.id}>
                  <td>
                    <Link href={`/renewals/${renewal.id}`}>{dayWords(renewal.madeAt, style)}</Link>
                  </td>
                  <td>{namesWords(renewal.names)}</td>
                  <td className="figure">{amountsWords(sumByCurrency(renewal.totals))}</td>
                  <td>{renewal.status}</td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
      )}
      {asked.length > 0 && (
        <Section>
          <h2>Auto-renew asked for</h2>
          <Ruled>
            <thead>
              <tr>
                <th>Name</th>
                <th>Ledger</th>
                <th>Asked for</th>
                <th>
                  <span className="visually-hidden">Act</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {asked.map((row) => (
                <tr key={row.name.id}>
                  <td>
                    <Link href={`/ledger/${encodeURIComponent(row.name.ascii)}`} className="name">
                      {row.name.unicode}
                    </Link>
                  </td>
                  <td>
                    {row.name.setting}, {row.name.standing}
                  </td>
                  <td>{row.name.asked}</td>
                  <td className="figure">
                    <Button data-kind="plain" onPress={() => setConfirming([row])}>
                      Confirm…
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
      )}
      <AutoRenewDialog
        isOpen={confirming.length > 0}
        onClose={() => setConfirming([])}
        nameIds={confirming.map((row) => row.name.id)}
        rows={confirming}
        onUndo={undo}
      />
    </Page>
  );
}
