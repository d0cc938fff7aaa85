'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Switch } from '@/core/ledger';
import { addDays } from '@/core/time';
import { Choice } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { countOf, restsWords } from '@/ui/text/todayWords';
import { causeWords, dayWords, namesWords } from '@/ui/text/words';
import { SwitchDialog } from '../acts/switch/SwitchDialog';
import { useDay, useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
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
      <FundingAnswer fundings={fundings} range={RANGES.find(({ value }) => value === range)?.text ?? ''} />
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

/** What the charges come to: what fails first and why, how many names lapse by it, and on how much of the ledger that rests. */
function FundingAnswer({ fundings, range }: { fundings: readonly FundingView[]; range: string }) {
  const { meta, style } = useLedger();
  const worst = firstInTrouble(fundings);
  const lapsing = fundings.reduce((sum, { lapsingCount }) => sum + lapsingCount, 0);
  const failing = fundings.reduce(
    (sum, { months }) => sum + months.reduce((some, month) => some + month.failing, 0),
    0,
  );
  return (
    <Head>
      <Answer>
        {failing === 0 || !worst?.firstFailure ? (
          `No charge fails in ${range}.`
        ) : (
          <>
            <span className="caution">
              {countOf(failing, 'charge fails', 'charges fail')} in {range}
              {lapsing > 0 && `, and ${namesWords(lapsing)} ${lapsing === 1 ? 'lapses' : 'lapse'}`}.
            </span>{' '}
            The first on {dayWords(worst.firstFailure.at, style)} at {worst.account.label}:{' '}
            {causeWords(worst.firstFailure.cause)}.
          </>
        )}
      </Answer>
      {meta && meta.unknowns.resting > 0 && (
        <p>
          {restsWords(meta.unknowns).replace(/^t/, 'T')}. <Link href="/unknown">Say what is not known</Link>
        </p>
      )}
    </Head>
  );
}

/** The account whose first failure comes first; without one, the first that is charged at all. */
function firstInTrouble(fundings: readonly FundingView[]): FundingView | undefined {
  const failing = fundings.filter((one) => one.firstFailure !== null);
  failing.sort((a, b) => (a.firstFailure?.at ?? 0) - (b.firstFailure?.at ?? 0));
  return failing[0] ?? fundings.find((one) => one.chargeCount > 0);
}
