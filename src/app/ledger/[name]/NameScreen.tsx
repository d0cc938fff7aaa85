'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { EntryKind } from '@/core/journal';
import type { Switch } from '@/core/ledger';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Menu } from '@/ui/overlay/Menu';
import { formatAmount } from '@/ui/text/figures';
import { Page } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { restoreWords } from '@/ui/text/words';
import type { NameDetail } from '@/usecases/names/detail';
import type { StoredRecord } from '@/usecases/records/records';
import type { Lapse } from '@/usecases/rescue/lapse';
import { DropDialog } from '../../acts/drop/DropDialog';
import { EditDialog } from '../../acts/edit/EditDialog';
import { useRenew } from '../../acts/renew/useRenew';
import { Stalled } from '../../acts/switch/Stalled';
import { isSwitch, SwitchDialog } from '../../acts/switch/SwitchDialog';
import { useTitle } from '../../frame/Frame';
import { useDay, useLedger, useLedgerChange } from '../../frame/LedgerProvider';
import type { NameView } from '../../frame/views';
import { History } from './History';
import { KnownFacts } from './KnownFacts';
import { LapsePart } from './LapsePart';
import { LargeStrip } from './LargeStrip';
import { MoneyTable } from './MoneyTable';
import { RecordPart } from './RecordPart';
import { mailWords, standingSentence } from './sentence';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: flex-start;
  gap: 8px 20px;
  & > div:first-child { flex: 1 1 460px; }
  & h2 { font-size: 1.95rem; font-weight: 600; overflow-wrap: anywhere; }
  & p { font-size: 1.1rem; }
`;

const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 28px;
  align-items: start;
`;

const Neighbours = styled.div`
  display: flex;
  gap: 14px;
`;

/** One name: what state it is in, its life on one large strip, money, what is known of it, and its history. */
export function NameScreen({
  detail,
  tags,
  kinds,
  lapse,
  records,
}: {
  detail: NameDetail;
  tags: readonly string[];
  kinds: readonly EntryKind[];
  /** How it lapsed, when it did. */
  lapse: Lapse | null;
  records: readonly StoredRecord[];
}) {
  const router = useRouter();
  const plan = useRenew();
  const { worker, meta, problem, style, homeCurrency, reload } = useLedger();
  const { day, daysAhead } = useDay();
  const [view, setView] = useState<NameView | null>(null);
  const [dialog, setDialog] = useState<'edit' | 'drop' | Switch | null>(null);
  const ahead = daysAhead > 0;
  useTitle('Ledger', view && view.place >= 0 ? `${view.place + 1} of ${view.total}` : detail.unicode);

  useEffect(() => {
    let stale = false;
    if (worker && meta) {
      void worker.name(detail.ascii, day).then((found) => {
        if (!stale) setView(found);
      });
    }
    return () => {
      stale = true;
    };
  }, [worker, meta, day, detail.ascii]);

  // What the server has drawn (money, history, evidence) follows every change of the ledger, whoever made it.
  useLedgerChange(router.refresh);

  const renew = async () => {
    if (!view || !meta) return;
    await plan([{ nameId: detail.id, years: view.row.policy.terms.renew.least }]);
  };

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (!view || !meta) {
    if (meta && detail.extras.goneAt !== null) {
      return (
        <Page>
          <h2 className="name">{detail.unicode}</h2>
          <p>No longer at its account. It stays in the books.</p>
          <MoneyTable detail={detail} kinds={kinds} disabled onChanged={reload} />
          {lapse && <LapsePart lapse={lapse} />}
          <History history={detail.history} currency={homeCurrency} />
        </Page>
      );
    }
    return <Loading text="Reading the name" />;
  }
  const { row } = view;
  const account = meta.rules.accounts.find((a) => a.id === row.name.accountId);
  const price = row.deadline?.before ?? row.costs.renewal;
  const renewable = row.phase === 'term' || row.phase === 'refundable' || row.phase === 'late';
  return (
    <Page>
      <Head>
        <div>
          <h2 className="name">{row.name.unicode}</h2>
          <p>{standingSentence(row, account?.label ?? '', day, style)}</p>
          {row.name.confirmMailBy !== null && (
            <p className="caution">{mailWords(row.name.confirmMailBy, day, style)}</p>
          )}
          <Stalled row={row} />
          {row.name.unicode !== row.name.ascii && <code className="soft">{row.name.ascii}</code>}
        </div>
        <Actions>
          {(view.before || view.after) && (
            <Neighbours>
              {view.before && <Link href={`/ledger/${encodeURIComponent(view.before)}`}>← before</Link>}
              {view.after && <Link href={`/ledger/${encodeURIComponent(view.after)}`}>next →</Link>}
            </Neighbours>
          )}
          {row.phase === 'redemption' ? (
            <Button
              data-kind="primary"
              isDisabled={ahead}
              onPress={() => void plan([{ nameId: detail.id, years: 1 }], 'restore')}
            >
              Restore{row.costs.restore ? ` for ${restoreWords(row.costs)}…` : '…'}
            </Button>
          ) : (
            <Button data-kind="primary" isDisabled={ahead || !renewable} onPress={() => void renew()}>
              {row.phase === 'late' ? 'Renew late' : 'Renew'}
              {renewable && price ? ` for ${formatAmount(price)}…` : '…'}
            </Button>
          )}
          <Button isDisabled={ahead} onPress={() => setDialog('auto-renew')}>
            Auto-renew…
          </Button>
          <Button isDisabled={ahead} onPress={() => setDialog('edit')}>
            Edit…
          </Button>
          <Menu
            trigger={<Button isDisabled={ahead}>More</Button>}
            label={`More to do with ${row.name.unicode}`}
            choices={[
              { id: 'sell', text: 'Sell, or see its offers' },
              { id: 'lock', text: 'Transfer lock…' },
              { id: 'privacy', text: 'Privacy…' },
              { id: 'drop', text: 'Drop…' },
            ]}
            onChoose={(id) =>
              id === 'sell'
                ? router.push(`/selling/names/${encodeURIComponent(row.name.ascii)}`)
                : setDialog(id as Switch | 'drop')
            }
          />
        </Actions>
      </Head>
      <LargeStrip row={row} />
      <Columns>
        <MoneyTable detail={detail} kinds={kinds} disabled={ahead} onChanged={reload} />
        <KnownFacts row={row} detail={detail} />
      </Columns>
      <RecordPart row={row} nameServers={detail.extras.nameServers} records={records} />
      {lapse && <LapsePart lapse={lapse} />}
      <History history={detail.history} currency={row.name.asking?.currency ?? homeCurrency} />
      <EditDialog
        isOpen={dialog === 'edit'}
        onClose={() => setDialog(null)}
        nameIds={[detail.id]}
        rows={[row]}
        tags={tags}
      />
      <SwitchDialog
        what={isSwitch(dialog) ? dialog : 'auto-renew'}
        isOpen={isSwitch(dialog)}
        onClose={() => setDialog(null)}
        nameIds={[detail.id]}
        rows={[row]}
      />
      <DropDialog isOpen={dialog === 'drop'} onClose={() => setDialog(null)} rows={[row]} />
    </Page>
  );
}
