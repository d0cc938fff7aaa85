'use client';
import { useMemo, useRef, useState } from 'react';
import { compareSales, type PastSale, traitsOf } from '@/core/selling';
import { formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { PriceDots } from '@/ui/strip/PriceDots';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Fields, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { useWidth } from '@/ui/text/useWidth';
import { Wide } from '@/ui/text/Wide';
import type { BroughtSales } from '@/usecases/selling/comparables';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { namePage } from '../../frame/pages';
import { bringInSalesAction } from '../actions';

const MOST_ROWS = 200;

/** Sales that names are compared with: one's own, and those that were told. */
export function ComparablesScreen({ sales }: { sales: readonly PastSale[] }) {
  const { homeCurrency } = useLedger();
  const [like, setLike] = useState('');
  useTitle('Selling', `${sales.length.toLocaleString('en')} past sales`);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 1060, 260);
  const isName = /^[^\s.]+\.[^\s]{2,}$/.test(like.trim());
  const comparison = useMemo(
    () => (isName ? compareSales(like.trim().toLowerCase(), sales, homeCurrency) : null),
    [isName, like, sales, homeCurrency],
  );
  const shown = useMemo(
    () =>
      (
        comparison?.sales ??
        [...sales]
          .filter(({ ascii }) => ascii.includes(like.trim().toLowerCase()))
          .sort((a, b) => (a.day < b.day ? 1 : -1))
      ).slice(0, MOST_ROWS),
    [comparison, sales, like],
  );
  const prices = (comparison?.sales ?? sales).filter(({ price }) => price.currency === homeCurrency);
  const money = (minor: number) => formatAmount({ minor, currency: homeCurrency }, true);
  return (
    <Page>
      <Head>
        <Answer>
          {comparison
            ? `Like names went for ${money(comparison.medianMinor)}, half of them for ${money(comparison.lowerMinor)} to ${money(comparison.upperMinor)}.`
            : isName
              ? 'No sale of a like name is known.'
              : `${countOf(sales.length, 'past sale', 'past sales')} to hold a price against.`}
        </Answer>
      </Head>
      <Section>
        <Fields>
          <Field label="Like this name" value={like} onChange={setLike} placeholder="kelpkiln.com" mono />
        </Fields>
        <div ref={box}>
          <PriceDots
            dots={prices.map(({ ascii, price, own }) => ({ minor: price.minor, text: ascii, isOwn: own }))}
            mark={comparison ? { minor: comparison.medianMinor, text: 'middle' } : null}
            currency={homeCurrency}
            width={width}
          />
        </div>
      </Section>
      <BringInPart />
      <SalesTable sales={shown} />
      {sales.length > shown.length && !comparison && (
        <p className="soft">
          The newest {shown.length} of {sales.length.toLocaleString('en')}.
        </p>
      )}
    </Page>
  );
}

/** Sales that were told, brought in as a table. */
function BringInPart() {
  const { homeCurrency } = useLedger();
  const { save, refused, isBusy } = useSave();
  const [text, setText] = useState('');
  const [brought, setBrought] = useState<BroughtSales | null>(null);
  const bringIn = async () => {
    const answer = await save(bringInSalesAction(text, homeCurrency), ({ added }) => `${added} sales brought in.`);
    if (answer === null) return;
    setBrought(answer);
    setText('');
  };
  return (
    <details>
      <summary>Bring in past sales</summary>
      <Form aria-label="Bring in past sales" refused={refused} onSubmit={bringIn}>
        <p className="soft">A table with a row of headings: name, price, date; currency and marketplace if you like.</p>
        <Field name="text" label="Table" rows={5} mono value={text} onChange={setText} />
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Bring them in
          </Button>
        </Actions>
        {brought && (
          <>
            <p role="status">
              {brought.added} added, {brought.known} known already, {brought.refused.length} not read.
            </p>
            {brought.refused.length > 0 && (
              <Ruled aria-label="Rows that were not read">
                <tbody>
                  {brought.refused.slice(0, 50).map(({ line, problem }) => (
                    <tr key={line}>
                      <td>line {line}</td>
                      <td>{problem}</td>
                    </tr>
                  ))}
                </tbody>
              </Ruled>
            )}
          </>
        )}
      </Form>
    </details>
  );
}

/** Past sales, each with what makes names alike. */
function SalesTable({ sales }: { sales: readonly PastSale[] }) {
  return (
    <Wide>
      <Ruled aria-label="Past sales">
        <thead>
          <tr>
            <th>Name</th>
            <th>Sold</th>
            <th className="figure">Price</th>
            <th>Where</th>
            <th className="figure">letters</th>
            <th className="figure">digits</th>
            <th className="figure">hyphens</th>
          </tr>
        </thead>
        <tbody>
          {sales.map((sale) => {
            const traits = traitsOf(sale.ascii);
            return (
              <tr key={`${sale.ascii} ${sale.day} ${sale.price.minor}`}>
                <td className="name">
                  {sale.own ? (
                    <Link href={namePage(sale.ascii)} className="name">
                      {sale.ascii}
                    </Link>
                  ) : (
                    sale.ascii
                  )}
                </td>
                <td>{formatDay(sale.day)}</td>
                <td className="figure">{formatAmount(sale.price, true)}</td>
                <td>{sale.own ? `${sale.marketplace || 'the office'}, your own` : sale.marketplace}</td>
                <td className="figure">{traits.length}</td>
                <td className="figure">{traits.digits}</td>
                <td className="figure">{traits.hyphens}</td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </Wide>
  );
}
