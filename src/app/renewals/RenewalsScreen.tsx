'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Switch } from '@/core/ledger';
import { addDays } from '@/core/time';
import { Choice } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Section } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { SwitchDialog } from '../acts/switch/SwitchDialog';
import { useTitle } from '../frame/Frame';
import { useDay, useLedger } from '../frame/LedgerProvider';
import type { ContradictingRow, FundingView, RowView } from '../frame/views';
import { AccountFundingPart } from './AccountFundingPart';
import { Contradictions } from './Contradictions';
import { FundingTable } from './FundingTable';
import { type OpenRenewalLine, OpenRuns, RequestedSwitches } from './OpenOrders';

const RANGES = [
  { value: '30', text: '30 days' },
  { value: '90', text: '90 days' },
  { value: '365', text: 'a year' },
  { value: '730', text: 'two years' },
] as const;
type Range = (typeof RANGES)[number]['value'];
const MOST_CONTRADICTIONS = 40;

/** What will be charged where and whether it will pass, what contradicts itself, and what is begun and not confirmed. */
export function RenewalsScreen({ open, account }: { open: readonly OpenRenewalLine[]; account: number | null }) {
  const { worker, meta, problem, today, reload } = useLedger();
  const { day } = useDay();
  const [range, setRange] = useState<Range>('365');
  const [fundings, setFundings] = useState<readonly FundingView[] | null>(null);
  const [chosen, setChosen] = useState<number | null>(account);
  const [contradicting, setContradicting] = useState<readonly ContradictingRow[]>([]);
  const [requested, setRequested] = useState<readonly RowView[]>([]);
  const [confirming, setConfirming] = useState<readonly RowView[]>([]);
  const [confirmWhat, setConfirmWhat] = useState<Switch>('auto-renew');
  const until = useMemo(() => addDays(today, Number(range)), [today, range]);
  useTitle('Renewals', 'what will be charged, and whether it will pass');

  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.requested(day).then((rows) => !stale && setRequested(rows));
    void worker.contradictions(MOST_CONTRADICTIONS).then((rows) => !stale && setContradicting(rows));
    void worker.funding(until).then((found) => !stale && setFundings(found));
    return () => {
      stale = true;
    };
  }, [worker, meta, day, until]);

  const confirm = (row: RowView, what: Switch) => {
    setConfirmWhat(what);
    setConfirming([row]);
  };
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (fundings === null) return <Loading text="Working out the charges" />;
  const shown = fundings.find(({ account }) => account.id === chosen) ?? firstInTrouble(fundings);
  return (
    <Page>
      <Section>
        <Actions>
          <Choice label="Looking ahead" value={range} onChange={setRange} options={RANGES} />
        </Actions>
        <FundingTable fundings={fundings} chosen={shown?.account.id ?? null} onChoose={setChosen} />
      </Section>
      {shown && <AccountFundingPart key={shown.account.id} funding={shown} until={until} />}
      <Contradictions rows={contradicting} onSwitch={(row) => confirm(row, 'auto-renew')} />
      <OpenRuns runs={open} />
      <RequestedSwitches rows={requested} onConfirm={confirm} />
      <SwitchDialog
        what={confirmWhat}
        isOpen={confirming.length > 0}
        onClose={() => setConfirming([])}
        nameIds={confirming.map((row) => row.name.id)}
        rows={confirming}
      />
    </Page>
  );
}

/** The account whose first failure comes first; without one, the first that is charged at all. */
function firstInTrouble(fundings: readonly FundingView[]): FundingView | undefined {
  const failing = fundings.filter((one) => one.firstFailure !== null);
  failing.sort((a, b) => (a.firstFailure?.at ?? 0) - (b.firstFailure?.at ?? 0));
  return failing[0] ?? fundings.find((one) => one.chargeCount > 0);
}
