'use client';
import Link from 'next/link';
import { useState } from 'react';
import { formatDay } from '@/core/time';
import { Choice } from '@/ui/controls/Field';
import { formatAmount } from '@/ui/text/figures';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { returnWords } from '@/ui/text/sellingWords';
import { Wide } from '@/ui/text/Wide';
import type { SoldList, SoldTotal } from '@/usecases/selling/statement';
import { useTitle } from '../../frame/Frame';

/** Every sale that is done, with profit, holding time and yearly return; and the sums. */
export function SoldScreen({ sold }: { sold: SoldList }) {
  const { lines, totals, homeCurrency } = sold;
  const [by, setBy] = useState<SoldTotal['by']>('year');
  useTitle('Selling', 'what was sold');
  if (lines.length === 0)
    return <Empty title="Nothing has been sold yet." text="A sale stands here once its money is released." />;
  return (
    <Page>
      <Section aria-label="Sums">
        <Choice
          label="Sums by"
          value={by}
          onChange={setBy}
          options={(['year', 'ending', 'marketplace', 'currency'] as const).map((one) => ({ value: one, text: one }))}
        />
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
