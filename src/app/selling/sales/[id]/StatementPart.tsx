'use client';
import styled from 'styled-components';
import { dayOf, formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { returnWords } from '@/ui/text/sellingWords';
import type { Statement } from '@/usecases/selling/statement';

const Paper = styled(Section)`
  max-width: 760px;
  & .origin { color: var(--ink-soft); font-size: 0.9rem; }
  @media print { max-width: none; & button { display: none; } }
`;

const HOW = {
  offer: 'an offer that was accepted',
  bid: 'an auction',
  'buy now': 'a purchase at the asked price',
} as const;

/** The statement of a sale, printable: every figure with where it comes from. */
export function StatementPart({ statement }: { statement: Statement }) {
  const { sale } = statement;
  const soldOn = sale.stage === 'done' ? dayOf(sale.stageSince) : null;
  return (
    <Paper aria-label="Statement of sale">
      <Actions>
        <h2>Statement of sale {sale.id}</h2>
        <Button onPress={() => window.print()}>Print</Button>
      </Actions>
      <p>
        <span className="name">{sale.unicode}</span>
        {sale.unicode !== sale.ascii && (
          <>
            {' '}
            (<span className="name">{sale.ascii}</span>)
          </>
        )}
        , sold to {sale.buyer} by {HOW[sale.how]}
        {sale.marketplace ? ` at ${sale.marketplace}` : ''}, agreed {formatDay(dayOf(sale.agreedAt))}
        {soldOn ? `, paid out ${formatDay(soldOn)}` : ', not paid out yet'}.
      </p>
      <ProceedsTable statement={statement} />
      <CostsTable statement={statement} />
      <ResultTable statement={statement} />
    </Paper>
  );
}

/** The price, what the marketplace keeps of it, and what is left. */
function ProceedsTable({ statement }: { statement: Statement }) {
  const { sale, net, told } = statement;
  const money = (minor: number) => formatAmount({ minor, currency: sale.currency });
  return (
    <Ruled aria-label="Proceeds">
      <tbody>
        <tr>
          <td>Price</td>
          <td className="origin">agreed {formatDay(dayOf(sale.agreedAt))}</td>
          <td className="figure">{money(sale.priceMinor)}</td>
        </tr>
        <tr>
          <td>Commission</td>
          <td className="origin">
            {told ? 'as the marketplace told' : sale.marketplace ? 'by the marketplace’s rules' : 'no marketplace'}
          </td>
          <td className="figure">{net ? money(-net.commissionMinor) : 'no rate'}</td>
        </tr>
        <tr>
          <td>Fees</td>
          <td className="origin">
            {told ? 'as the marketplace told' : sale.marketplace ? 'by the marketplace’s rules' : 'no marketplace'}
          </td>
          <td className="figure">{net ? money(-net.feesMinor) : 'no rate'}</td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <td>Proceeds</td>
          <td />
          <td className="figure">{net ? money(net.proceedsMinor) : 'not known'}</td>
        </tr>
      </tfoot>
    </Ruled>
  );
}

/** Every amount spent on the name, and the rates by which it is added up. */
function CostsTable({ statement }: { statement: Statement }) {
  const { sale, costs, cost, rates } = statement;
  const used = rates.filter(
    (rate) =>
      rate.into === sale.currency &&
      costs.some((entry) => entry.currency === rate.currency && rate.from <= entry.onDay),
  );
  return (
    <Ruled aria-label="What the name has cost">
      <thead>
        <tr>
          <th>Spent on the name</th>
          <th>Day</th>
          <th>Reference</th>
          <th className="figure">Amount</th>
        </tr>
      </thead>
      <tbody>
        {costs.length === 0 && (
          <tr>
            <td colSpan={4} className="soft">
              Nothing is in the books.
            </td>
          </tr>
        )}
        {costs.map((entry) => (
          <tr key={entry.id}>
            <td>{entry.kind}</td>
            <td>{formatDay(entry.onDay)}</td>
            <td className="origin">{[entry.reference, entry.note].filter(Boolean).join(', ')}</td>
            <td className="figure">{formatAmount({ minor: entry.minor, currency: entry.currency })}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>Has cost</td>
          <td />
          <td className="origin">
            {used
              .map((rate) => `1 ${rate.currency} = ${rate.factor} ${rate.into} from ${formatDay(rate.from)}`)
              .join('; ')}
          </td>
          <td className="figure">{cost ? formatAmount(cost) : 'no rate'}</td>
        </tr>
      </tfoot>
    </Ruled>
  );
}

/** What came of it: profit, time held, and the yearly return. */
function ResultTable({ statement }: { statement: Statement }) {
  const { profit, heldDays, yearlyReturn } = statement;
  return (
    <Ruled aria-label="Result">
      <tbody>
        <tr>
          <td>Profit</td>
          <td className="origin">proceeds less what it has cost</td>
          <td className="figure">
            <b>{profit ? formatAmount(profit) : '–'}</b>
          </td>
        </tr>
        <tr>
          <td>Held</td>
          <td className="origin">from the first entry</td>
          <td className="figure">{heldDays === null ? '–' : `${heldDays.toLocaleString('en')} days`}</td>
        </tr>
        <tr>
          <td>Yearly return</td>
          <td className="origin">internal rate over the dated entries above</td>
          <td className="figure">{returnWords(yearlyReturn)}</td>
        </tr>
      </tbody>
    </Ruled>
  );
}
