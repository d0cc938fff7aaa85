'use client';
import { useMemo } from 'react';
import styled from 'styled-components';
import { accountCrossings } from '@/core/ledger';
import { YearsChart } from '@/ui/chart/YearsChart';
import { formatAmount } from '@/ui/text/figures';
import { Section } from '@/ui/text/Sheet';
import { yearsWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import type { EndingView } from '../frame/views';
import { BestWay } from './BestWay';
import { type AccountNotes, NotesPart } from './NotesPart';
import { cheapFirstYearWords, crossingWords } from './priceWords';
import type { Wanted } from './usePrices';

const Beside = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(340px, 1fr);
  gap: 20px 32px;
  align-items: start;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;

const MOST_CROSSINGS = 3;

interface EndingPartProps {
  readonly detail: EndingView;
  readonly wanted: Wanted;
  readonly notes: readonly AccountNotes[];
}

/** One ending: what each account comes to year by year, where they cross, the cheapest way, and what is known of each registrar. */
export function EndingPart({ detail, wanted, notes }: EndingPartProps) {
  const { meta, homeCurrency } = useLedger();
  const labels = useMemo(() => new Map((meta?.rules.accounts ?? []).map(({ id, label }) => [id, label])), [meta]);
  const compared = useMemo(
    () => detail.accounts.filter(({ totals }) => totals.some((total) => total !== null)),
    [detail],
  );
  const lines = useMemo(
    () => compared.map(({ accountId, totals }) => ({ label: labels.get(accountId) ?? '', totals })),
    [compared, labels],
  );
  const crossings = useMemo(() => accountCrossings(compared), [compared]);
  const marks = useMemo(
    () =>
      crossings.map(({ years, first, cheaper, second }) => {
        const at = compared.find(({ accountId }) => accountId === (cheaper === 'second' ? second : first));
        return { years, minor: at?.totals[years - 1] ?? 0 };
      }),
    [crossings, compared],
  );
  const money = (minor: number) => formatAmount({ minor, currency: homeCurrency });
  const cheap = compared.flatMap((account) => cheapFirstYearWords(account, labels, money) ?? []);
  return (
    <Beside aria-label={`Prices of .${detail.ending}`}>
      <Section>
        <h2>
          .{detail.ending} over {yearsWords(wanted.years)}
        </h2>
        {cheap.map((words) => (
          <p key={words} className="caution">
            {words}
          </p>
        ))}
        <YearsChart
          lines={lines}
          marks={marks}
          currency={homeCurrency}
          label={`Totals of .${detail.ending} by years and account; those of the chosen years stand in the table`}
        />
        {crossings.slice(0, MOST_CROSSINGS).map((crossing) => (
          <p key={`${crossing.first} ${crossing.second} ${crossing.years}`}>{crossingWords(crossing, labels)}</p>
        ))}
        {crossings.length > MOST_CROSSINGS && (
          <p className="soft">And {crossings.length - MOST_CROSSINGS} more crossings, ringed in the chart.</p>
        )}
      </Section>
      <Section>
        <BestWay path={detail.best[wanted.years - 1] ?? null} wanted={wanted} labels={labels} />
        <NotesPart detail={detail} notes={notes} />
      </Section>
    </Beside>
  );
}
