'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { sumByCurrency } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { type AgendaItem, turnAt } from '@/core/selling';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { DecisionTable } from '@/ui/grid/DecisionTable';
import { Actions } from '@/ui/overlay/Dialog';
import { report as tell } from '@/ui/overlay/Toasts';
import { Answer, Head, Page } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { amountsWords } from '@/ui/text/words';
import type { AgendaGroup, SellingReport } from '@/usecases/selling/report';
import type { Deposit } from '@/usecases/shop/settings';
import { agendaParts } from '../acts/agenda/sellingLines';
import { useBusy } from '../acts/useBusy';
import { useLedger, useLedgerChange } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { lookAgainAction } from './actions';
import { DepositsPart } from './DepositsPart';
import { PastePart } from './PastePart';
import { RunningAuctions, SalesOnTheirWay, WaitingThreads } from './SellingTables';

const MOST_ROWS = 12;

/** What awaits the owner in selling, by urgency; then what runs without him. */
export function SellingScreen({ report, deposits }: { report: SellingReport; deposits: readonly Deposit[] }) {
  const router = useRouter();
  const [busy, during] = useBusy();
  const { agenda, auctions, sales, threads, listed } = report;
  useTitle('Selling', listed === 0 ? 'nothing is listed for sale' : `${listed.toLocaleString('en')} listings`);
  useLedgerChange(router.refresh);

  const lookAgain = async () => {
    const looked = await during(lookAgainAction());
    if (isRefusal(looked)) tell({ text: looked.message, problem: true });
    else router.refresh();
  };
  const others = sales.filter(({ stage }) => turnAt(stage) !== 'owner');
  const running = auctions.filter(
    ({ id }) => !agenda.some(({ items }) => items.some(({ about }) => about.kind === 'auction' && about.id === id)),
  );
  const waiting = threads.filter(({ figures }) => figures.at(-1)?.by === 'owner');
  return (
    <Page>
      <SellingAnswer agenda={agenda} />
      <Actions>
        <Button isDisabled={busy} onPress={() => void lookAgain()}>
          {busy ? 'Asking the marketplaces…' : 'Ask the marketplaces now'}
        </Button>
        <ButtonLink href="/ledger?forSale=yes">Choose names to list</ButtonLink>
      </Actions>
      <PastePart />
      {agenda.length === 0 && (
        <Empty title="Nothing awaits you here." text="Choose names in the ledger and list them: offers come here.">
          <ButtonLink href="/ledger" data-kind="primary">
            To the ledger
          </ButtonLink>
        </Empty>
      )}
      {agenda.length > 0 && <AgendaTable agenda={agenda} />}
      <DepositsPart deposits={deposits} />
      <SalesOnTheirWay sales={others} />
      <RunningAuctions auctions={running} />
      <WaitingThreads threads={waiting} />
    </Page>
  );
}

/** What awaits the owner, kind by kind, in one grid of columns. */
function AgendaTable({ agenda }: { agenda: readonly AgendaGroup[] }) {
  const { style, today } = useLedger();
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const parts = agendaParts(
    agenda,
    { today, style },
    ({ kind, items }) => (open.has(kind) ? items.length : MOST_ROWS),
    ({ kind, items, total }) => (
      <>
        {items.length > MOST_ROWS && !open.has(kind) && (
          <Button data-kind="plain" onPress={() => setOpen(new Set([...open, kind]))}>
            Show {items.length === total ? `all ${total}` : `${items.length} of ${total.toLocaleString('en')}`}
          </Button>
        )}
        {kind === 'never listed' && (
          <Link href={`/selling/price?names=${[...new Set(items.map(({ nameId }) => nameId))].join(',')}`}>
            Price them
          </Link>
        )}
      </>
    ),
  );
  return <DecisionTable label="What awaits you in selling" parts={parts} axis={null} who="With whom" />;
}

/** The answer: what is owed, and what is offered against what is asked. */
function SellingAnswer({ agenda }: { agenda: readonly AgendaGroup[] }) {
  const { today } = useLedger();
  const of = (kind: AgendaGroup['kind']) => agenda.find((group) => group.kind === kind);
  const [owed, offers] = [of('handover'), of('offer to answer')];
  const overdue = owed?.items.filter(({ by }) => by !== null && by < today) ?? [];
  const sum = (items: readonly AgendaItem[]) =>
    amountsWords(
      sumByCurrency(
        items.flatMap(({ minor, currency }) => (minor === null || currency === null ? [] : [{ minor, currency }])),
      ),
      true,
    );
  if (!owed && !offers) return null;
  return (
    <Head>
      <Answer>
        {overdue.length > 0 && <span className="caution">{sum(overdue)} is overdue for handover. </span>}
        {overdue.length === 0 && owed && `${sum(owed.items)} waits for you to hand over. `}
        {offers && `${countOf(offers.total, 'offer waits', 'offers wait')} for your answer.`}
      </Answer>
    </Head>
  );
}
