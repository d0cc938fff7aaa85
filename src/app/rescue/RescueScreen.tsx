'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { sumByCurrency } from '@/core/money';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import type { DropRow } from '@/usecases/rescue/drop';
import type { Settings } from '@/usecases/settings';
import { keepAfterAllAction } from '../acts/drop/actions';
import { DropDialog } from '../acts/drop/DropDialog';
import { useAct } from '../acts/useAct';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { namePage } from '../frame/pages';
import type { RescueRow, RescueView, RowView } from '../frame/views';
import { BudgetPart } from './BudgetPart';
import { ChosenFoot } from './ChosenFoot';
import { DecideDialog } from './DecideDialog';
import { DroppingPart } from './DroppingPart';
import { RefundPart } from './RefundPart';
import { RescueTable } from './RescueTable';
import { RescueTabs } from './RescueTabs';
import { useActing } from './useActing';

/** What is past its term or going there because nothing keeps it, with a verdict, a budget, and what is dropped. */
export function RescueScreen({ odds, going }: { odds: Settings['saleOdds']; going: readonly DropRow[] }) {
  const router = useRouter();
  const { act } = useAct();
  const { worker, meta, problem, homeCurrency, reload } = useLedger();
  const [view, setView] = useState<RescueView | null>(null);
  const { act: carryOut, choose, chosen, setChosen, deciding, setDeciding, leaving, setLeaving } = useActing();
  useTitle('Rescue', 'what waiting costs, and what is worth keeping');

  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.rescue().then((found) => !stale && setView(found));
    // Reasons and what the registrar has confirmed stand on the server.
    router.refresh();
    return () => {
      stale = true;
    };
  }, [worker, meta, router]);

  const keep = async (row: RowView) => {
    await act(() => keepAfterAllAction({ nameIds: [row.name.id] }));
  };
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (view === null || meta === null) return <Loading text="Looking what can be saved" />;
  const { rows, pendingDelete, refundable, dropping } = view;
  const picked = rows.filter(({ row }) => chosen.has(row.name.id));
  const currencies = [...new Set(rows.flatMap(({ judgement }) => judgement.cost?.currency ?? []))].sort(
    (a, b) => Number(b === homeCurrency) - Number(a === homeCurrency) || (a < b ? -1 : 1),
  );
  return (
    <>
      <RescueTabs />
      <Page style={{ flex: 1, paddingBottom: 72 }}>
        {rows.length === 0 ? (
          <Empty title="Nothing needs rescue." text="No name is past its term, and none is going there unkept.">
            <ButtonLink href="/ledger" data-kind="primary">
              To the ledger
            </ButtonLink>
          </Empty>
        ) : (
          <>
            <RescueAnswer rows={rows} />
            <BudgetPart
              odds={odds}
              currencies={currencies}
              costs={sumByCurrency(picked.flatMap(({ judgement }) => judgement.cost ?? []))}
              onChoose={(ids) => setChosen(new Set(ids))}
            />
            {picked.length > 0 && (
              <ChosenFoot picked={picked} onDrop={setLeaving} onClear={() => setChosen(new Set())} />
            )}
            <Section aria-label="Names in danger">
              <h2>In danger: {namesWords(rows.length)}, the dearest waiting first</h2>
              <RescueTable
                label="Names in danger"
                rows={rows}
                total={rows.length}
                chosen={chosen}
                onChoose={choose}
                onAct={carryOut}
                onDecide={setDeciding}
              />
            </Section>
          </>
        )}
        <RefundPart rows={refundable} />
        {pendingDelete.length > 0 && <PendingDelete rows={pendingDelete} />}
        <DroppingPart rows={dropping} going={going} onKeep={(row) => void keep(row)} />
        <DecideDialog about={deciding} onClose={() => setDeciding(null)} />
        <DropDialog isOpen={leaving.length > 0} onClose={() => setLeaving([])} rows={leaving} />
      </Page>
    </>
  );
}

/** The answer: how many names are in danger, and what keeping those costs that are worth it. */
function RescueAnswer({ rows }: { rows: readonly RescueRow[] }) {
  const worth = rows.filter(({ judgement }) => judgement.verdict !== 'drop' && judgement.verdict !== 'undecided');
  const count = (verdict: RescueRow['judgement']['verdict']) =>
    rows.filter(({ judgement }) => judgement.verdict === verdict).length;
  const [undecided, drop] = [count('undecided'), count('drop')];
  const costs = sumByCurrency(worth.flatMap(({ judgement }) => judgement.cost ?? []));
  return (
    <Head>
      <Answer>
        <span className="caution">{countOf(rows.length, 'name is', 'names are')} in danger.</span>{' '}
        {worth.length === 0
          ? 'None is worth what it costs.'
          : `${countOf(worth.length, 'is worth', 'are worth')} keeping, for ${amountsWords(costs)}.`}
      </Answer>
      <p>
        {drop > 0 && `${countOf(drop, 'costs', 'cost')} more than ${drop === 1 ? 'it' : 'they'} may bring. `}
        {undecided > 0 &&
          `${countOf(undecided, 'is', 'are')} undecided: nothing is asked for ${undecided === 1 ? 'it' : 'them'}, so nobody can say.`}
      </p>
    </Head>
  );
}

/** What nobody can save any more, with the day from which anyone may have it. */
function PendingDelete({ rows }: { rows: readonly RowView[] }) {
  const { style } = useLedger();
  return (
    <Section aria-label="Pending delete">
      <h2>Pending delete: nothing can be done</h2>
      <Ruled aria-label="Pending delete">
        <tbody>
          {rows.map((row) => (
            <tr key={row.name.id}>
              <td>
                <Link href={namePage(row.name.ascii)} className="name">
                  {row.name.unicode}
                </Link>
              </td>
              <td>available to anyone from {row.marks ? dayWords(row.marks.release, style) : ''} at the earliest</td>
              <td className="figure">
                <Link href={`/record/${encodeURIComponent(row.name.ascii)}`}>Watch for its release</Link>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}
