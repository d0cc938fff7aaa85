'use client';
import styled from 'styled-components';
import { formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { formatFigure } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { useLedger } from '../frame/LedgerProvider';
import type { PriceCellView, PriceLineView } from '../frame/views';
import { NOT_COMPARED_WORDS } from './priceWords';

const Grid = styled(Ruled)`
  & tr[data-current='true'] td { background: var(--bearing-pale); }
  & td:first-child { padding-left: 4px; }
  & small { display: block; color: var(--ink-soft); font-size: 0.82rem; }
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
    <Wide>
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
    </Wide>
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
          {money(firstMinor)}, then {money(next.minor)} {formatDay(next.on)}
        </small>
      )}
    </>
  );
}
