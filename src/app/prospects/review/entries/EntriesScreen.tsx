'use client';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import type { ReviewedEntries } from '@/usecases/prospects/review';
import { useTitle } from '../../../frame/PageTitle';
import { keyWords, PART_WORDS } from '../reviewWords';
import { EntriesTable } from './EntriesTable';

/** The entries that a figure of the review is made of. */
export function EntriesScreen({ found }: { found: ReviewedEntries }) {
  const { query, key, part, entries, total, sum, homeCurrency } = found;
  useTitle('Prospects', 'the entries behind a figure');
  if (total === 0) return <Empty title="Nothing was booked here." text="No entry stands behind this figure." />;
  const what = part === null ? 'Everything that was booked' : PART_WORDS[part];
  const of = key === null ? '' : ` of ${keyWords(query.by, key)}`;
  const when = query.year === null ? 'in all years' : `in ${query.year}`;
  return (
    <Page>
      <Head>
        <Answer>
          {what}
          {of} {when}: {total === 1 ? 'one entry' : `${total.toLocaleString('en')} entries`}
          {sum && part !== null && `, ${formatAmount(sum)} in all`}.
        </Answer>
        {total > entries.length && (
          <p>The first {entries.length.toLocaleString('en')} are shown; the CSV of the review has them all.</p>
        )}
      </Head>
      <Section aria-label="Entries">
        <EntriesTable entries={entries} homeCurrency={homeCurrency} label="Entries" />
      </Section>
    </Page>
  );
}
