import type { ReviewLine, ReviewPart } from '@/core/journal';
import type { Amount } from '@/core/money';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { signed } from '@/ui/text/prospectWords';
import { Ruled } from '@/ui/text/Sheet';
import { returnWords } from '@/ui/text/sellingWords';
import { Wide } from '@/ui/text/Wide';
import type { Review } from '@/usecases/prospects/review';
import { BY_WORDS, entriesHref, keyWords } from './reviewWords';

/** Cost, sales, profit and return of each group; a figure that is made of entries opens to them. */
export function ReviewTable({ review }: { review: Review }) {
  const { by, lines, whole } = review;
  return (
    <Wide least={900}>
      <Ruled aria-label={`Review by ${BY_WORDS[by]}`}>
        <thead>
          <tr>
            <th>{BY_WORDS[by]}</th>
            <th className="figure">Names</th>
            <th className="figure">Cost</th>
            <th className="figure">Sales</th>
            <th className="figure">Prices</th>
            <th className="figure">Fees</th>
            <th className="figure">Proceeds</th>
            <th className="figure">In less out</th>
            <th className="figure">Profit of names sold</th>
            <th className="figure">Return a year</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.key}>
              <td>{keyWords(by, line.key)}</td>
              <Figures review={review} line={line} entryKey={line.key} />
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>all</td>
            <Figures review={review} line={whole} entryKey={null} />
          </tr>
        </tfoot>
      </Ruled>
    </Wide>
  );
}

function Figures({ review, line, entryKey }: { review: Review; line: ReviewLine; entryKey: string | null }) {
  // The year of a line is the year of its entries.
  const of = review.by === 'year' && entryKey !== null ? { year: Number(entryKey), by: review.by } : review;
  const opened = (amount: Amount | null, part: ReviewPart) => (
    <td className="figure">
      {amount?.minor === 0 ? (
        <span className="soft">–</span>
      ) : (
        <Link href={entriesHref(of, entryKey, part)}>{amount ? formatAmount(amount) : 'no rate'}</Link>
      )}
    </td>
  );
  const plain = (amount: Amount | null) => (
    <td className="figure">
      {amount === null ? 'no rate' : amount.minor === 0 ? <span className="soft">–</span> : signed(amount)}
    </td>
  );
  return (
    <>
      <td className="figure">{line.names.toLocaleString('en')}</td>
      {opened(line.cost, 'cost')}
      <td className="figure">{line.sales}</td>
      {opened(line.price, 'price')}
      {opened(line.fees, 'fee')}
      {plain(line.proceeds)}
      {plain(line.surplus)}
      {line.sales > 0 ? plain(line.profit) : <td className="figure soft">–</td>}
      <td className="figure">{line.sales > 0 ? returnWords(line.yearlyReturn) : <span className="soft">–</span>}</td>
    </>
  );
}
