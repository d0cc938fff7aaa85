'use client';
import { useEffect, useState } from 'react';
import { formatMonth, type Month } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import { DropDialog } from '../../acts/drop/DropDialog';
import { useDay, useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { namePage } from '../../frame/pages';
import type { DropMonthView, RowView } from '../../frame/views';
import { useProspects } from '../ProspectsContext';

/** So many names of a month are told. */
const SHOWN = 25;

/** What is not worth its next year, month by month in the order in which it would be charged, with what each month saves. */
export function DropListScreen() {
  const { worker, meta, problem, reload, homeCurrency: currency } = useLedger();
  const { day } = useDay();
  const { assumptions, view } = useProspects();
  const [months, setMonths] = useState<readonly DropMonthView[] | null>(null);
  const [leaving, setLeaving] = useState<readonly RowView[]>([]);
  useTitle('Prospects', 'the drop list');
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.dropPlan({ assumptions, view }, SHOWN).then((found) => !stale && setMonths(found));
    return () => {
      stale = true;
    };
  }, [worker, meta, assumptions, view]);
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (months === null) return <Loading text="Judging every name" />;
  if (months.length === 0)
    return (
      <Empty
        title="Nothing is to be dropped."
        text="Every name that can be judged is worth its next year. What cannot be judged is never put here."
      />
    );
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const sum = (of: (month: DropMonthView) => number) => months.reduce((all, month) => all + of(month), 0);
  const names = sum((month) => month.names);
  const drop = async (nameIds: readonly number[]) => {
    if (worker) setLeaving(await worker.rowsOf([...nameIds], day));
  };
  return (
    <Page>
      <Head>
        <Answer>
          {namesWords(names)} to drop {names === 1 ? 'saves' : 'save'} {money(sum((month) => month.savesMinor))} of
          coming charges: a gain of {money(sum((month) => month.gainMinor))} over what {names === 1 ? 'it' : 'they'} may
          bring.
        </Answer>
        <p>
          By the <Link href="/prospects">assumptions of the outlook</Link>. A name stays yours until its term ends;
          dropping it asks its registrar to renew it no more.
        </p>
      </Head>
      {months.map((month) => (
        <Section key={month.month} aria-label={formatMonth(month.month as Month)}>
          <div style={{ display: 'flex', flexWrap: 'wrap', gap: '4px 18px', alignItems: 'baseline' }}>
            <h2>{formatMonth(month.month as Month)}</h2>
            <span>
              {namesWords(month.names)}, saves <b>{money(month.savesMinor)}</b>, a gain of {money(month.gainMinor)}
            </span>
            <Button onPress={() => void drop(month.nameIds)}>
              Drop {month.names === 1 ? 'it' : `these ${month.names}`}…
            </Button>
          </div>
          <MonthTable month={month} />
        </Section>
      ))}
      <DropDialog isOpen={leaving.length > 0} onClose={() => setLeaving([])} rows={leaving} />
    </Page>
  );
}

function MonthTable({ month }: { month: DropMonthView }) {
  const { style, homeCurrency: currency } = useLedger();
  const money = (minor: number) => formatAmount({ minor: Math.round(minor), currency });
  return (
    <Wide least={560}>
      <Ruled aria-label={`Names of ${formatMonth(month.month as Month)}`} style={{ tableLayout: 'fixed' }}>
        <colgroup>
          <col style={{ width: '18%' }} />
          <col />
          <col style={{ width: '18%' }} />
          <col style={{ width: '22%' }} />
        </colgroup>
        <thead>
          <tr>
            <th>Charged</th>
            <th>Name</th>
            <th className="figure">Saves</th>
            <th className="figure">May bring less by</th>
          </tr>
        </thead>
        <tbody>
          {month.lines.map(({ nameId, ascii, unicode, at, costMinor, valueMinor }) => (
            <tr key={nameId}>
              <td>{dayWords(at, style)}</td>
              <td>
                <Link href={namePage(ascii)} className="name">
                  {unicode}
                </Link>
              </td>
              <td className="figure">{money(costMinor)}</td>
              <td className="figure">{money(-valueMinor)}</td>
            </tr>
          ))}
          {month.names > month.lines.length && (
            <tr>
              <td />
              <td colSpan={3} className="soft">
                and {month.names - month.lines.length} more
              </td>
            </tr>
          )}
        </tbody>
      </Ruled>
    </Wide>
  );
}
