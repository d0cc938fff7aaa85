'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { sumByCurrency } from '@/core/money';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { report } from '@/ui/overlay/Toasts';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import type { DropRow } from '@/usecases/rescue/drop';
import type { Settings } from '@/usecases/settings';
import { keepAfterAllAction } from '../acts/drop/actions';
import { DropDialog } from '../acts/drop/DropDialog';
import { useRenew } from '../acts/renew/useRenew';
import { useAct } from '../acts/useAct';
import { useTitle } from '../frame/Frame';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RescueRow, RescueView, RowView } from '../frame/views';
import { runOfNameAction } from './actions';
import { BudgetPart } from './BudgetPart';
import { DecideDialog } from './DecideDialog';
import { DroppingPart } from './DroppingPart';
import { RefundPart } from './RefundPart';
import { RescueTable } from './RescueTable';

const Foot = styled.footer`
  order: 1;
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  padding: 8px 14px;
  background: var(--totals);
  color: var(--on-totals);
  & > div { margin-left: auto; display: flex; gap: 8px; flex-wrap: wrap; }
`;

/** What is past its term or going there because nothing keeps it, with a verdict, a budget, and what is dropped. */
export function RescueScreen({ odds, going }: { odds: Settings['saleOdds']; going: readonly DropRow[] }) {
  const router = useRouter();
  const { act } = useAct();
  const { worker, meta, problem, homeCurrency, reload } = useLedger();
  const [view, setView] = useState<RescueView | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [deciding, setDeciding] = useState<RescueRow | null>(null);
  const [leaving, setLeaving] = useState<readonly RowView[]>([]);
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

  /** A restore that is paid waits for its report: in its run, or at the registrar when it was not requested here. */
  const decide = async (about: RescueRow) => {
    if (about.judgement.verdict !== 'send the report') return setDeciding(about);
    const run = await runOfNameAction(about.row.name.id);
    if (run) router.push(`/renewals/${run}`);
    else
      report({
        text: `The restore of ${about.row.name.unicode} was not requested here: send its report at the registrar.`,
        problem: true,
      });
  };
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
  const choose = (nameId: number, isChosen: boolean) =>
    setChosen((now) => new Set(isChosen ? [...now, nameId] : [...now].filter((id) => id !== nameId)));
  return (
    <Page>
      {rows.length === 0 ? (
        <Empty title="Nothing needs rescue." text="No name is past its term, and none is going there unkept.">
          <ButtonLink href="/ledger" data-kind="primary">
            To the ledger
          </ButtonLink>
        </Empty>
      ) : (
        <>
          <BudgetPart odds={odds} currencies={currencies} onChoose={(ids) => setChosen(new Set(ids))} />
          {/* Before the table, so that it is next after the budget for who goes by keyboard; shown at the foot. */}
          {picked.length > 0 && <ChosenFoot picked={picked} onDrop={setLeaving} onClear={() => setChosen(new Set())} />}
          <Section aria-label="Names in danger">
            <h2>In danger: {namesWords(rows.length)}, the dearest waiting first</h2>
            <RescueTable rows={rows} chosen={chosen} onChoose={choose} onDecide={(about) => void decide(about)} />
          </Section>
        </>
      )}
      <RefundPart rows={refundable} />
      {pendingDelete.length > 0 && <PendingDelete rows={pendingDelete} />}
      <DroppingPart rows={dropping} going={going} onKeep={(row) => void keep(row)} />
      <DecideDialog about={deciding} onClose={() => setDeciding(null)} />
      <DropDialog isOpen={leaving.length > 0} onClose={() => setLeaving([])} rows={leaving} />
    </Page>
  );
}

/** What can be done with the chosen names, and for how much. */
function ChosenFoot({
  picked,
  onDrop,
  onClear,
}: {
  picked: readonly RescueRow[];
  onDrop: (rows: readonly RowView[]) => void;
  onClear: () => void;
}) {
  const renew = useRenew();
  const toRestore = picked.filter(({ row }) => row.phase === 'redemption');
  const toRenew = picked.filter(({ row }) => row.phase !== 'redemption' && row.phase !== 'pending restore');
  const costs = (list: readonly RescueRow[]) =>
    amountsWords(sumByCurrency(list.flatMap(({ judgement }) => judgement.cost ?? [])));
  const items = (list: readonly RescueRow[]) =>
    list.map(({ row }) => ({ nameId: row.name.id, years: row.policy.terms.renew.least }));
  return (
    <Foot aria-label="Chosen names">
      <b>{namesWords(picked.length)} chosen</b>
      <span>
        in all <b>{costs(picked)}</b>
      </span>
      <div>
        {toRenew.length > 0 && (
          <Button onPress={() => void renew(items(toRenew))}>
            Renew {namesWords(toRenew.length)} for {costs(toRenew)}…
          </Button>
        )}
        {toRestore.length > 0 && (
          <Button onPress={() => void renew(items(toRestore), 'restore')}>
            Restore {namesWords(toRestore.length)} for {costs(toRestore)}…
          </Button>
        )}
        <Button onPress={() => onDrop(picked.map(({ row }) => row))}>Drop…</Button>
        <Button onPress={onClear}>Clear</Button>
      </div>
    </Foot>
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
