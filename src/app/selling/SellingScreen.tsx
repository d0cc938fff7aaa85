'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import styled from 'styled-components';
import { isRefusal } from '@/core/refusal';
import { turnAt } from '@/core/selling';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report as tell } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { AGENDA_WORDS } from '@/ui/text/sellingWords';
import { Wide } from '@/ui/text/Wide';
import { daysLeft, daysWords, dayWords } from '@/ui/text/words';
import type { AgendaGroup, SellingReport } from '@/usecases/selling/report';
import { useTitle } from '../frame/Frame';
import { useLedger, useLedgerChange } from '../frame/LedgerProvider';
import { agendaPage } from '../frame/pages';
import { lookAgainAction } from './actions';
import { PastePart } from './PastePart';
import { RunningAuctions, SalesOnTheirWay, WaitingThreads } from './SellingTables';

const MOST_ROWS = 12;

/** Columns stand below each other from part to part. */
const Even = styled(Ruled)`
  table-layout: fixed;
  min-width: 620px;
  /* Nothing of the kind has a date: the heading is for screen readers only. */
  & th.blank { color: transparent; }
`;

/** What awaits the owner in selling, by urgency; then what runs without him. */
export function SellingScreen({ report }: { report: SellingReport }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const { agenda, auctions, sales, threads, listed } = report;
  useTitle('Selling', listed === 0 ? 'nothing is listed for sale' : `${listed.toLocaleString('en')} listings`);
  useLedgerChange(router.refresh);

  const lookAgain = async () => {
    setBusy(true);
    const looked = await lookAgainAction();
    setBusy(false);
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
      {agenda.map((group) => (
        <AgendaPart key={group.kind} group={group} />
      ))}
      <SalesOnTheirWay sales={others} />
      <RunningAuctions auctions={running} />
      <WaitingThreads threads={waiting} />
    </Page>
  );
}

function AgendaPart({ group: { kind, total, items } }: { group: AgendaGroup }) {
  const { style, today } = useLedger();
  const [all, setAll] = useState(false);
  const shown = all ? items : items.slice(0, MOST_ROWS);
  const isDated = items.some(({ by }) => by !== null);
  const ids = [...new Set(items.map(({ nameId }) => nameId))];
  return (
    <Section aria-label={AGENDA_WORDS[kind]}>
      <Actions>
        <h2>
          {AGENDA_WORDS[kind]}: {total.toLocaleString('en')}
        </h2>
        {kind === 'never listed' && <ButtonLink href={`/selling/price?names=${ids.join(',')}`}>Price them</ButtonLink>}
      </Actions>
      <Wide>
        <Even aria-label={AGENDA_WORDS[kind]}>
          <colgroup>
            <col style={{ width: '33%' }} />
            <col style={{ width: '27%' }} />
            <col style={{ width: '17%' }} />
            <col style={{ width: '8%' }} />
            <col style={{ width: '15%' }} />
          </colgroup>
          <thead>
            <tr>
              <th>Name</th>
              <th>
                {kind === 'offer to answer' || kind === 'handover'
                  ? 'Buyer'
                  : kind === 'never listed'
                    ? 'Account'
                    : 'Where'}
              </th>
              <th className={isDated ? undefined : 'blank'}>{kind === 'term too short' ? 'Term ends' : 'By'}</th>
              <th className={isDated ? 'figure' : 'figure blank'}>days left</th>
              <th className="figure">
                {kind === 'never listed' ? 'cost so far' : kind === 'auction unsold' ? 'highest' : 'for'}
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((item) => (
              <tr key={`${agendaPage(item)} ${item.nameId}`}>
                <td>
                  <Link href={agendaPage(item)} className="name">
                    {item.unicode}
                  </Link>
                </td>
                <td>{item.who}</td>
                <td>{item.by === null ? '' : dayWords(item.by, style)}</td>
                <td className="figure">{item.by === null ? '' : daysWords(daysLeft(item.by, today, style))}</td>
                <td className="figure">
                  {item.minor === null || item.currency === null
                    ? '–'
                    : formatAmount({ minor: item.minor, currency: item.currency }, kind !== 'never listed')}
                </td>
              </tr>
            ))}
          </tbody>
        </Even>
      </Wide>
      {items.length > shown.length && (
        <Actions>
          <Button data-kind="plain" onPress={() => setAll(true)}>
            Show {items.length === total ? `all ${total}` : `${items.length} of ${total.toLocaleString('en')}`}
          </Button>
        </Actions>
      )}
    </Section>
  );
}
