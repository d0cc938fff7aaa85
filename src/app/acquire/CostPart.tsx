'use client';
import { type CandidateView, kindAt } from '@/core/acquiring';
import { isCheapFirst } from '@/core/ledger';
import type { YearPath } from '@/core/pricing';
import { formatDay, startOfDay } from '@/core/time';
import { YearsChart } from '@/ui/chart/YearsChart';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { dayWords, yearsWords } from '@/ui/text/words';
import type { CandidateDetail } from '@/usecases/acquiring/detail';
import type { CandidateTable } from '@/usecases/acquiring/table';
import { useLedger } from '../frame/LedgerProvider';

interface CostPartProps {
  readonly table: CandidateTable;
  readonly view: CandidateView;
  readonly row: number;
  readonly column: number;
  readonly detail: CandidateDetail | null;
}

/** What a name costs to hold: at each account and on the cheapest way, its first payment, its next renewal, and like sales. */
export function CostPart(props: CostPartProps) {
  const { view, row, column, table, detail } = props;
  const kind = kindAt(view, row * view.width + column);
  const own = view.ownByCell.get(row * view.width + column);
  const years = table.set.heldYears;
  return (
    <>
      <h2>Held {yearsWords(years)}</h2>
      {kind === 'premium' && own ? (
        <OwnPrice own={own.holding} accountId={own.accountId} years={years} />
      ) : (
        <ListPrices {...props} years={years} />
      )}
      <LikeSales detail={detail} />
    </>
  );
}

function useMoney() {
  const { homeCurrency, meta } = useLedger();
  const labels = new Map((meta?.rules.accounts ?? []).map(({ id, label }) => [id, label]));
  return {
    money: (minor: number) => formatAmount({ minor, currency: homeCurrency }),
    labelOf: (id: number | null) => (id === null ? 'the registrar that was asked' : (labels.get(id) ?? 'an account')),
    homeCurrency,
  };
}

/** A name's own price is one account's word: nobody knows what others would ask. */
function OwnPrice({
  own,
  accountId,
  years,
}: {
  own: NonNullable<ReturnType<CandidateView['ownByCell']['get']>>['holding'];
  accountId: number | null;
  years: number;
}) {
  const { money, labelOf } = useMoney();
  const total = own.totals[years - 1] ?? null;
  return (
    <>
      <p>
        Its own price, told by {labelOf(accountId)}:{' '}
        {total === null ? 'what it comes to is not known.' : `${money(total)} in all.`}{' '}
        {own.next !== null && `Each renewal costs ${money(own.next.minor)}.`}
      </p>
      <Ruled aria-label="What it costs">
        <tbody>
          <tr>
            <td>to pay now</td>
            <td className="figure">{own.firstMinor === null ? 'not said' : money(own.firstMinor)}</td>
          </tr>
          <tr>
            <td>{own.next === null ? 'each renewal' : `next renewal, ${formatDay(own.next.on)}`}</td>
            <td className="figure">{own.next === null ? 'not said' : money(own.next.minor)}</td>
          </tr>
        </tbody>
      </Ruled>
    </>
  );
}

function ListPrices({ table, column, years }: CostPartProps & { years: number }) {
  const { money, labelOf, homeCurrency } = useMoney();
  const holding = table.endings[column];
  const sold = (holding?.accounts ?? []).filter(({ totals }) => totals[years - 1] !== null);
  const best = holding?.best[years - 1] ?? null;
  if (!holding || best === null) return <p className="soft">No account is known to sell it for {yearsWords(years)}.</p>;
  const first = holding.accounts.find(({ accountId }) => accountId === best.payments[0]?.accountId);
  const next = first?.next[years - 1] ?? null;
  return (
    <>
      <YearsChart
        label={`What .${holding.ending} costs over the years`}
        currency={homeCurrency}
        lines={sold.map(({ accountId, totals }) => ({ label: labelOf(accountId), totals }))}
        marks={[]}
      />
      <Ruled aria-label="What it costs">
        <tbody>
          <tr>
            <td>to pay now, {labelOf(best.payments[0]?.accountId ?? null)}</td>
            <td className="figure">{money(best.nowMinor)}</td>
          </tr>
          {next && (
            <tr>
              <td>next payment, {formatDay(next.on)}</td>
              <td className="figure">{money(next.minor)}</td>
            </tr>
          )}
          {sold.map(({ accountId, totals, condition }) => (
            <tr key={accountId}>
              <td>
                {labelOf(accountId)} alone
                {condition !== null && condition !== 'any term' && <div className="soft">first price: {condition}</div>}
              </td>
              <td className="figure">{money(totals[years - 1] ?? 0)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>cheapest way{movesIn(best) > 0 ? ', moving' : ''}</td>
            <td className="figure">{money(best.totalMinor)}</td>
          </tr>
        </tfoot>
      </Ruled>
      {next !== null && isCheapFirst(best.nowMinor, next.minor) && (
        <p>
          A cheap beginning: {money(best.nowMinor)} now, then {money(next.minor)}.
        </p>
      )}
      {movesIn(best) > 0 && <Way path={best} />}
    </>
  );
}

const movesIn = ({ payments }: YearPath) => payments.filter(({ action }) => action === 'transfer').length;

/** The payments of the cheapest way. */
function Way({ path }: { path: YearPath }) {
  const { money, labelOf } = useMoney();
  return (
    <details>
      <summary>Its payments</summary>
      <Ruled aria-label="Payments of the cheapest way">
        <tbody>
          {path.payments.map(({ action, accountId, after, years, minor, isNow }) => (
            <tr key={`${after} ${action} ${accountId}`}>
              <td>{isNow ? 'now' : `after ${yearsWords(after)}`}</td>
              <td>
                {action} {years > 0 ? `${yearsWords(years)} ` : ''}at {labelOf(accountId)}
              </td>
              <td className="figure">{money(minor)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </details>
  );
}

/** What like names were sold for. */
function LikeSales({ detail }: { detail: CandidateDetail | null }) {
  const { style } = useLedger();
  if (!detail) return null;
  const { like } = detail;
  if (!like) return <p className="soft">No sale of a like name is known.</p>;
  const money = (minor: number) => formatAmount({ minor, currency: like.currency }, true);
  return (
    <details>
      <summary>
        Like sales: {money(like.lowerMinor)} · {money(like.medianMinor)} · {money(like.upperMinor)}
      </summary>
      <Ruled aria-label="Sales of like names">
        <tbody>
          {like.sales.map((sale) => (
            <tr key={`${sale.ascii} ${sale.day}`}>
              <td className="name">{sale.ascii}</td>
              <td className="whole">{dayWords(startOfDay(sale.day), style)}</td>
              <td className="figure">{formatAmount(sale.price, true)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </details>
  );
}
