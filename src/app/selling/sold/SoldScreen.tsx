'use client';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { formatDay } from '@/core/time';
import { ProfitBars } from '@/ui/chart/ProfitBars';
import { Choice } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { PriceDots } from '@/ui/strip/PriceDots';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { returnWords } from '@/ui/text/sellingWords';
import { countOf } from '@/ui/text/todayWords';
import { useWidth } from '@/ui/text/useWidth';
import { Wide } from '@/ui/text/Wide';
import { namesWords } from '@/ui/text/words';
import type { SoldList, SoldTotal } from '@/usecases/selling/statement';
import { useTitle } from '../../frame/PageTitle';

/** Every sale that is done, with profit, holding time and yearly return; and the sums. */
export function SoldScreen({ sold }: { sold: SoldList }) {
  const { lines, totals, homeCurrency } = sold;
  const [by, setBy] = useState<SoldTotal['by']>('year');
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 1060, 260);
  useTitle('Selling', 'what was sold');
  if (lines.length === 0)
    return <Empty title="Nothing has been sold yet." text="A sale stands here once its money is released." />;
  return (
    <Page>
      <Head>
        <Answer>{answerOf(sold)}</Answer>
      </Head>
      <Halves>
        {(['year', 'ending'] as const).map((one) => (
          <Section key={one} aria-label={`Profit by ${one}`}>
            <h2>Profit by {one}</h2>
            <ProfitBars label={`Profit by ${one}, in ${homeCurrency}`} bars={barsOf(totals, one)} />
          </Section>
        ))}
      </Halves>
      <Section aria-label="What names were sold for">
        <h2>What names were sold for</h2>
        <div ref={box}>
          <PriceDots
            dots={lines.flatMap(({ unicode, price }) =>
              price.currency === homeCurrency ? [{ minor: price.minor, text: unicode, isOwn: true }] : [],
            )}
            mark={null}
            currency={homeCurrency}
            width={width}
          />
        </div>
      </Section>
      <Section aria-label="Sums">
        <OneChoice>
          <Choice
            label="Sums by"
            value={by}
            onChange={setBy}
            options={(['year', 'ending', 'marketplace', 'currency'] as const).map((one) => ({ value: one, text: one }))}
          />
        </OneChoice>
        <Ruled aria-label={`Sums by ${by}`}>
          <thead>
            <tr>
              <th>{by}</th>
              <th className="figure">names</th>
              <th className="figure">proceeds in {homeCurrency}</th>
              <th className="figure">profit in {homeCurrency}</th>
            </tr>
          </thead>
          <tbody>
            {totals
              .filter((total) => total.by === by)
              .map((total) => (
                <tr key={total.key}>
                  <td>{total.key}</td>
                  <td className="figure">{total.count}</td>
                  <td className="figure">{total.proceeds ? formatAmount(total.proceeds) : 'no rate'}</td>
                  <td className="figure">{total.profit ? formatAmount(total.profit) : 'no rate'}</td>
                </tr>
              ))}
          </tbody>
        </Ruled>
      </Section>
      <Section aria-label="Sales">
        <h2>Sales</h2>
        <Wide>
          <SoldTable lines={lines} />
        </Wide>
      </Section>
    </Page>
  );
}

const Halves = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 20px 44px;
`;

/** A choice as wide as its words. */
const OneChoice = styled.div`width: fit-content;`;

/** What all sales came to, in a sentence. */
function answerOf({ lines, totals }: SoldList): string {
  const years = totals.filter(({ by }) => by === 'year');
  const known = years.flatMap(({ profit }) => profit ?? []);
  const sum = known[0] && { minor: known.reduce((all, { minor }) => all + minor, 0), currency: known[0].currency };
  const sold = countOf(lines.length, 'name was sold', 'names were sold');
  if (!sum || known.length < years.length) return `${sold}; what they brought is not known in one currency.`;
  return sum.minor < 0
    ? `${sold} at a loss of ${formatAmount({ ...sum, minor: -sum.minor })}.`
    : `${sold} for a profit of ${formatAmount(sum)}.`;
}

function barsOf(totals: SoldList['totals'], by: SoldTotal['by']) {
  return totals
    .filter((total) => total.by === by)
    .map(({ key, count, profit }) => ({
      key,
      minor: profit?.minor ?? null,
      words: profit ? formatAmount(profit, true) : 'no rate',
      about: namesWords(count),
    }));
}

/** Every sale, with what came of it. */
function SoldTable({ lines }: { lines: SoldList['lines'] }) {
  return (
    <Ruled aria-label="Sales">
      <thead>
        <tr>
          <th>Name</th>
          <th>Paid out</th>
          <th>Where</th>
          <th>Buyer</th>
          <th className="figure">Price</th>
          <th className="figure">Proceeds</th>
          <th className="figure">Profit</th>
          <th className="figure">Held</th>
          <th className="figure">Return</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.id}>
            <td>
              <Link href={`/selling/sales/${line.id}`} className="name">
                {line.unicode}
              </Link>
            </td>
            <td>{formatDay(line.soldOn)}</td>
            <td>{line.marketplace}</td>
            <td>{line.buyer}</td>
            <td className="figure">{formatAmount(line.price, true)}</td>
            <td className="figure">{line.proceeds ? formatAmount(line.proceeds) : 'no rate'}</td>
            <td className={line.profit && line.profit.minor < 0 ? 'figure caution' : 'figure'}>
              {line.profit ? formatAmount(line.profit) : 'no rate'}
            </td>
            <td className="figure">{line.heldDays === null ? '–' : `${(line.heldDays / 365).toFixed(1)} years`}</td>
            <td className="figure">{returnWords(line.yearlyReturn)}</td>
          </tr>
        ))}
      </tbody>
    </Ruled>
  );
}
