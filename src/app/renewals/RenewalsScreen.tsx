'use client';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import type { Switch } from '@/core/ledger';
import { type Amount, sumByCurrency } from '@/core/money';
import { addDays, type Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Choice } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import { SWITCH_WORDS, SwitchDialog, switchesRequested } from '../acts/switch/SwitchDialog';
import { useTitle } from '../frame/Frame';
import { useDay, useLedger } from '../frame/LedgerProvider';
import type { ContradictingRow, FundingView, RowView } from '../frame/views';
import { AccountFundingPart } from './AccountFundingPart';
import { Contradictions } from './Contradictions';
import { FundingTable } from './FundingTable';

interface OpenRenewalLine {
  readonly id: string;
  readonly status: string;
  readonly madeAt: Instant;
  readonly names: number;
  readonly totals: readonly Amount[];
}

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
  const { worker, meta, problem, style, today, reload } = useLedger();
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
      {open.length > 0 && (
        <Section>
          <h2>Runs that are not settled</h2>
          <Ruled>
            <thead>
              <tr>
                <th>Begun</th>
                <th>Names</th>
                <th className="figure">Quoted</th>
                <th>Status</th>
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
      {requested.length > 0 && (
        <Section>
          <h2>Requested, not confirmed</h2>
          <Ruled aria-label="Requested, not confirmed">
            <thead>
              <tr>
                <th>Name</th>
                <th>Ledger</th>
                <th>Requested</th>
                <th>
                  <span className="visually-hidden">Act</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {requested.flatMap((row) =>
                switchesRequested(row).map(({ what, setting, to }) => (
                  <tr key={`${row.name.id} ${what}`}>
                    <td>
                      <Link href={`/ledger/${encodeURIComponent(row.name.ascii)}`} className="name">
                        {row.name.unicode}
                      </Link>
                    </td>
                    <td>
                      {SWITCH_WORDS[what].toLowerCase()} {setting}
                    </td>
                    <td>{to}</td>
                    <td className="figure">
                      <Button
                        data-kind="plain"
                        onPress={() => confirm(row, what)}
                        aria-label={`Confirm ${SWITCH_WORDS[what].toLowerCase()} of ${row.name.unicode}`}
                      >
                        Confirm…
                      </Button>
                    </td>
                  </tr>
                )),
              )}
            </tbody>
          </Ruled>
        </Section>
      )}
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
