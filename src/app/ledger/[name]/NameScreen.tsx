'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { EntryKind } from '@/core/journal';
import { isCheapFirst } from '@/core/ledger';
import type { Amount } from '@/core/money';
import { movingFacts } from '@/core/moving';
import { formatAmount } from '@/ui/text/figures';
import { Page } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { mailWords } from '@/ui/text/words';
import type { MailRow } from '@/usecases/mails/mails';
import type { TransferView } from '@/usecases/moving/underWay';
import type { NameDetail } from '@/usecases/names/detail';
import type { StoredRecord } from '@/usecases/records/records';
import type { Lapse } from '@/usecases/rescue/lapse';
import { Stalled } from '../../acts/switch/Stalled';
import { useDay, useLedger, useLedgerChange } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import type { NameView } from '../../frame/views';
import { History } from './History';
import { KnownFacts } from './KnownFacts';
import { LapsePart } from './LapsePart';
import { LargeStrip } from './LargeStrip';
import { MoneyTable } from './MoneyTable';
import { NameActs, type NameDialog, NameDialogs } from './NameActs';
import { RecordPart } from './RecordPart';
import { standingSentence } from './sentence';
import { TransferPart } from './TransferPart';

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

const Stack = styled.div`display: grid; gap: 28px;`;

interface NameScreenProps {
  readonly detail: NameDetail;
  readonly tags: readonly string[];
  readonly kinds: readonly EntryKind[];
  /** How it lapsed, when it did. */
  readonly lapse: Lapse | null;
  readonly records: readonly StoredRecord[];
  /** The transfer that it is on. */
  readonly transfer: TransferView | null;
  /** Mails that speak of it. */
  readonly mails: readonly MailRow[];
}

/** One name: what state it is in, its life on one large strip, money, what is known of it, and its history. */
export function NameScreen({ detail, tags, kinds, lapse, records, transfer, mails }: NameScreenProps) {
  const router = useRouter();
  const { worker, meta, problem, style, homeCurrency, reload } = useLedger();
  const { day, daysAhead } = useDay();
  const [view, setView] = useState<NameView | null>(null);
  const [dialog, setDialog] = useState<NameDialog | null>(null);
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

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (!view || !meta)
    return meta && detail.extras.goneAt !== null ? (
      <GoneName detail={detail} kinds={kinds} lapse={lapse} mails={mails} />
    ) : (
      <Loading text="Reading the name" />
    );
  const { row } = view;
  const account = meta.rules.accounts.find((a) => a.id === row.name.accountId);
  const moving = movingFacts(row, row.policy);
  return (
    <Page>
      <Head>
        <div>
          <h2 className="name">{row.name.unicode}</h2>
          <p>{standingSentence(row, account?.label ?? '', day, style)}</p>
          {row.name.confirmMailBy !== null && (
            <p className="caution">{mailWords(row.name.confirmMailBy, day, style)}</p>
          )}
          <CheapFirstYear entries={detail.entries} perYear={row.costs.perYear} />
          <Stalled row={row} />
          {row.name.unicode !== row.name.ascii && <code className="soft">{row.name.ascii}</code>}
        </div>
        <NameActs view={view} isAhead={ahead} onOpen={setDialog} />
      </Head>
      <LargeStrip row={row} moving={moving} />
      <Columns>
        <MoneyTable detail={detail} kinds={kinds} disabled={ahead} onChanged={reload} />
        <Stack>
          <TransferPart nameId={row.name.id} transfer={transfer} facts={moving} saving={view.saving} />
          <KnownFacts row={row} detail={detail} />
        </Stack>
      </Columns>
      <RecordPart row={row} nameServers={detail.extras.nameServers} records={records} />
      {lapse && <LapsePart lapse={lapse} />}
      <History history={detail.history} currency={row.name.asking?.currency ?? homeCurrency} mails={mails} />
      <NameDialogs row={row} tags={tags} open={dialog} onClose={() => setDialog(null)} />
    </Page>
  );
}

/** A name that is no longer at its account: what it cost, how it went, and its history. */
function GoneName({ detail, kinds, lapse, mails }: Pick<NameScreenProps, 'detail' | 'kinds' | 'lapse' | 'mails'>) {
  const { homeCurrency, reload } = useLedger();
  return (
    <Page>
      <h2 className="name">{detail.unicode}</h2>
      <p>No longer at its account. It stays in the books.</p>
      <MoneyTable detail={detail} kinds={kinds} disabled onChanged={reload} />
      {lapse && <LapsePart lapse={lapse} />}
      <History history={detail.history} currency={homeCurrency} mails={mails} />
    </Page>
  );
}

/** A first year that was much cheaper than each further one will be. */
function CheapFirstYear({ entries, perYear }: { entries: NameDetail['entries']; perYear: Amount | null }) {
  const first = entries.find(({ kind, correctedBy }) => kind === 'registration' && correctedBy === null);
  if (!first || !perYear || first.currency !== perYear.currency || !isCheapFirst(first.minor, perYear.minor))
    return null;
  return (
    <p className="caution">
      The first year cost {formatAmount(first)}; each further one costs {formatAmount(perYear)}.
    </p>
  );
}
