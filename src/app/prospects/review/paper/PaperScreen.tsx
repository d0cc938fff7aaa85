'use client';
import styled from 'styled-components';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { dayWords } from '@/ui/text/words';
import type { Review, ReviewedEntries } from '@/usecases/prospects/review';
import { useLedger } from '../../../frame/LedgerProvider';
import { useTitle } from '../../../frame/PageTitle';
import { EntriesTable } from '../entries/EntriesTable';
import { ReviewTable } from '../ReviewTable';

const OnScreen = styled.div`@media print { display: none; }`;

/** A year on paper: the sums, by ending and by account, what each kind of money came to, and every entry. */
export function PaperScreen({
  byEnding,
  byAccount,
  entries,
  now,
}: {
  byEnding: Review;
  byAccount: Review;
  entries: ReviewedEntries;
  now: Instant;
}) {
  const { style } = useLedger();
  const { year, homeCurrency } = byEnding;
  const when = year === null ? 'all years' : String(year);
  useTitle('Prospects', `${when}, to be printed`);
  return (
    <Page style={{ maxWidth: 1240 }}>
      <Head>
        <Answer>Domain names: income and expenses, {when}</Answer>
        <p>
          Written on {dayWords(now, style)}, in {homeCurrency}; other currencies at the rate of each entry’s day.{' '}
          {countOf(entries.total, 'entry', 'entries')}.
        </p>
        <OnScreen>
          <Button data-kind="primary" onPress={() => window.print()}>
            Print
          </Button>
        </OnScreen>
      </Head>
      <Section aria-label="By kind">
        <h2>What it was for</h2>
        <KindsTable entries={entries} />
      </Section>
      <Section aria-label="By ending">
        <h2>By ending</h2>
        <ReviewTable review={byEnding} />
      </Section>
      <Section aria-label="By account">
        <h2>By account</h2>
        <ReviewTable review={byAccount} />
      </Section>
      <Section aria-label="Every entry">
        <h2>Every entry</h2>
        {entries.total > entries.entries.length && (
          <p>
            The first {entries.entries.length.toLocaleString('en')} of {entries.total.toLocaleString('en')}: the CSV of
            the review has them all.
          </p>
        )}
        <EntriesTable entries={entries.entries} homeCurrency={homeCurrency} label="Every entry" />
      </Section>
    </Page>
  );
}

/** Sums by what money was for, of the entries that are told. */
function KindsTable({ entries: { entries, homeCurrency } }: { entries: ReviewedEntries }) {
  const sums = new Map<string, { received: boolean; minor: number; count: number; unknown: number }>();
  for (const { kind, part, inHome } of entries) {
    const sum = sums.get(kind) ?? { received: part === 'price', minor: 0, count: 0, unknown: 0 };
    sums.set(kind, sum);
    sum.count += 1;
    if (inHome) sum.minor += inHome.minor;
    else sum.unknown += 1;
  }
  return (
    <Ruled aria-label="By kind">
      <thead>
        <tr>
          <th>Kind</th>
          <th>In or out</th>
          <th className="figure">Entries</th>
          <th className="figure">{homeCurrency}</th>
        </tr>
      </thead>
      <tbody>
        {[...sums]
          .sort(([, a], [, b]) => Number(b.received) - Number(a.received) || b.minor - a.minor)
          .map(([kind, { received, minor, count, unknown }]) => (
            <tr key={kind}>
              <td>{kind}</td>
              <td className="soft">{received ? 'received' : 'spent'}</td>
              <td className="figure">{count.toLocaleString('en')}</td>
              <td className="figure">
                {formatAmount({ minor, currency: homeCurrency })}
                {unknown > 0 && (
                  <div className="caution">and {countOf(unknown, 'entry', 'entries')} without a rate</div>
                )}
              </td>
            </tr>
          ))}
      </tbody>
    </Ruled>
  );
}
