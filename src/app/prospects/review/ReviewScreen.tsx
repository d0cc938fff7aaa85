'use client';
import { useRouter } from 'next/navigation';
import styled from 'styled-components';
import { REVIEW_BY, type ReviewBy } from '@/core/journal';
import { ProfitBars } from '@/ui/chart/ProfitBars';
import { ButtonLink } from '@/ui/controls/Button';
import { Choice } from '@/ui/controls/Field';
import { formatAmount } from '@/ui/text/figures';
import { signed } from '@/ui/text/prospectWords';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { returnWords } from '@/ui/text/sellingWords';
import { namesWords } from '@/ui/text/words';
import type { Review } from '@/usecases/prospects/review';
import { useTitle } from '../../frame/PageTitle';
import { ReviewTable } from './ReviewTable';
import { BY_WORDS, keyWords } from './reviewWords';

const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 16px;
  @media print { display: none; }
`;

const SHOWN = 14;

/** What a year cost, what was sold, and what it came to; divided by ending, tag, account or year. */
export function ReviewScreen({ review }: { review: Review }) {
  const router = useRouter();
  const { year, by, years, lines, homeCurrency } = review;
  useTitle('Prospects', 'the year’s review');
  const go = (change: { year?: string; by?: ReviewBy }) => {
    const query = new URLSearchParams({
      year: change.year ?? (year === null ? 'all' : String(year)),
      by: change.by ?? by,
    });
    router.push(`/prospects/review?${query}`);
  };
  const query = new URLSearchParams({ year: year === null ? 'all' : String(year), by });
  const offered = [...new Set([...(year === null ? [] : [year]), ...years])].sort((a, b) => b - a);
  return (
    <Page>
      <Head>
        <Answer>{reviewAnswer(review)}</Answer>
        <p>
          As it was booked, in {homeCurrency} at the rate of each entry’s day. Profit and return are of the names sold:
          all that each brought, against all that it ever cost.
        </p>
      </Head>
      <Asked>
        <Choice
          label="Year"
          value={year === null ? 'all' : String(year)}
          onChange={(value) => go({ year: value })}
          options={[
            ...offered.map((one) => ({ value: String(one), text: String(one) })),
            { value: 'all', text: 'all years' },
          ]}
        />
        <Choice
          label="Divided by"
          value={by}
          onChange={(value) => go({ by: value })}
          options={REVIEW_BY.map((one) => ({ value: one, text: BY_WORDS[one] }))}
        />
        <ButtonLink href={`/prospects/review/paper?${query}`}>For the tax adviser…</ButtonLink>
        <a href={`/prospects/review/csv?${query}`}>This table as CSV</a>
        <a href={`/prospects/review/csv?${query}&what=entries`}>Every entry as CSV</a>
      </Asked>
      <Section aria-label="Sums">
        <h2>By {BY_WORDS[by]}</h2>
        <ReviewTable review={review} />
        {by === 'tag' && <p className="soft">A name stands under each of its tags; in the sum it counts once.</p>}
        {by === 'account' && (
          <p className="soft">A name’s entries stand under the account that it is in, or was in last.</p>
        )}
      </Section>
      <Section aria-label="In less out">
        <h2>What came in over what went out</h2>
        <ProfitBars
          label={`In less out by ${BY_WORDS[by]}, in ${homeCurrency}`}
          bars={[...lines]
            .sort((a, b) => Math.abs(b.surplus?.minor ?? 0) - Math.abs(a.surplus?.minor ?? 0))
            .slice(0, SHOWN)
            .map(({ key, surplus, names }) => ({
              key: keyWords(by, key),
              minor: surplus?.minor ?? null,
              words: surplus ? signed(surplus) : 'no rate',
              about: namesWords(names),
            }))}
        />
        {lines.length > SHOWN && (
          <p className="soft">
            The {SHOWN} greatest of {lines.length}.
          </p>
        )}
      </Section>
    </Page>
  );
}

function reviewAnswer({ year, whole }: Review): string {
  const when = year === null ? 'In all years' : `In ${year}`;
  const { cost, sales, proceeds, surplus, profit, yearlyReturn } = whole;
  if (!cost || !proceeds || !surplus)
    return `${when} something was paid in a currency without a rate: the sum is not known.`;
  const spent = `${when} names cost ${formatAmount(cost, true)}`;
  if (sales === 0) return `${spent}, and none was sold.`;
  const brought = `${sales === 1 ? 'one sale' : `${sales} sales`} brought ${formatAmount(proceeds, true)} after fees`;
  const size = formatAmount({ ...surplus, minor: Math.abs(surplus.minor) }, true);
  const left = surplus.minor < 0 ? `${size} more went out than came in` : `${size} more came in than went out`;
  const back =
    profit && yearlyReturn !== null ? ` What was sold returned ${returnWords(yearlyReturn)} on its cost.` : '';
  return `${spent} and ${brought}: ${left}.${back}`;
}
