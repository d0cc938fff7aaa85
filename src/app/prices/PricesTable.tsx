'use client';
import styled from 'styled-components';
import { rateOn } from '@/core/money';
import { dayOf, formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { formatFigure, numberText } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { useLedger } from '../frame/LedgerProvider';
import type { PriceCellView, PriceLineView } from '../frame/views';
import { NOT_COMPARED_WORDS } from './priceWords';

/** The endings scroll by themselves: what is told of the chosen one stays in sight. */
const Scroll = styled.div`
  max-height: min(42vh, 420px);
  overflow: auto;
  border-bottom: 1px solid var(--rule);
  & thead th { position: sticky; top: 0; background: var(--sheet); z-index: 1; }
`;

const Grid = styled(Ruled)`
  & tr[data-current='true'] td { background: var(--bearing-pale); }
  & td:first-child { padding-left: 4px; }
  & small { display: block; color: var(--ink-soft); font-size: 0.82rem; white-space: normal; }
  & small span { white-space: nowrap; }
`;

interface PricesTableProps {
  readonly lines: readonly PriceLineView[];
  readonly shown: string | null;
  readonly onShow: (ending: string) => void;
}

/** Endings down, accounts across: the total, the first payment where it differs, and what is charged next and when. */
export function PricesTable({ lines, shown, onShow }: PricesTableProps) {
  const { meta, homeCurrency } = useLedger();
  const accounts = meta?.rules.accounts ?? [];
  return (
    <Scroll tabIndex={0} role="region" aria-label="Endings and accounts">
      <Grid aria-label={`Prices in ${homeCurrency}`}>
        <thead>
          <tr>
            <th>Ending</th>
            {accounts.map(({ id, label }) => (
              <th key={id} className="figure">
                {label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ ending, cells }) => {
            const known = cells.flatMap(({ totalMinor }) => totalMinor ?? []);
            const least = known.length > 1 ? Math.min(...known) : null;
            return (
              <tr key={ending} data-current={ending === shown}>
                <td>
                  <Button data-kind="plain" aria-pressed={ending === shown} onPress={() => onShow(ending)}>
                    .{ending}
                  </Button>
                </td>
                {cells.map((cell) => (
                  <td key={cell.accountId} className="figure">
                    <Cell cell={cell} isLeast={cell.totalMinor !== null && cell.totalMinor === least} />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </Grid>
    </Scroll>
  );
}

/** By which rates prices of other currencies stand beside those of the office's own, and how old these are. */
export function RatesUsed() {
  const { meta, homeCurrency, today, style } = useLedger();
  const rules = meta?.rules;
  const foreign = [...new Set(rules?.prices.map(({ currency }) => currency))]
    .filter((one) => one !== homeCurrency)
    .sort();
  const words = foreign.flatMap((currency) => {
    const found = rateOn(currency, homeCurrency, rules?.rates ?? [], dayOf(today));
    return found
      ? [
          `1 ${currency} = ${numberText(Number(found.factor.toPrecision(6)))} ${homeCurrency} (${formatDay(found.from, style.today)})`,
        ]
      : [];
  });
  return words.length === 0 ? null : (
    <p className="soft">Prices in other currencies by these rates: {words.join(', ')}.</p>
  );
}

function Cell({
  cell: { totalMinor, firstMinor, next, notCompared },
  isLeast,
}: {
  cell: PriceCellView;
  isLeast: boolean;
}) {
  const { homeCurrency } = useLedger();
  const money = (minor: number) => formatFigure({ minor, currency: homeCurrency });
  if (totalMinor === null)
    return notCompared === null ? (
      <small>not sold for so long</small>
    ) : (
      <small>{NOT_COMPARED_WORDS[notCompared]}</small>
    );
  return (
    <>
      {isLeast ? <b>least {money(totalMinor)}</b> : money(totalMinor)}
      {firstMinor !== null && next !== null && (
        <small>
          <span>{money(firstMinor)}, then</span>{' '}
          <span>
            {money(next.minor)}
            {next.years > 1 && ` for ${next.years} years`}
          </span>{' '}
          <span>on {formatDay(next.on)}</span>
        </small>
      )}
    </>
  );
}
